import { decodeCode } from '../core/codes/decode';
import { areasFor, codesOfNewestLook, type Compared, compareCodes } from '../core/codes/phases';
import type { CodeMeaning } from '../core/codes/types';
import type { CodeView } from './views';

/** A code with its meaning and what became of it. */
export type KnownCode = Compared & CodeMeaning;

/** The codes of a job, each once, with what became of it over the phases. */
export function knownCodes(codes: readonly Pick<CodeView, 'code' | 'phase' | 'at'>[]): KnownCode[] {
  const seen = codes.flatMap(({ code, phase }) => (code === null ? [] : [{ code, phase }]));
  return compareCodes(seen, new Set(codes.map((c) => c.phase)), codesOfNewestLook(codes)).flatMap((c) => {
    const meaning = decodeCode(c.code);
    return meaning.ok ? [{ ...meaning.value, ...c }] : [];
  });
}

/** Areas of the catalogue that the codes of a job point at, most telling first. */
export const pointedByCodes = (codes: readonly Pick<CodeView, 'code' | 'phase' | 'at'>[]): string[] =>
  areasFor(knownCodes(codes));

import { tr } from '../core/locale/translate';
import { decodeCode, findCodes } from '../core/codes/decode';
import type { CodeMeaning } from '../core/codes/types';
import { fail, ok, type Problem, type Result } from '../core/foundation/result';

/** `mudflat/codes`: fault codes explained. */
export interface CodesDocument {
  readonly format: 'mudflat/codes';
  readonly version: 1;
  readonly codes: readonly CodeMeaning[];
}

/** Decodes codes given one by one or in running text; a path names the piece that is none: `/codes/1`. */
export function explainCodes(pieces: readonly string[]): Result<CodesDocument> {
  // "SPN 653 FMI 5" may come as four pieces: they are read together.
  const { codes: found, unknown } = findCodes(pieces.join(' '));
  const at = (text: string): string =>
    `/codes/${Math.max(
      0,
      pieces.findIndex((p) => p.includes(text)),
    )}`;
  const problems: Problem[] = unknown.map((text) => ({ path: at(text), message: decodeError(text) }));
  const codes: CodeMeaning[] = [];
  for (const { code: text } of found) {
    const decoded = decodeCode(text);
    if (decoded.ok) codes.push(decoded.value);
    else problems.push({ path: at(text), message: decoded.error });
  }
  if (codes.length === 0 && problems.length === 0)
    problems.push({ path: '/codes', message: 'Give one code at least.' });
  return problems.length ? fail(problems) : ok({ format: 'mudflat/codes', version: 1, codes });
}

function decodeError(text: string): string {
  const decoded = decodeCode(text);
  return decoded.ok ? tr`"${text}" is read only on its own.` : decoded.error;
}

import { readFileSync } from 'node:fs';
import path from 'node:path';
import { create, type Font } from 'fontkit';
import { plainFont } from './woff';

/** Faces of the paper. */
export type Face = 'plain' | 'bold' | 'mono';

const file = (family: string, subset: string, weight: number): string =>
  path.join(process.cwd(), 'node_modules/@fontsource', family, `files/${family}-${subset}-${weight}-normal.woff`);

/** The Atkinson faces have no Greek and no Cyrillic: names and ohms fall back, letter by letter. */
const chain = (family: string, weight: number): string[] => [
  ...['latin', 'latin-ext'].map((s) => file(family, s, weight)),
  ...['latin', 'latin-ext', 'greek', 'cyrillic', 'cyrillic-ext', 'vietnamese'].map((s) => file('noto-sans', s, weight)),
];
const CHAINS: Readonly<Record<Face, readonly string[]>> = {
  plain: chain('atkinson-hyperlegible-next', 400),
  bold: chain('atkinson-hyperlegible-next', 700),
  mono: chain('atkinson-hyperlegible-mono', 400),
};

interface Opened {
  readonly bytes: Buffer;
  readonly font: Font;
}
const opened = new Map<string, Opened>();

/** Read once for all documents. */
function open(name: string): Opened {
  const known = opened.get(name);
  if (known) return known;
  const bytes = plainFont(readFileSync(name));
  const made = { bytes, font: create(bytes) as Font };
  opened.set(name, made);
  return made;
}

/** A font of a piece, as a file in memory. */
export const fontBytes = (name: string): Buffer => open(name).bytes;

const firstFont = (face: Face): string => CHAINS[face][0] as string;

/** Drawn for what no face has. */
const UNKNOWN = '\u25a1';

const found = new Map<string, string | null>();
function fontOf(letter: string, face: Face): string | null {
  const key = face + letter;
  const known = found.get(key);
  if (known !== undefined) return known;
  const name = CHAINS[face].find((f) => open(f).font.hasGlyphForCodePoint(letter.codePointAt(0) ?? 0)) ?? null;
  found.set(key, name);
  return name;
}

export interface Piece {
  readonly font: string;
  readonly text: string;
}

/** Text in pieces of one font each. What no face has stands as a question mark, never as nothing. */
export function piecesOf(text: string, face: Face): Piece[] {
  const out: { font: string; text: string }[] = [];
  for (const letter of text.replace(/[\p{Cc}\p{Cf}]/gu, '')) {
    const own = fontOf(letter, face);
    const [font, shown] =
      own === null ? [firstFont(face), fontOf(UNKNOWN, face) === null ? '?' : UNKNOWN] : [own, letter];
    const last = out.at(-1);
    if (last && last.font === font) last.text += shown;
    else out.push({ font, text: shown });
  }
  return out;
}

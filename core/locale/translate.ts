import { currentReader, type Translation } from './locale';
import { withMark } from './numbers';

/**
 * Texts for people. The English of the sources is the key of a text; what is put in is {0}, {1} … in it, so
 * that a translation may put it elsewhere. What the catalogue does not know stays English.
 */

/** The key of a text of which these are the fixed parts: `["", " reads ", ""]` is "{0} reads {1}". */
export const keyOf = (parts: readonly string[]): string =>
  parts.reduce((key, part, i) => (i === 0 ? part : `${key}{${i - 1}}${part}`), '');

const keys = new WeakMap<TemplateStringsArray, string>();
function keyOnce(parts: TemplateStringsArray): string {
  let key = keys.get(parts);
  if (key === undefined) keys.set(parts, (key = keyOf(parts)));
  return key;
}

/** Puts values where a text has {0}, {1} …; a number that it has no value for stays as it stands. */
export const fill = (text: string, values: readonly string[]): string =>
  text.replace(/\{(\d+)\}/g, (whole, i: string) => values[Number(i)] ?? whole);

/**
 * Where templates are noted while something is said that is kept: the text, its template and what was put in.
 */
let noted: Map<string, readonly string[]> | null = null;

/**
 * Does the work, which must not wait for anything, and notes what every text is made of that is made
 * meanwhile.
 */
export function noteTemplates<T>(into: Map<string, readonly string[]>, work: () => T): T {
  const before = noted;
  noted = into;
  try {
    return work();
  } finally {
    noted = before;
  }
}

/** A template in the reader's language, where there is one: "{0} reads {1}". */
export const translated = (template: string): string => currentReader().words?.[template] ?? template;

/**
 * A text for the reader, as a template: tr`${name} reads ${value}`. Numbers get the reader's decimal mark;
 * words that are put in are themselves looked up.
 */
export function tr(parts: TemplateStringsArray, ...values: readonly unknown[]): string {
  const { words } = currentReader();
  const shown = values.map((v) => (typeof v === 'number' ? withMark(String(v)) : lookUp(String(v), words)));
  const own = words?.[keyOnce(parts)];
  if (own !== undefined) return fill(own, shown);
  const said = parts.reduce((text, part, i) => text + (shown[i - 1] ?? '') + part);
  if (values.length) noted?.set(said, [keyOnce(parts), ...shown]);
  return said;
}

/**
 * A text that stands in the sources as it is, or is put together of such, in the reader's language; of
 * nothing nothing.
 */
export const word = (text: string | false | null | undefined): string =>
  text ? lookUp(text, currentReader().words) : '';

/**
 * Between these a text may be put together of several, the strongest first: sentences, items, a name and what
 * is said of it, something in brackets, a list.
 */
const JOINTS = [/((?<=[.!?…]) (?=\S))/, /(; )/, /(: )/, /( [·→–] )/, /( \(|\)(?= |$|[.,;:]))/, /(, )/];
const NUMBERED = /^(.+?)( \d[\d.,]*%?| #?\d+)$/;
const COUNTED = /^([<>]?\d[\d.,\u202f]*(?: %)? )(.+)$/;

/** A word of a language, and no name of a unit: what has none is the same for everybody. */
const SPOKEN = /\p{L}{3}/u;

/**
 * The whole text where the catalogue has it; else in another case, beside a number, or put together of texts
 * of which it has every one. Anything else stays as it is: somebody has written it.
 */
const lookUp = (text: string, words: Translation | null): string => (words && knownText(text, words)) ?? text;

function knownText(text: string, words: Translation): string | undefined {
  const whole = found(text, words) ?? inOtherCase(text, words);
  if (whole !== undefined) return whole;
  if (!SPOKEN.test(text)) return text;
  for (const joint of JOINTS) {
    const parts = text.split(joint);
    if (parts.length < 2) continue;
    const known = parts.map((p, i) => (i % 2 ? p : knownText(p, words)));
    if (!known.includes(undefined)) return known.join('');
  }
  const [, label, number] = NUMBERED.exec(text) ?? [];
  if (label !== undefined && number !== undefined) return behind(knownText(label, words), '', number);
  const [, count, counted] = COUNTED.exec(text) ?? [];
  if (count !== undefined && counted !== undefined) return behind(knownText(counted, words), count, '');
  return undefined;
}

const behind = (text: string | undefined, before: string, after: string): string | undefined =>
  text === undefined ? undefined : `${before}${text}${after}`;

/** "Plug" at the beginning of a sentence, where the catalogue has "plug"; and the other way round. */
function inOtherCase(text: string, words: Translation): string | undefined {
  const first = text.charAt(0);
  const [upper, lower] = [first.toUpperCase(), first.toLowerCase()];
  const other = found(`${first === lower ? upper : lower}${text.slice(1)}`, words);
  if (other === undefined) return undefined;
  return `${first === lower ? other.charAt(0).toLowerCase() : other.charAt(0).toUpperCase()}${other.slice(1)}`;
}

/** Own keys only: "constructor" is no text. Space around it stays where it is. */
function found(text: string, words: Translation): string | undefined {
  if (Object.hasOwn(words, text)) return words[text];
  const plain = text.trim();
  if (plain === text || !Object.hasOwn(words, plain)) return undefined;
  return text.replace(plain, () => words[plain] ?? plain);
}

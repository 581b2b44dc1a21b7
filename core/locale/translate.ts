import { currentReader, type Translation } from './locale';
import { withMark } from './numbers';

/**
 * Texts for people. The English of the sources is the key of a text; what is put in is {0}, {1} … in it, so that a
 * translation may put it elsewhere. What the catalogue does not know stays English.
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
 * A text for the reader, as a template: tr`${name} reads ${value}`. Numbers get the reader's decimal mark; words that are
 * put in are themselves looked up.
 */
export function tr(parts: TemplateStringsArray, ...values: readonly unknown[]): string {
  const { words } = currentReader();
  const shown = values.map((v) => (typeof v === 'number' ? withMark(String(v)) : lookUp(String(v), words)));
  const own = words?.[keyOnce(parts)];
  if (own !== undefined) return fill(own, shown);
  return parts.reduce((text, part, i) => text + (shown[i - 1] ?? '') + part);
}

/** A text that stands in the sources as it is, or several sentences of which each does, in the reader's language. */
export const word = (text: string): string => lookUp(text, currentReader().words);

function lookUp(text: string, words: Translation | null): string {
  if (!words || !/\p{L}/u.test(text)) return text;
  const whole = found(text, words);
  if (whole !== undefined) return whole;
  const sentences = text.split(/(?<=[.:;!?]) (?=\S)/);
  return sentences.length < 2 ? text : sentences.map((s) => found(s, words) ?? s).join(' ');
}

/** Own keys only: "constructor" is no text. Space around it stays where it is. */
function found(text: string, words: Translation): string | undefined {
  if (Object.hasOwn(words, text)) return words[text];
  const plain = text.trim();
  if (plain === text || !Object.hasOwn(words, plain)) return undefined;
  return text.replace(plain, () => words[plain] ?? plain);
}

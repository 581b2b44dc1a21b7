import type { Translation } from './locale';

/** The language of which every word is seen to come out of the catalogue: x- is BCP 47's private use. */
export const PSEUDO = 'en-x-pseudo';

const PLAIN_LETTERS = 'aceilnorsuyzACEILNORSUYZdghtDGHTbkmpvwxBKMPVWXfjqFJQ';
const MARKED_LETTERS = 'áçéíļñóŕšúýžÁÇÉÍĻÑÓŔŠÚÝŽđğħţĐĞĦŢƀķɱþṽŵẋßĶṀÞṼŴẊƒĵǫƑĴǪ';
const MARKED = new Map(Array.from(PLAIN_LETTERS, (l, i) => [l, MARKED_LETTERS.charAt(i)]));

/** The text with no plain letter left in it; what is put in keeps its place. */
export const pseudo = (text: string): string => text.replace(/\{\w+\}|./gsu, (sign) => MARKED.get(sign) ?? sign);

/** A catalogue's texts in the pseudo-language. */
export const pseudoTranslation = (texts: readonly string[]): Translation =>
  Object.fromEntries(texts.map((text) => [text, pseudo(text)]));

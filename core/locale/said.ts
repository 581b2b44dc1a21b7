import { asFor, currentLocale, localeKey, PLAIN } from './locale';
import { entryShown, grouped } from './numbers';
import { fill, noteTemplates, translated, word } from './translate';

/**
 * Sentences that are kept, with what they were made of: by sentence its template and what was put in. What
 * cannot be made anew for another reader, since what it was concluded from is too long to keep, is said again
 * with this.
 */
export type Said = Readonly<Record<string, readonly string[]>>;

/** A number, perhaps with what it is compared by before it and a unit behind it; a moment of a recording. */
const AMOUNT = /^[<>≤≥~≈±+−-]?(?:\d+:)*\d[\d.]*(?:[ \u202f]?[^\s\d]{1,8})?$/u;
const GROUPED = /^\d{1,3}(?:,\d{3})+$/;

/** What was put in, where it is no sentence: a number gets the reader's marks, a text is looked up. */
function shownValue(text: string): string {
  if (GROUPED.test(text)) return grouped(Number(text.replaceAll(',', '')));
  return AMOUNT.test(text) ? entryShown(text) : word(text);
}

/**
 * Does the work, which must not wait for anything, in plain words, and notes every sentence that is made
 * meanwhile. `texts` of the result are those that are kept: of the others nothing is noted.
 */
export function sayingOf<T>(work: () => T, texts: (result: T) => readonly string[]): { result: T; said: Said } {
  const all = new Map<string, readonly string[]>();
  const result = asFor({ locale: PLAIN, words: null }, () => noteTemplates(all, work));
  const said: Record<string, readonly string[]> = {};
  const find = sentencesIn([...all.keys()]);
  const keep = (text: string): void => {
    for (const { sentence } of find(text)) {
      if (sentence === null || said[sentence]) continue;
      const made = all.get(sentence) ?? [];
      said[sentence] = made;
      for (const value of made.slice(1)) keep(value);
    }
  };
  for (const text of texts(result)) keep(text);
  return { result, said };
}

/**
 * Characters that are said again, and sentences that are tried, of one thing that is kept: what somebody made
 * up ends there.
 */
const MOST_SAID = 5_000_000;
const MOST_TRIED = 2_000_000;

/** Kept sentences for whoever reads. What was not noted is looked up as it stands. */
export function sayerOf(said: Said): (text: string) => string {
  if (localeKey(currentLocale()) === localeKey(PLAIN)) return (text) => text;
  const find = sentencesIn(Object.keys(said), MOST_TRIED);
  const known = new Map<string, string>();
  let left = MOST_SAID;
  const again = ({ sentence, between }: Part): string => {
    if (sentence === null) return word(between);
    const [template = '', ...values] = said[sentence] ?? [];
    const put = values.map(say);
    // Each place takes at least three characters of the template.
    const longest = template.length + (template.length / 3) * Math.max(0, ...put.map((v) => v.length));
    const text = longest > left ? sentence : fill(translated(template), put);
    left -= text.length;
    return text;
  };
  const say = (text: string): string => {
    const before = known.get(text);
    if (before !== undefined) return before;
    // A sentence that is made of itself is as it was kept.
    known.set(text, text);
    const parts = find(text);
    const now = parts.some((p) => p.sentence !== null) ? parts.map(again).join('') : shownValue(text);
    known.set(text, now);
    return now;
  };
  return say;
}

interface Part {
  /** One that was noted; else `null`, and what stands between those that were. */
  readonly sentence: string | null;
  readonly between: string;
}

/**
 * Takes a text apart into the sentences of a list, the longest first, and what stands between them; `tries`
 * at most.
 */
function sentencesIn(sentences: readonly string[], tries = Infinity): (text: string) => Part[] {
  const byStart = new Map<string, string[]>();
  for (const s of sentences) {
    const start = s.slice(0, 4);
    byStart.set(start, [...(byStart.get(start) ?? []), s]);
  }
  for (const own of byStart.values()) own.sort((a, b) => b.length - a.length);
  const whole = new Set(sentences);
  let left = tries;
  const beginningAt = (text: string, at: number): string | undefined => {
    if (left <= 0 || !isStart(text, at)) return undefined;
    const candidates = byStart.get(text.slice(at, at + 4)) ?? [];
    left -= candidates.length;
    return candidates.find((s) => isSentenceAt(text, s, at));
  };
  return (text) => {
    if (whole.has(text)) return [{ sentence: text, between: '' }];
    const parts: Part[] = [];
    let from = 0;
    let at = 0;
    const flush = (): void => {
      if (at > from) parts.push({ sentence: null, between: text.slice(from, at) });
    };
    while (at < text.length) {
      const found = beginningAt(text, at);
      if (found === undefined) {
        at += 1;
        continue;
      }
      flush();
      parts.push({ sentence: found, between: '' });
      at += found.length;
      from = at;
    }
    flush();
    return parts;
  };
}

/** Sentences begin where a text does, or after the space behind another. */
const isStart = (text: string, at: number): boolean => at === 0 || /\s/.test(text.charAt(at - 1));
/** And end where it does, or before a space or a mark. */
const isSentenceAt = (text: string, sentence: string, at: number): boolean =>
  text.startsWith(sentence, at) && /^$|^[\s.,;:)]/.test(text.slice(at + sentence.length, at + sentence.length + 1));

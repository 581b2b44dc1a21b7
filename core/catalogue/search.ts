import type { TestDefinition } from './types';

/** Something that is found by its name, or by any of its words. `words` is made by `searchWords`. */
export interface Findable {
  readonly name: string;
  readonly words: string;
}

const plain = (text: string): string =>
  ` ${text
    .toLowerCase()
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[^\p{L}\p{N}%]+/gu, ' ')
    .trim()}`;

/** Of each definition once: pages list all tests, and what ships stays as it is. */
const known = new WeakMap<TestDefinition, string>();

/** All that a test is found by, in plain lower case, each word with a space before it. */
export function searchWords(t: TestDefinition): string {
  let words = known.get(t);
  if (words === undefined) known.set(t, (words = wordsOf(t)));
  return words;
}

const wordsOf = (t: TestDefinition): string =>
  plain(
    [
      t.name,
      t.purpose,
      t.area,
      t.part,
      t.tool.kind,
      t.tool.mode,
      t.quantity,
      t.id,
      t.proves,
      ...(t.positions === 'cylinders' ? [] : t.positions),
    ].join(' '),
  );

/**
 * Prepares for searching while typing: every word of the query begins some word; those with it in the name
 * come first.
 */
export function indexFindable<T extends Findable>(items: readonly T[]): (query: string) => readonly T[] {
  const names = items.map((i) => plain(i.name));
  return (query) => {
    const words = plain(query)
      .split(' ')
      .filter(Boolean)
      .map((w) => ` ${w}`);
    if (words.length === 0) return items;
    const [named, others]: [T[], T[]] = [[], []];
    for (const [i, item] of items.entries()) {
      if (!words.every((w) => item.words.includes(w))) continue;
      (words.every((w) => names[i]?.includes(w)) ? named : others).push(item);
    }
    return [...named, ...others];
  };
}

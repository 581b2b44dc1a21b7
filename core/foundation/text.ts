/** With a capital first letter, as at the beginning of a sentence; the rest stays. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** With a small first letter, as within a sentence. */
export const uncapital = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

/** Steps from one word to another: a letter put in, left out or changed (Levenshtein). */
function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (const [i, letter] of Array.from(a).entries()) {
    const next = [i + 1];
    for (const [j, other] of Array.from(b).entries())
      next.push(Math.min((row[j] ?? 0) + (letter === other ? 0 : 1), (row[j + 1] ?? 0) + 1, (next[j] ?? 0) + 1));
    row = next;
  }
  return row.at(-1) ?? 0;
}

/** What was probably meant, of what can be; `null` where nothing is near. Case makes no difference. */
export function nearest(word: string, known: readonly string[]): string | null {
  const plain = word.toLowerCase();
  const ranked = known.map((k) => [distance(plain, k.toLowerCase()), k] as const).toSorted(([a], [b]) => a - b);
  const [best] = ranked;
  return best && best[0] <= Math.max(1, Math.floor(plain.length / 3)) ? best[1] : null;
}

/**
 * Do two values of plain data (what JSON can hold) say the same? The order of keys makes no difference, nor
 * does a key whose value is `undefined`.
 */
export function sameContent(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (Array.isArray(a) || Array.isArray(b))
    return Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((x, i) => sameContent(x, b[i]));
  if (a === null || b === null || typeof a !== 'object' || typeof b !== 'object') return false;
  const [left, right]: Record<string, unknown>[] = [{ ...a }, { ...b }];
  const keys = new Set([...Object.keys(left ?? {}), ...Object.keys(right ?? {})]);
  return [...keys].every((k) => sameContent(left?.[k], right?.[k]));
}

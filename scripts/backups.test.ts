import fc from 'fast-check';
import { superfluous } from './backups';

const DAY_ms = 24 * 3600 * 1000;
const TODAY = '2026-11-29';
const back = (n: number): string =>
  `mudflat-${new Date(Date.parse(TODAY) - n * DAY_ms).toISOString().slice(0, 10)}.dump`;
const nights = (n: number): string[] => Array.from({ length: n }, (_, i) => back(i));

test('of two years of nights a week, four Sundays and twelve months are left', () => {
  const all = nights(730);
  const gone = new Set(superfluous(all, TODAY));
  const left = all.filter((n) => !gone.has(n));
  expect(left.slice(0, 7)).toEqual(nights(7));
  expect(left.length).toBeLessThanOrEqual(7 + 4 + 12);
  expect(left.length).toBeGreaterThanOrEqual(7 + 3 + 11);
  expect(left.at(-1)).toBe('mudflat-2025-12-07.dump');
});
test('the newest stays however old it is, and what is no backup is left alone', () => {
  expect(superfluous(['mudflat-2019-02-01.dump', 'notes.txt', 'mudflat-2019-02-01.dump.part'], TODAY)).toEqual([]);
  expect(superfluous(['mudflat-2019-02-01.dump', 'mudflat-2019-02-05.dump'], TODAY)).toEqual([
    'mudflat-2019-02-01.dump',
  ]);
  expect(superfluous(nights(30), 'no day')).toEqual([]);
});
test('thinned night after night, nothing of the last week is ever lost', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 120 }), (length) => {
      let kept: string[] = [];
      for (let n = length; n >= 0; n--) {
        const today = new Date(Date.parse(TODAY) - n * DAY_ms).toISOString().slice(0, 10);
        kept = [...kept, back(n)];
        const gone = new Set(superfluous(kept, today));
        kept = kept.filter((k) => !gone.has(k));
      }
      for (let i = 0; i < Math.min(7, length); i++) expect(kept).toContain(back(i));
    }),
  );
});

import fc from 'fast-check';
import { findTest } from '../catalogue/catalogue';
import type { TestDefinition } from '../catalogue/types';
import { Ahead } from './lookahead';
import { after, costOf, lostBy, type Setting, settingAfter } from './cost';
import type { Predictions } from './predictions';
import type { Hypothesis } from './types';

const COLD = settingAfter([], false);
const WARM = settingAfter([], true);
const glow = findTest('glow-plug-resistance')!;
const cranking = findTest('battery-cranking')!;
const input = findTest('module-input')!;

const suspect = (name: string): Hypothesis => ({
  key: name,
  weight: 1,
  members: [
    {
      key: name,
      element: name,
      position: null,
      fault: 'open',
      is: 'part',
      name,
      words: 'is open',
      intermittent: false,
      when: [],
      ohms: 0,
    } as unknown as Hypothesis['members'][number],
  ],
});

/** Predictions by hand: of each point its test, how it is read, and what each hypothesis shows there. */
function byHand(
  names: readonly string[],
  points: readonly { test: string; mode: 'voltage' | 'resistance'; shows: readonly number[] }[],
): Predictions {
  const n = points.length;
  const fill = (of: (h: number, i: number) => number): Float64Array =>
    Float64Array.from({ length: names.length * n }, (_, k) => of(Math.floor(k / n), k % n));
  return {
    instances: points.map((p, i) => ({ test: p.test, position: `p${i}`, mode: p.mode })),
    hypotheses: names.map((name) => (name === 'outside' ? { key: name, weight: 0, members: [] } : suspect(name))),
    mean: fill((h, i) => {
      const shown = points[i]?.shows[h] as number;
      return points[i]?.mode === 'resistance' ? Math.log(shown) : shown;
    }),
    sd: fill(() => 0.01),
    below: fill(() => 0),
    above: fill(() => 0),
    loose: fill(() => 0),
    volts: 12,
    sourceSpread: 0.01,
    batch: new Float64Array(9),
  };
}

describe('what a test costs', () => {
  test('less once it is set up or its cover is off, more with a second person, in danger, and with what it uses up', () => {
    const plain = costOf(glow, 8, COLD);
    const begun = costOf(glow, 8, after(COLD, glow));
    expect(plain.minutes).toBeCloseTo(0.6 * glow.minutes + (0.4 * glow.minutes) / 8, 9);
    expect(begun.minutes).toBeCloseTo((0.4 * glow.minutes) / 8, 9);
    expect(begun.said).toContain('set up already');
    const heavier: TestDefinition = { ...glow, id: 'other', uses: [{ what: 'a sealing washer', worth_min: 7 }] };
    expect(costOf(heavier, 8, COLD).cost - plain.cost).toBeCloseTo(7, 9);
    expect(costOf(heavier, 8, COLD).said).toContain('uses a sealing washer');
    expect(costOf(heavier, 8, after(COLD, heavier)).said).not.toContain('uses a sealing washer');
    expect(costOf({ ...heavier, uses: [] }, 8, after(COLD, glow)).said).toContain('cover already off');
    const harmless = { ...input, id: 'x', cautions: [] };
    expect(costOf({ ...harmless, people: 2 }, 2, COLD).cost).toBeGreaterThan(1.5 * costOf(harmless, 2, COLD).cost);
    expect(costOf(input, 2, COLD).cost).toBeGreaterThan(costOf(harmless, 2, COLD).cost);
  });
  test('a cold test waits on a warm engine; what warms it takes the cold ones away', () => {
    expect(costOf(glow, 8, WARM).minutes - costOf(glow, 8, COLD).minutes).toBe(90);
    expect([lostBy(cranking, COLD), lostBy(cranking, WARM), lostBy(glow, COLD)]).toEqual([90, 0, 0]);
    expect(after(COLD, cranking).warm).toBe(true);
    expect(after(WARM, glow).warm).toBe(false);
    expect(after(WARM, input).warm).toBe(true);
    expect(settingAfter([cranking], false).warm).toBe(false);
    const supply = findTest('injector-module-supply')!;
    expect(costOf(supply, 5, after(COLD, supply)).minutes).toBeCloseTo((0.4 * supply.minutes) / 5, 9);
    expect(costOf(supply, 5, WARM).said).toContain('once the engine is cold again');
  });
});

describe('the whole course', () => {
  // The plug reads high, or the battery is weak, or neither: the plug shows in ohms only, the battery only
  // while cranking.
  const p = byHand(
    ['plug', 'battery', 'outside'],
    [
      { test: 'glow-plug-resistance', mode: 'resistance', shows: [500, 0.6, 0.6] },
      { test: 'battery-cranking', mode: 'voltage', shows: [11, 6, 11] },
    ],
  );
  const course = (posterior: number[], first: number, s: Setting): number =>
    new Ahead(p, Float64Array.from(posterior), [glow, cranking]).costFrom(first, new Set(), s);
  const [plug, crank] = [costOf(glow, 1, COLD).cost, costOf(cranking, 1, COLD).cost];

  test('is what it is by hand: cold first, then cranking if that did not tell', () => {
    expect(course([0.2, 0.7, 0.1], 0, COLD)).toBeCloseTo(plug + 0.8 * crank, 9);
  });
  test('and cranking first: the cold test then waits for a cold engine', () => {
    expect(course([0.2, 0.7, 0.1], 1, COLD)).toBeCloseTo(crank + 0.3 * costOf(glow, 1, WARM).cost, 9);
    expect(course([0.2, 0.7, 0.1], 0, COLD)).toBeLessThan(course([0.2, 0.7, 0.1], 1, COLD));
  });
  test('where the cold test would hardly be needed, cranking may go first', () => {
    expect(course([0.004, 0.976, 0.02], 1, COLD)).toBeLessThan(course([0.004, 0.896, 0.1], 0, COLD));
    expect(course([0.004, 0.976, 0.02], 1, COLD)).toBeLessThan(1.5 * crank + 0.03 * 120);
  });

  test('is never cheaper than the best that any order could do, and leaves nothing untold that a reading could tell', () => {
    const level = fc.constantFrom(0, 6, 12);
    fc.assert(
      fc.property(
        fc
          .integer({ min: 2, max: 5 })
          .chain((h) =>
            fc.tuple(
              fc.array(fc.integer({ min: 5, max: 60 }), { minLength: h, maxLength: h }),
              fc.array(fc.array(level, { minLength: h, maxLength: h }), { minLength: 1, maxLength: 4 }),
            ),
          ),
        ([weights, shows]) => {
          const total = weights.reduce((a, b) => a + b, 0);
          const shares = weights.map((w) => w / total);
          const predictions = byHand(
            weights.map((_, i) => `part ${i}`),
            shows.map((s, i) => ({ test: `unknown-${i}`, mode: 'voltage' as const, shows: s })),
          );
          const ahead = new Ahead(
            predictions,
            Float64Array.from(shares),
            shows.map(() => undefined),
          );
          const each = costOf(undefined, 1, COLD).cost;
          const split = (set: number[], i: number): number[][] => [
            ...new Map(set.map((h) => [shows[i]?.[h], set.filter((o) => shows[i]?.[o] === shows[i]?.[h])])).values(),
          ];
          const share = (set: number[]): number => set.reduce((s, h) => s + (shares[h] as number), 0);
          const isDecided = (set: number[]): boolean =>
            Math.max(...set.map((h) => shares[h] as number)) >= 0.97 * share(set);
          const best = (set: number[], read: number[]): number => {
            if (isDecided(set)) return 0;
            const options = shows.flatMap((_, i) => {
              const parts = split(set, i);
              return read.includes(i) || parts.length < 2
                ? []
                : [each + parts.reduce((s, part) => s + (share(part) / share(set)) * best(part, [...read, i]), 0)];
            });
            return options.length ? Math.min(...options) : 0;
          };
          const all = shares.map((_, h) => h);
          const firsts = shows.flatMap((_, i) =>
            split(all, i).length > 1 ? [ahead.costFrom(i, new Set(), COLD)] : [],
          );
          if (firsts.length === 0 || isDecided(all)) return;
          expect(Math.min(...firsts)).toBeGreaterThanOrEqual(best(all, []) - 1e-9);
          expect(Math.max(...firsts)).toBeLessThanOrEqual(each * shows.length + 1e-9);
        },
      ),
    );
  });
});

import fc from 'fast-check';
import { judgeShipped } from '../../core/judge/shipped';
import type { JudgedReading, Limits } from '../../core/judge/types';
import { VERDICTS } from '../../core/foundation/vocabulary';
import { outcome } from './judgement-word';
import { placeMark } from '../../application/posts/place';
import { noteOf, rowsOf } from '../../application/posts/rows';
import { scaleFor } from '../../application/posts/scale';
import { MARKS } from '../../application/posts/shapes';

const OHM: Limits = { quantity: 'resistance', unit: 'ohm', lower: 0.3, upper: 1, openAbove: 1e4, shortBelow: 0.05 };
const METER = { kind: 'm', leadZero_ohm: 0.2, leadZeroResolution_ohm: 0.1, accuracy: [] };

function judgement(entries: string[], limits = OHM, cylinders = entries.length) {
  const judged = judgeShipped({
    test: 'x',
    engine: { layout: 'inline', cylinders },
    condition: {},
    instrument: METER,
    limits,
    readings: entries.map((entry, i) => ({ position: i + 1, entry })),
  });
  if (!judged.ok) throw new Error('not judged');
  return judged.value;
}
const reading = (entry: string): JudgedReading => judgement([entry]).readings[0]!;

describe('scale', () => {
  test('a decade is a seventh of an ohm post, whatever the unit of the limits', () => {
    expect(scaleFor(OHM).height(1)).toBeCloseTo(1 / 7, 12);
    expect(scaleFor({ ...OHM, unit: 'kohm' }).height(1)).toBeCloseTo(4 / 7, 12);
    expect(scaleFor(OHM).ticks.map((t) => t.label)).toEqual(['0.1', '1', '10', '100', '1k', '10k', '100k', '1M']);
  });
  test('0.6, 201 and 4.5 k are told apart at a glance', () => {
    const [a, b, c] = [0.6, 201, 4500].map(scaleFor(OHM).height);
    expect(b! - a!).toBeGreaterThan(0.15);
    expect(c! - b!).toBeGreaterThan(0.15);
  });
  test('volts stand on a linear post with room above and below the channel', () => {
    const scale = scaleFor({ quantity: 'voltage', unit: 'V', lower: 4.75, upper: 5.25 });
    expect(scale.height(5)).toBeCloseTo(0.5, 6);
    expect(scale.height(4.75)).toBeGreaterThan(0.2);
    expect(scale.ticks.length).toBeGreaterThan(3);
    expect(scale.ticks.every((t) => t.height >= 0 && t.height <= 1)).toBe(true);
  });
  test('never leaves the post, and higher is never lower', () => {
    const limits = fc.constantFrom(
      OHM,
      { quantity: 'voltage', unit: 'V', lower: 45 } as Limits,
      { quantity: 'current', unit: 'A' } as Limits,
    );
    fc.assert(
      fc.property(
        limits,
        fc.double({ min: -1e9, max: 1e9, noNaN: true }),
        fc.double({ min: 0, max: 1e9, noNaN: true }),
        (l, x, more) => {
          const { height } = scaleFor(l);
          expect(height(x)).toBeGreaterThanOrEqual(0);
          expect(height(x + more)).toBeLessThanOrEqual(1);
          expect(height(x + more)).toBeGreaterThanOrEqual(height(x));
        },
      ),
    );
  });
});

describe('marks', () => {
  test('every verdict has a shape of its own', () => {
    const shapes = VERDICTS.map((v) => JSON.stringify(MARKS[v]));
    expect(new Set(shapes).size).toBe(VERDICTS.length);
  });
  test('stand where the reading is, with a band for what is not known', () => {
    const scale = scaleFor(OHM);
    const placed = placeMark(reading('0.8'), scale);
    expect(placed.height).toBeCloseTo(scale.height(0.6), 12);
    expect(placed.band!.from).toBeLessThan(placed.height);
    expect(placed.band!.to).toBeGreaterThan(placed.height);
    expect(placeMark(reading('OL'), scale).height).toBeGreaterThan(0.9);
    expect(placeMark(reading('0.2'), scale).height).toBeLessThan(0.1);
    expect(placeMark(reading('0.6~OL'), scale).band!.from).toBeCloseTo(scale.height(0.4), 12);
    expect(placeMark(reading('0.6~OL'), scale).band!.to).toBe(1);
  });
});

describe('rows', () => {
  test('an engine of up to eight is one row, a longer one two', () => {
    expect(rowsOf({ layout: 'inline', cylinders: 8 })).toHaveLength(1);
    expect(rowsOf({ layout: 'inline', cylinders: 12 }).map((r) => r.positions)).toEqual([
      [1, 2, 3, 4, 5, 6],
      [7, 8, 9, 10, 11, 12],
    ]);
    expect(rowsOf({ layout: 'vee', cylinders: 16 }).map((r) => r.title)).toEqual(['Left bank', 'Right bank']);
  });
  test('numbering over the first, firing order over the last', () => {
    const engine = { layout: 'inline' as const, cylinders: 4, firingOrder: [1, 3, 4, 2] };
    expect(noteOf(engine, 0, 1)).toBe('front to the left; numbered from the front, fires 1-3-4-2');
    expect(noteOf(engine, 1, 2)).toBe('fires 1-3-4-2');
  });
});

test.each<[string[], number, string, string]>([
  [[], 2, 'not-measured', 'not begun'],
  [['0.8'], 2, 'within', '1 of 2, in so far'],
  [['0.8', '0.8'], 2, 'within', 'all in'],
  [['0.8', 'OL'], 2, 'open', '1 suspect'],
  [['201'], 3, 'high', '1 of 3, 1 suspect'],
])('the outcome of %j of %i', (entries, cylinders, verdict, words) => {
  expect(outcome(judgement(entries, OHM, cylinders))).toMatchObject({ verdict, words });
});
test('no judgement is not begun', () => expect(outcome(null).words).toBe('not begun'));

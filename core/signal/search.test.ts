import fc from 'fast-check';
import { normalFrom, seededRandom } from '../numerics/random';
import { rateClock, listedClock } from './clock';
import { searchRecording } from './recording';
import { channel, drive } from './testing';
import type { Finding, Pulse } from './types';

const kinds = (findings: readonly Finding[]): string[] => findings.map((f) => f.kind);
const pulses = (findings: readonly Finding[]): Pulse[] =>
  findings.filter((f): f is Pulse => f.kind === 'dropout' || f.kind === 'spike');

it.each([1, 2, 7, 8, 20, 100, 300])('finds a dropout of %i samples to nothing, with its time and size', (samples) => {
  const values = drive(30_000, 3);
  for (let i = 12_000; i < 12_000 + samples; i++) values[i] = 0.02;
  const { findings } = searchRecording([channel(values)]);
  expect(kinds(findings)).toEqual(['dropout']);
  const [found] = pulses(findings);
  expect(found).toMatchObject({ samples, severity: 'fail' });
  expect(found!.from_s).toBeCloseTo(120, 6);
  expect(found!.to_s).toBeCloseTo(120 + samples / 100, 6);
});

it('calls a pulse upwards a spike', () => {
  const values = drive(20_000, 4);
  values[9000] = 5;
  expect(kinds(searchRecording([channel(values)]).findings)).toEqual(['spike']);
});

it('finds nothing in half an hour of a healthy drive, snaps of the throttle included', () => {
  for (let seed = 10; seed < 16; seed++) expect(searchRecording([channel(drive(60_000, seed))]).findings).toEqual([]);
});

it('finds nothing in noise with heavy tails, and says that it would find less', () => {
  const random = seededRandom(8);
  const t5 = (): number => {
    const squares = Array.from({ length: 5 }, () => normalFrom(random) ** 2).reduce((a, b) => a + b);
    return normalFrom(random) / Math.sqrt(squares / 5);
  };
  const calm = searchRecording([channel(Float64Array.from({ length: 60_000 }, () => 2 + 0.01 * normalFrom(random)))]);
  const heavy = searchRecording([channel(Float64Array.from({ length: 60_000 }, () => 2 + 0.01 * t5()))]);
  expect(calm.findings).toEqual([]);
  expect(heavy.findings).toEqual([]);
  expect(heavy.searched[0]!.wouldFind!.depth).toBeGreaterThan(2 * calm.searched[0]!.wouldFind!.depth);
});

it('finds a loose contact that breaks a hundred times', () => {
  const values = drive(60_000, 5);
  for (let k = 0; k < 100; k++) for (let i = 0; i < 3; i++) values[5000 + 400 * k + i] = 0.03;
  const found = pulses(searchRecording([channel(values)]).findings);
  expect(found.length).toBeGreaterThanOrEqual(99);
});

it('keeps the promise of its power statement on dropouts that it has not planted itself', () => {
  const random = seededRandom(77);
  let [planted, found] = [0, 0];
  for (let seed = 20; seed < 26; seed++) {
    const clean = drive(40_000, seed);
    const [searched] = searchRecording([channel(clean)]).searched;
    const { depth, probability } = searched!.wouldFind!;
    expect(probability).toBe(0.99);
    const values = clean.slice();
    const places = Array.from({ length: 25 }, (_, k) => 200 + 1580 * k + Math.floor(1000 * random()));
    for (const at of places) values[at] = clean[at]! - depth;
    const all = pulses(searchRecording([channel(values)]).findings);
    planted += places.length;
    found += places.filter((at) => all.some((p) => Math.abs(p.from_s - at / 100) < 0.02)).length;
  }
  expect(found / planted).toBeGreaterThanOrEqual(0.97);
});

it('says what the channels share when they leave their course together', () => {
  const [a, b, c] = [drive(20_000, 31), drive(20_000, 32), drive(20_000, 33)];
  for (const v of [a, b, c]) for (let i = 0; i < 4; i++) v[7000 + i] = 0.01;
  a[12_000] = 0.01;
  const found = pulses(
    searchRecording([channel(a), channel(b, { id: 'b', name: 'b' }), channel(c, { id: 'c', name: 'c' })]).findings,
  );
  expect(found.filter((p) => p.from_s < 100).map((p) => [...p.together].sort())).toEqual([
    ['b', 'c'],
    ['a', 'c'],
    ['a', 'b'],
  ]);
  expect(found.find((p) => p.from_s > 100)).toMatchObject({ channel: 'a', together: [] });
});

it('takes what all channels lose for long as the key, not as a dropout', () => {
  const [a, b] = [drive(30_000, 41), drive(30_000, 42)];
  for (const v of [a, b]) for (let i = 10_000; i < 10_500; i++) v[i] = 0.004;
  expect(pulses(searchRecording([channel(a), channel(b, { id: 'b' })]).findings)).toEqual([]);
});

it('takes a starter for no dropout of the battery', () => {
  const random = seededRandom(1);
  const values = Float64Array.from({ length: 20_000 }, (_, i) => {
    const level = i > 5000 && i < 5150 ? 9.6 + 0.4 * Math.sin(i / 3) : i >= 5150 ? 14.1 : 12.5;
    return level + 0.01 * normalFrom(random);
  });
  values[12_000] = 11;
  const { findings } = searchRecording([channel(values, { role: 'battery' })]);
  expect(pulses(findings).map((p) => p.from_s)).toEqual([120]);
});

it('finds a value that stands still, unless everything rests', () => {
  const values = drive(30_000, 51);
  values.fill(values[9000]!, 9000, 9800);
  expect(searchRecording([channel(values)]).findings).toMatchObject([{ kind: 'stuck', level: values[9000] }]);
  const other = drive(30_000, 52);
  other.fill(other[8900]!, 8900, 9900);
  expect(kinds(searchRecording([channel(values), channel(other, { id: 'b' })]).findings)).toEqual([]);
});

it('finds a burst of noise as one thing', () => {
  const values = drive(30_000, 61);
  const random = seededRandom(6);
  for (let i = 15_000; i < 15_300; i++) values[i] = values[i]! + 0.15 * normalFrom(random);
  const { findings } = searchRecording([channel(values)]);
  expect(new Set(kinds(findings))).toEqual(new Set(['noise']));
  expect(findings[0]!.from_s).toBeGreaterThan(149);
  expect(findings[0]!.to_s).toBeLessThan(154);
});

it('says where the range ended', () => {
  const values = drive(30_000, 71, { noise: 0.01 }).map((v) => Math.min(v, 3.2));
  expect(kinds(searchRecording([channel(values)]).findings)).toContain('clipped');
});

it('finds samples that are missing, blanks, and a clock that steps back', () => {
  const values = drive(3000, 81);
  values.fill(NaN, 700, 710);
  const times = Float64Array.from({ length: 3000 }, (_, i) => i / 100 + (i >= 1000 ? 5 : 0) - (i >= 2000 ? 2 : 0));
  const { findings } = searchRecording([channel(values, { clock: listedClock(times) })]);
  expect(findings.map((f) => [f.kind, 'missing' in f ? f.missing : null])).toEqual([
    ['gap', 10],
    ['gap', 500],
    ['gap', 0],
  ]);
});

it('finds what leaves its limits', () => {
  const values = drive(5000, 91).map((v, i) => (i > 2000 && i < 2100 ? 4.9 : v));
  const found = searchRecording([channel(values, { limits: { lower: 0.5, upper: 4.8 } })]).findings;
  expect(found.filter((f) => f.kind === 'out-of-limits')).toMatchObject([{ level: 4.9, from_s: 20.01 }]);
});

it('says that a switching signal cannot be searched', () => {
  const values = Float64Array.from({ length: 5000 }, (_, i) => (Math.floor(i / 7) % 2 ? 4.9 : 0.1));
  const { findings, searched } = searchRecording([channel(values)]);
  expect(findings).toEqual([]);
  expect(searched[0]).toMatchObject({ wouldFind: null });
});

it('answers anything with a result', () => {
  fc.assert(
    fc.property(
      fc.array(fc.oneof(fc.double({ min: -10, max: 10, noNaN: true }), fc.constant(NaN), fc.constant(0)), {
        minLength: 1,
        maxLength: 400,
      }),
      fc.constantFrom(0.5, 10, 100, 5000),
      (list, rate) => {
        const values = Float64Array.from(list);
        const { searched, summary } = searchRecording([channel(values, { clock: rateClock(rate, values.length) })]);
        expect(searched).toHaveLength(1);
        expect(summary.length).toBeGreaterThan(10);
      },
    ),
    { numRuns: 150 },
  );
});

import type { Finding } from '../types';
import { compareCaptures } from './compare';
import type { Contribution, Cranking, Knock } from './types';

const base = { channel: 'k', from_s: 0, to_s: 10, severity: 'pass', confidence: 0.9, reasons: [] } as const;
const gives = (cylinder: number | null, relative: number, misfires = 0, uncertainty = 0.01): Contribution => ({
  ...base,
  kind: 'contribution',
  cylinder,
  position: 1,
  relative,
  uncertainty,
  misfires,
});
const knocks = (cylinder: number, ratio: number): Knock => ({ ...base, kind: 'knock', cylinder, position: 1, ratio });
const cranked = (speed_rpm: number, meanCurrent: number | null): Cranking => ({
  ...base,
  kind: 'cranking',
  speed_rpm,
  meanCurrent,
  peakCurrent: meanCurrent,
  even: true,
});
const alike = { name: 'before', isAlike: true };
const told = (own: readonly Finding[], other: readonly Finding[], against = alike) =>
  compareCaptures(own, other, against).map((c) => [c.quantity, c.severity, c.reasons[0]] as const);

describe('two captures beside each other', () => {
  test('what a cylinder gives less than before is worse, beyond what is uncertain', () => {
    expect(told([gives(3, 0.62)], [gives(3, 0.98)])[0]).toEqual([
      'relative',
      'attention',
      'Cylinder 3, contribution: 62 %, before 98 %: worse.',
    ]);
    // The same difference in a noisy capture says nothing.
    expect(told([gives(3, 0.62, 0, 0.2)], [gives(3, 0.98, 0, 0.1)])[0]?.[1]).toBe('pass');
    expect(told([gives(3, 0.98)], [gives(3, 0.62)])[0]).toEqual([
      'relative',
      'none',
      'Cylinder 3, contribution: 98 %, before 62 %: more, beside the others.',
    ]);
  });
  test('two misfires of thirteen cycles are no change, of two hundred they are', () => {
    const share = (cycles: number) =>
      told([{ ...gives(3, 1, 0.15), cycles }], [{ ...gives(3, 1, 0), cycles }]).find(([q]) => q === 'misfires')?.[1];
    expect([share(13), share(200)]).toEqual(['pass', 'attention']);
  });
  test('idle beside load is no worse and no better', () => {
    const found = told([gives(2, 0.5, 0.6)], [gives(2, 1)], { name: 'under load', isAlike: false });
    expect(found.map(([, severity]) => severity)).toEqual(['none', 'none']);
    expect(found[0]?.[2]).toBe('Cylinder 2, contribution: 50 %, under load 100 %: they differ.');
  });
  test('a cylinder is compared with itself only: none without a number', () => {
    expect(told([gives(3, 0.5)], [gives(4, 1)])).toEqual([]);
    expect(told([gives(null, 0.5)], [gives(null, 1)])).toEqual([]);
  });
  test('knock and the starter against their own earlier values', () => {
    expect(told([knocks(1, 4)], [knocks(1, 1.1)])[0]?.[1]).toBe('attention');
    expect(told([knocks(1, 1.3)], [knocks(1, 1.1)])[0]?.[1]).toBe('pass');
    expect(told([cranked(120, 420)], [cranked(210, 190)]).map(([, s, words]) => [s, words])).toEqual([
      ['attention', 'The engine while it is cranked, speed: 120 rpm, before 210 rpm: worse.'],
      ['attention', 'The engine while it is cranked, mean current: 420 A, before 190 A: worse.'],
      ['attention', 'The engine while it is cranked, current at the peaks: 420 A, before 190 A: worse.'],
    ]);
    // Of a battery's dips no current is known.
    expect(told([cranked(120, null)], [cranked(210, 190)])).toHaveLength(1);
  });
});

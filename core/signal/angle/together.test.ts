import type { Finding } from '../types';
import { conclusionWords, together } from './together';

const BASE = { channel: 'x', from_s: 0, to_s: 1, confidence: 0.9, reasons: ['r'], position: 1 };
const knock = (cylinder: number): Finding => ({ ...BASE, kind: 'knock', cylinder, ratio: 4, severity: 'fail' });
const gives = (cylinder: number, misfires: number, relative = 1): Finding => ({
  ...BASE,
  kind: 'contribution',
  cylinder,
  relative,
  uncertainty: 0.02,
  misfires,
  severity: misfires > 0.2 || relative < 0.75 ? 'fail' : 'pass',
});
const compresses = (cylinder: number, relative: number): Finding => ({
  ...BASE,
  kind: 'compression',
  cylinder,
  relative,
  uncertainty: 0.02,
  peak: 300,
  severity: relative < 0.8 ? 'fail' : 'pass',
});
const pulse = (cylinder: number, missing: boolean, offset_deg = 0): Finding => ({
  ...BASE,
  kind: 'pulse',
  cylinder,
  missing,
  offset_deg: missing ? null : offset_deg,
  angle_deg: null,
  uncertainty_deg: 0.5,
  peak: 10,
  charge: 1,
  share: missing ? 1 : 0,
  severity: missing || Math.abs(offset_deg) > 4 ? 'fail' : 'pass',
});
const noise: Finding = { ...BASE, kind: 'noise', rms: 1, peak: 1.4, severity: 'fail' };
const causes = (findings: readonly Finding[], banks: readonly (readonly number[])[] = []): string[] =>
  together(findings, banks).map((c) => c.cause);

const BANKS = [
  [1, 2, 3, 4],
  [5, 6, 7, 8],
];

it('names the knocking one of a bank as the cause and its neighbours as victims, those of the other bank not', () => {
  const found = together([knock(2), gives(1, 0.6), gives(3, 0.5), gives(6, 0.4), gives(2, 0)], BANKS);
  expect(found[0]?.cause).toBe('The injector of cylinder 2 leaks; cylinders 1 and 3 are victims.');
  expect(found.slice(1).map((c) => c.cause)).toEqual(['Cylinder 6 gives little: fuel, pulse or compression.']);
  expect(conclusionWords(found[0]!)).toContain('Next: Cut cylinder 2 out');
  // A knock by itself convicts nobody.
  expect(causes([knock(2), gives(1, 0)], BANKS)).toEqual([]);
});

it('takes a single cylinder that is somewhat loud for the cause only beside misfires of its bank', () => {
  const loud = (cylinder: number): Finding => ({ ...knock(cylinder), severity: 'attention' });
  expect(causes([loud(2), gives(3, 0.5)], BANKS)).toEqual([
    'The injector of cylinder 2 leaks; cylinder 3 is a victim.',
  ]);
  expect(causes([loud(2), gives(6, 0.5)], BANKS)).toEqual(['Cylinder 6 gives little: fuel, pulse or compression.']);
  expect(causes([loud(2), loud(4), gives(3, 0.5)], BANKS)).toEqual([
    'Cylinder 3 gives little: fuel, pulse or compression.',
  ]);
  expect(causes([loud(2)], BANKS)).toEqual([]);
});

it('tells wire, cylinder and injector apart by what is good', () => {
  expect(causes([pulse(3, true), gives(3, 1, 0.2)])).toEqual(['Cylinder 3 gets no pulse: driver, wire or coil.']);
  expect(causes([compresses(3, 0.5), gives(3, 0.8, 0.3)])).toEqual([
    'Cylinder 3 itself: it compresses little and gives little.',
  ]);
  expect(causes([compresses(3, 1), pulse(3, false), gives(3, 0.8, 0.3)])).toEqual([
    'The injector of cylinder 3, on its fuel side.',
  ]);
  expect(causes([compresses(2, 0.5)])).toEqual(['Cylinder 2 compresses little.']);
});

it('blames the position signal for a moved grid only where it is not clean', () => {
  expect(causes([pulse(4, false, 9), noise])[0]).toContain('position signal');
  expect(causes([pulse(4, false, 9)])[0]).toContain('What commands cylinder 4');
});

it('tells drag from a bad cylinder, and says nothing of a healthy engine', () => {
  const cranking = (even: boolean): Finding => ({
    ...BASE,
    kind: 'cranking',
    speed_rpm: 130,
    meanCurrent: 560,
    peakCurrent: 720,
    even,
    severity: 'fail',
  });
  expect(causes([cranking(true)])[0]).toContain('drags');
  expect(causes([cranking(false)])).toEqual([]);
  expect(causes([compresses(1, 1), pulse(1, false), gives(1, 0.01), compresses(2, 0.95)])).toEqual([]);
});

it('adds to a cam that is out whether compressions are alike', () => {
  const timing: Finding = {
    ...BASE,
    kind: 'timing',
    shift_deg: -12,
    uncertainty_deg: 0.4,
    teeth: -2,
    inTime: false,
    severity: 'fail',
  };
  expect(together([timing], [])[0]?.why).toBe('Against the known good of this family.');
  expect(together([timing, compresses(1, 0.4)], []).at(-1)?.why).toContain('valves may have met pistons');
});

import { rateClock } from '../clock';
import { type Capture, type CaptureChannel, phaseOf, positionOf } from './capture';
import { turned } from './axis';
import { camMarks, timing } from './timing';

const RATE = 50_000;
/** Degrees of the crank at a moment: 700 rpm that sway a little, as an engine idles. */
const angleAt = (t: number): number => 4200 * t + 6 * Math.sin(2 * Math.PI * 23 * t);

/** A Hall signal of a wheel: which of its teeth are not there, by number. */
const wheel =
  (teeth: number, missing: readonly number[], from_deg = 33) =>
  (angle: number): number => {
    const tooth = turned(angle - from_deg, 360) / (360 / teeth);
    return missing.includes(Math.floor(tooth)) || tooth % 1 >= 0.5 ? 0 : 5;
  };
const within =
  (pairs: readonly (readonly [number, number])[], high: number) =>
  (angle: number): number =>
    pairs.some(([a, b]) => turned(angle, 720) >= a && turned(angle, 720) < b) ? high : 0;

function capture(
  crank: (angle: number) => number,
  more: { cam?: (a: number) => number; injector?: (a: number) => number; begin_s?: number; stated?: Capture['wheel'] },
): Capture {
  const { cam, injector, begin_s = 0, stated = null } = more;
  const channel = (id: string, role: CaptureChannel['role'], of: (a: number) => number): CaptureChannel => {
    const values = Float64Array.from({ length: 2 * RATE }, (_, i) => of(angleAt(begin_s + i / RATE)));
    return {
      id,
      name: id,
      role,
      unit: role === 'injector-current' ? 'A' : 'V',
      clock: rateClock(RATE, values.length),
      values,
      step: 0.001,
      cylinder: role === 'injector-current' ? 1 : undefined,
    };
  };
  return {
    cylinders: 4,
    firingOrder: [1, 3, 4, 2],
    banks: [],
    wheel: stated,
    channels: [
      channel('k', 'crank', crank),
      ...(cam ? [channel('n', 'cam', cam)] : []),
      ...(injector ? [channel('i', 'injector-current', injector)] : []),
    ],
  };
}
const EVEN = wheel(60, [28, 29, 58, 59]);
const UNLIKE = wheel(36, [15, 16, 34, 35]);
const CAM = within(
  [
    [40, 120],
    [300, 340],
  ],
  5,
);
const INJECTOR = within([[200, 212]], 10);
const foundIn = (c: Capture) => timing(c, null).find((f) => f.kind === 'wheel');

describe('a wheel with several gaps in a turn', () => {
  test('even gaps: an injector, or the cam, tells that the pattern is not the turn', () => {
    for (const more of [{ injector: INJECTOR }, { cam: CAM }, { injector: INJECTOR, cam: CAM }]) {
      expect(foundIn(capture(EVEN, more))).toMatchObject({ teeth: 60, missing: 2, gaps: 2 });
      const wide = foundIn(capture(EVEN, more));
      expect(wide?.kind === 'wheel' && Math.round(wide.speed_rpm)).toBe(700);
    }
    const one = capture(EVEN, { injector: INJECTOR });
    expect(phaseOf(one, positionOf(one))?.named?.cylinder).toBe(1);
  });
  test('one gap stays one, and with nothing else beside it the pattern is the turn', () => {
    expect(foundIn(capture(wheel(36, [35]), { injector: INJECTOR, cam: CAM }))).not.toHaveProperty('gaps');
    expect(foundIn(capture(EVEN, {}))).toMatchObject({ teeth: 30, missing: 2 });
    expect(foundIn(capture(EVEN, { stated: { teeth: 60, missing: 2, gaps: 2 } }))).toMatchObject({
      teeth: 60,
      gaps: 2,
    });
  });
  test('unlike gaps: every tooth has its angle, wherever the recording begins', () => {
    for (const begin_s of [0, 0.013, 0.031, 0.049, 0.068, 0.09]) {
      const position = positionOf(capture(UNLIKE, { cam: CAM, begin_s }));
      expect(position?.train.wheel).toEqual({ teeth: 36, missing: 2, gaps: 2 });
      expect(position?.train.counted).toBeGreaterThan(0.9);
      const marks = position ? camMarks(position) : [];
      // The first tooth after the gap that more teeth follow is number 17, at 33 + 170 degrees.
      const expected = [40, 120, 300, 340].map((a) => turned(a - 203, 360)).sort((a, b) => a - b);
      const found = marks.map((m) => turned(m.angle_deg, 360)).sort((a, b) => a - b);
      expect(found).toHaveLength(4);
      found.forEach((a, i) => expect(Math.abs(a - (expected[i] ?? NaN))).toBeLessThan(0.6));
    }
  });
  test('a cam that is a tooth out is found through either gap', () => {
    const good = capture(EVEN, { cam: CAM, injector: INJECTOR });
    for (const begin_s of [0, 0.02, 0.045, 0.07]) {
      const out = capture(EVEN, { cam: (a) => CAM(a - 6), injector: INJECTOR, begin_s });
      const found = timing(out, good).find((f) => f.kind === 'timing');
      expect(found?.kind === 'timing' && found.shift_deg).toBeCloseTo(6, 0);
      expect(found).toMatchObject({ inTime: false });
    }
  });
});

test('without a crank a cam with a wheel of its own tells the angle: half as many turns', () => {
  const ofCam = (angle: number): number => wheel(60, [58, 59], 10)(angle / 2);
  const own = capture(() => 0, { cam: ofCam, injector: INJECTOR });
  const position = positionOf({ ...own, channels: own.channels.filter((c) => c.role !== 'crank') });
  expect(position).toMatchObject({ isFromCam: true, train: { wheel: { teeth: 30, missing: 1 } } });
  const { angles, times } = position?.train ?? { angles: new Float64Array(0), times: new Float64Array(0) };
  const speed = ((angles.at(-1) ?? 0) - (angles[0] ?? 0)) / ((times.at(-1) ?? 0) - (times[0] ?? 0)) / 6;
  expect(speed).toBeGreaterThan(690);
  expect(speed).toBeLessThan(710);
  // Some windows are no wheel.
  const windows = capture(() => 0, { cam: CAM });
  expect(positionOf({ ...windows, channels: windows.channels.filter((c) => c.role !== 'crank') })).toBeNull();
});

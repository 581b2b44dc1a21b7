import fc from 'fast-check';
import { seededRandom, normalFrom } from '../../numerics/random';
import { pythonList } from '../../numerics/testing';
import { rateClock } from '../clock';
import type { ChannelRole } from '../types';
import { crankAxis, meanAngle, nearZero, turned } from './axis';
import { type Capture, type CaptureChannel, positionOf } from './capture';
import { compression } from './compression';
import { edgesOf } from './edges';
import { firing } from './firing';
import { bandEnergy } from './knock';
import { spikes } from './spikes';
import { camMarks, shiftBetween, timing } from './timing';
import { toothTrain } from './wheel';

const list = (values: ArrayLike<number>): string => `[${Array.from(values).join(',')}]`;

function made(
  id: string,
  role: ChannelRole,
  rate_Hz: number,
  values: Float64Array,
  more: Partial<CaptureChannel> = {},
): CaptureChannel {
  return { id, name: id, unit: 'V', role, clock: rateClock(rate_Hz, values.length), values, step: 0.001, ...more };
}
const capture = (channels: readonly CaptureChannel[], more: Partial<Capture> = {}): Capture => ({
  channels,
  cylinders: 4,
  firingOrder: [1, 3, 4, 2],
  banks: [],
  wheel: null,
  ...more,
});

/** A crank that speeds up evenly: its angle is a closed form. */
const [START_rpm, GAIN] = [180, 260];
const angleOf = (t: number): number => 6 * (START_rpm * t + (GAIN * t * t) / 2);
const RATE = 12_500;
function chirp(seconds: number, value: (angle: number) => number, noise = 0.03, rate = RATE): Float64Array {
  const random = seededRandom(4);
  return Float64Array.from({ length: seconds * rate }, (_, i) => value(angleOf(i / rate)) + noise * normalFrom(random));
}
const hall =
  (teeth: number, missing: number, from: number, duty = 0.45) =>
  (a: number): number => {
    const tooth = turned(a - from, 360) / (360 / teeth);
    return tooth < teeth - missing && tooth % 1 < duty ? 5 : 0;
  };
const coil =
  (teeth: number, missing: number, from: number) =>
  (a: number): number => {
    const tooth = turned(a - from, 360) / (360 / teeth);
    return tooth < teeth - missing ? -2 * Math.sin(2 * Math.PI * tooth) : 0;
  };
const cam =
  (windows: readonly (readonly [number, number])[], shift = 0) =>
  (a: number): number =>
    windows.some(([from, to]) => turned(a - shift, 720) >= from && turned(a - shift, 720) < to) ? 5 : 0;

describe('teeth of a crank wheel', () => {
  it.each([
    ['hall', 60, 2],
    ['hall', 36, 1],
    ['hall', 24, 3],
    ['hall', 12, 1],
    ['coil', 60, 2],
    ['coil', 36, 2],
  ])(
    '%s, %i with %i missing: the wheel, and the angle of a crank that speeds up, by its closed form',
    (kind, teeth, missing) => {
      const from = 77;
      const values = chirp(2, kind === 'hall' ? hall(teeth, missing, from) : coil(teeth, missing, from));
      const edges = edgesOf(made('k', 'crank', RATE, values));
      const train = edges && toothTrain(edges);
      expect(edges?.kind).toBe(kind);
      expect(train?.wheel).toEqual({ teeth, missing });
      const axis = crankAxis(train!);
      for (const t of [0.7, 1.3, 1.9]) {
        // Angle 0 is the first tooth after the gap, or a fixed part of a tooth from it.
        const off = nearZero(axis.angleAt(t) - (angleOf(t) - from), 360);
        const again = nearZero(axis.angleAt(1) - (angleOf(1) - from), 360);
        expect(Math.abs(off - again)).toBeLessThan(0.5);
        expect(Math.abs(off)).toBeLessThan(360 / teeth);
        expect(axis.timeAt(axis.angleAt(t))).toBeCloseTo(t, 6);
      }
    },
  );

  it('has the phase that scipy’s analytic signal has', () => {
    const teeth = 30;
    const rate = 8000;
    const wave = (a: number): number => Math.sin((teeth * a * Math.PI) / 180);
    const values = chirp(2, wave, 0, rate);
    const train = toothTrain(edgesOf(made('k', 'crank', rate, values))!, { teeth, missing: 0 })!;
    const axis = crankAxis(train);
    const phase = pythonList(
      `np.unwrap(np.angle(__import__('scipy.signal',fromlist=['x']).hilbert(np.array(${list(values.map((v) => Number(v.toFixed(6))))})))).tolist()`,
    );
    const at = (i: number): number => ((phase[i] ?? NaN) * 180) / Math.PI / teeth;
    for (const [a, b] of [
      [4000, 9000],
      [5000, 14_000],
    ] as const)
      expect(axis.angleAt(b / rate) - axis.angleAt(a / rate)).toBeCloseTo(at(b) - at(a), 0);
  });

  it('chooses the same place of the wheel whatever the polarity, duty and kind of level', () => {
    for (const duty of [0.3, 0.5, 0.7])
      for (const missing of [1, 2]) {
        const values = chirp(2, hall(36, missing, 50, duty));
        const [one, two] = [values, values.map((v) => 5 - v)].map((v) => {
          const train = toothTrain(edgesOf(made('k', 'crank', RATE, v))!)!;
          return crankAxis(train).angleAt(1);
        });
        expect(Math.abs(nearZero(one! - two!, 360))).toBeLessThan(0.3);
      }
  });

  it('sees no wheel where there is none', () => {
    const random = seededRandom(1);
    const noise = Float64Array.from({ length: 20_000 }, () => normalFrom(random));
    const edges = edgesOf(made('k', 'crank', RATE, noise));
    expect(edges && toothTrain(edges)?.counted).not.toBe(1);
    expect(edgesOf(made('k', 'crank', RATE, new Float64Array(5000)))).toBeNull();
  });
});

describe('timing against a known good', () => {
  const windows = [
    [40, 110],
    [300, 350],
    [560, 600],
  ] as const;
  const of = (
    shift: number,
    more: { rate?: number; inverted?: boolean; swapped?: boolean; skip?: number } = {},
  ): Capture => {
    const { rate = RATE, inverted = false, swapped = false, skip = 0 } = more;
    const cut = (v: Float64Array): Float64Array => v.slice(Math.round(skip * rate));
    const teeth = cut(chirp(2, hall(60, 2, 12), 0.03, rate));
    const lobes = cut(chirp(2, cam(windows, shift), 0.03, rate)).map((v) => (inverted ? 5 - v : v));
    return capture([
      made('a', swapped ? 'cam' : 'crank', rate, teeth),
      made('b', swapped ? 'crank' : 'cam', rate, lobes),
    ]);
  };
  const shiftOf = (own: Capture, good: Capture) => timing(own, good).find((f) => f.kind === 'timing');

  it.each([0, 6, -3, 18.5, -31])('a cam that is %d degrees off is found so, to within what is said', (shift) => {
    const found = shiftOf(of(shift), of(0));
    expect(Math.abs((found?.shift_deg ?? NaN) - shift)).toBeLessThan(Math.max(0.4, 3 * (found?.uncertainty_deg ?? 0)));
    expect(found?.inTime).toBe(shift === 0);
    expect(found?.teeth).toBeCloseTo(shift / 6, 0);
    expect(found?.reasons.join(' ')).toContain('One cam sensor proves one camshaft only.');
  });

  it.each([
    ['another rate', { rate: 30_000 }],
    ['the other polarity', { inverted: true }],
    ['channels swapped', { swapped: true }],
    ['a later beginning', { skip: 1.234 }],
  ])('is the same with %s', (_, more) => {
    const found = shiftOf(of(6, more), of(0));
    expect(found?.shift_deg).toBeCloseTo(6, 0);
    expect(timing(of(0, more), null).filter((f) => f.kind === 'cam-edge')).toHaveLength(6);
  });

  it('compares no two patterns that are not alike', () => {
    const other = capture([
      made('a', 'crank', RATE, chirp(2, hall(60, 2, 12))),
      made(
        'b',
        'cam',
        RATE,
        chirp(
          4,
          cam([
            [10, 200],
            [260, 280],
            [400, 420],
            [500, 700],
          ]),
        ),
      ),
    ]);
    expect(shiftOf(of(0), other)).toMatchObject({ shift_deg: null, inTime: null, severity: 'undecided' });
  });

  it('finds the shift of any pattern against itself', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 0, max: 23 }), { minLength: 2, maxLength: 8 }),
        fc.double({ min: -40, max: 40, noNaN: true }),
        fc.boolean(),
        (places, shift, turn) => {
          const marks = places.map((p, i) => ({
            angle_deg: p * 30 + (p * p) / 9,
            deviation_deg: 0.2,
            seen: 9,
            edge: i % 2 ? ('falling' as const) : ('rising' as const),
          }));
          const moved = marks.map((m) => ({ ...m, angle_deg: turned(m.angle_deg + shift + (turn ? 360 : 0), 720) }));
          const found = shiftBetween(moved, marks);
          expect(found).not.toBeNull();
          // A pattern that is like itself elsewhere may fit there as well, and the smaller shift is said.
          expect(Math.abs(found!.shift_deg)).toBeLessThan(Math.abs(shift) + 1e-6);
          expect(found!.matched).toBe(1);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('puts cam edges where they are', () => {
    const marks = camMarks(positionOf(of(0))!);
    const gaps = marks.map((m, i) => turned((marks[(i + 1) % marks.length]?.angle_deg ?? 0) - m.angle_deg, 720));
    const sorted = windows.flat();
    const expected = sorted.map((a, i) => turned((sorted[(i + 1) % sorted.length] ?? 0) - a, 720));
    for (const g of gaps) expect(expected.some((e) => Math.abs(e - g) < 1)).toBe(true);
  });
});

describe('relative compression', () => {
  const heights = [1, 0.6, 1.05, 0.95];
  const current = (more: { sign?: number; offset?: number; wait?: number } = {}): Float64Array => {
    const { sign = 1, offset = 0, wait = 0.3 } = more;
    const random = seededRandom(2);
    const period = 0.11;
    return Float64Array.from({ length: 4 * 4000 }, (_, i) => {
      const t = i / 4000 - wait;
      if (t < 0) return offset + normalFrom(random);
      const k = Math.round(t / period);
      const x = (t - k * period) / (0.3 * period);
      return offset + sign * (180 + 90 * (heights[((k % 4) + 4) % 4] ?? 1) * Math.exp(-x * x) + 3 * normalFrom(random));
    });
  };
  const rows = (values: Float64Array, more: readonly CaptureChannel[] = []) =>
    compression(capture([made('i', 'starter-current', 4000, values, { unit: 'A' }), ...more]));

  it('gives each peak its height against the mean, and the speed', () => {
    const found = rows(current());
    const mean = heights.reduce((a, b) => a + b, 0) / 4;
    const relatives = found.flatMap((f) => (f.kind === 'compression' ? [f.relative] : []));
    const at = relatives.indexOf(Math.min(...relatives));
    relatives.forEach((r, i) => expect(r).toBeCloseTo((heights[(i - at + 1 + 4) % 4] ?? 0) / mean, 1));
    const cranking = found.find((f) => f.kind === 'cranking');
    expect(cranking?.speed_rpm).toBeCloseTo(30 / 0.11, 0);
    expect(cranking?.even).toBe(false);
    expect(found.some((f) => f.kind === 'compression' && f.cylinder !== null)).toBe(false);
  });

  it('names cylinders by an injector that is recorded beside', () => {
    const pulses = Float64Array.from({ length: 16_000 }, (_, i) => {
      const t = i / 4000 - 0.3;
      const since = turned(t - 0.11 * 2 + 0.005, 0.44);
      return t > 0 && since < 0.004 ? 10 : 0;
    });
    const sync = made('s', 'injector-current', 4000, pulses, { unit: 'A', cylinder: 4 });
    const found = rows(current(), [sync]).flatMap((f) => (f.kind === 'compression' ? [f] : []));
    // The third peak of each four is that of cylinder 4; the weak second one is that of cylinder 3.
    expect(found.find((f) => f.severity === 'fail')?.cylinder).toBe(3);
  });

  it('says and takes out a clamp that is turned round or not zeroed', () => {
    for (const [more, problem] of [
      [{ sign: -1 }, 'turned round'],
      [{ offset: 40 }, 'not zeroed'],
    ] as const) {
      const found = rows(current(more));
      expect(found.find((f) => f.kind === 'connection')).toMatchObject({ problem });
      const worst = Math.min(...found.flatMap((f) => (f.kind === 'compression' ? [f.relative] : [])));
      expect(worst).toBeCloseTo(0.6 / 0.9, 1);
      const { meanCurrent } = found.find((f) => f.kind === 'cranking') ?? {};
      expect(meanCurrent).toBeGreaterThan(190);
      expect(meanCurrent).toBeLessThan(250);
    }
    expect(rows(current()).some((f) => f.kind === 'connection')).toBe(false);
  });
});

describe('the firing grid', () => {
  const at =
    (late: readonly (number | null)[], only: number | null = null) =>
    (a: number): number => {
      const step = 180;
      for (const [slot, by] of late.entries()) {
        if (by === null || (only !== null && only !== slot)) continue;
        const since = turned(a - slot * step - by, 720);
        if (since < 14) return 12;
      }
      return 0;
    };
  const pulses = (late: readonly (number | null)[]) =>
    firing(
      capture([
        made('all', 'injector-current', RATE, chirp(2, at(late), 0.1), { unit: 'A' }),
        made('one', 'injector-current', RATE, chirp(2, at(late, 0), 0.1), { unit: 'A', cylinder: 1 }),
        made('k', 'crank', RATE, chirp(2, hall(60, 2, 12))),
      ]),
    ).flatMap((f) => (f.kind === 'pulse' ? [f] : []));

  it('is equal angles in firing order', () => {
    const found = pulses([0, 0, 0, 0]);
    expect(found.map((p) => p.cylinder)).toEqual([1, 3, 4, 2]);
    found.forEach((p, i) => {
      expect(Math.abs(nearZero((p.angle_deg ?? NaN) - 180 * i, 720))).toBeLessThan(0.5);
      expect(Math.abs(p.offset_deg ?? NaN)).toBeLessThan(0.5);
      expect(p.severity).toBe('pass');
    });
  });
  it('tells a missing and a late one by their cylinders, also where the late one is cylinder 1', () => {
    expect(pulses([0, 0, null, 0]).map((p) => p.missing)).toEqual([false, false, true, false]);
    expect(pulses([0, 9, 0, 0])[1]).toMatchObject({ cylinder: 3, severity: 'fail' });
    const first = pulses([9, 0, 0, 0]);
    expect(first.map((p) => p.severity)).toEqual(['fail', 'pass', 'pass', 'pass']);
    expect(first[0]?.offset_deg).toBeCloseTo(9, 0);
  });
});

it('has the band energy of scipy’s periodogram', () => {
  const random = seededRandom(9);
  const rate = 40_000;
  const values = Float64Array.from(
    { length: 512 },
    (_, i) => Math.sin((2 * Math.PI * 6000 * i) / rate) + 0.3 * normalFrom(random),
  );
  const [expected] = pythonList(
    `(lambda f, p: [float(np.sum(p[(f>=2500)&(f<=0.48*${rate})]))])(*(lambda s: (np.fft.rfftfreq(512, 1/${rate}), 2*np.abs(np.fft.rfft((np.array(s)-np.mean(s))*(0.5-0.5*np.cos(2*np.pi*(np.arange(512)+0.5)/512))))**2/512/512))(${list(values)}))`,
  );
  const [welch] = pythonList(
    `(lambda r: [float(np.sum(r[1][(r[0]>=2500)&(r[0]<=0.48*${rate})])*r[0][1])])(__import__('scipy.signal',fromlist=['x']).periodogram(np.array(${list(values)}), ${rate}, window='hann', detrend='constant'))`,
  );
  const own = bandEnergy(values, rate);
  expect(own / expected!).toBeCloseTo(1, 6);
  // scipy divides by the window's own power, 3/8 of Hann's.
  expect(own / (welch! * 0.375)).toBeCloseTo(1, 1);
});

it('counts spikes on a position signal by their height, and edges not at all', () => {
  const clean = chirp(2, hall(60, 2, 12), 0.02);
  expect(spikes(made('k', 'crank', RATE, clean), null)).toEqual([]);
  const bad = clean.slice();
  for (const [i, v] of [
    [2003, 0.7],
    [11_111, 1.4],
    [19_999, 0.3],
  ] as const)
    bad[i] = (bad[i] ?? 0) + ((bad[i] ?? 0) > 2.5 ? -v : v);
  const [found] = spikes(made('k', 'crank', RATE, bad), null);
  expect(found).toMatchObject({ kind: 'noise', severity: 'fail' });
  expect(found?.peak).toBeCloseTo(1.4, 0);
  expect(found?.reasons[0]).toContain('2 spikes');
  expect(found?.reasons[0]).toContain('1 of 1 V or more');
});

it('averages angles that go round as directions', () => {
  expect(meanAngle([718, 2, 0], 720).mean % 720).toBeCloseTo(0, 6);
  expect(meanAngle([359, 1], 360).deviation).toBeCloseTo(Math.SQRT2, 6);
  expect([turned(-10, 720), nearZero(700, 720)]).toEqual([710, -20]);
});

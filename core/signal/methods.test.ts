import fc from 'fast-check';
import { pythonList } from '../numerics/testing';
import { normalFrom, seededRandom } from '../numerics/random';
import { quantile, selectInPlace } from '../numerics/select';
import { agreement } from './agreement';
import { withoutBlankRows } from './blank-rows';
import { evenClock, listedClock, rateClock } from './clock';
import { bestLag, correlationAt } from './correlate';
import { robustLine } from './line';
import { movesOf, onsets, startOf } from './moves';
import { runningMedian } from './running-median';
import { Samples } from './samples';
import { snaps } from './snap';
import { channel } from './testing';

const list = (values: ArrayLike<number>): string => `[${Array.from(values).join(',')}]`;

it('has the running median of scipy', () => {
  const random = seededRandom(2);
  const values = Float64Array.from({ length: 300 }, () => Math.round(random() * 40) / 10);
  for (const half of [1, 3, 7]) {
    const expected = pythonList(
      `__import__('scipy.ndimage',fromlist=['x']).median_filter(np.array(${list(values)}), size=${2 * half + 1}, mode='nearest').tolist()`,
    );
    expect(Array.from(runningMedian(values, half, new Float64Array(300)))).toEqual(expected);
  }
});

it('has the running median of sorting each window', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -9, max: 9 }), { minLength: 1, maxLength: 60 }),
      fc.integer({ min: 1, max: 8 }),
      (given, half) => {
        const values = Float64Array.from(given);
        const slow = values.map((_, i) => {
          const window = Array.from(
            { length: 2 * half + 1 },
            (__, k) => values[Math.min(values.length - 1, Math.max(0, i - half + k))]!,
          );
          return window.sort((a, b) => a - b)[half]!;
        });
        expect(runningMedian(values, half, new Float64Array(values.length))).toEqual(slow);
      },
    ),
  );
});

it('selects as sorting does', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 1, maxLength: 80 }),
      fc.nat(79),
      (given, k) => {
        const sorted = [...given].sort((a, b) => a - b);
        const at = Math.min(k, given.length - 1);
        expect(selectInPlace(Float64Array.from(given), at)).toBe(sorted[at]);
      },
    ),
  );
  expect(quantile([3, NaN, 1, 2], 0.5)).toBe(2);
});

it('has the correlation of scipy at every lag', () => {
  const random = seededRandom(5);
  const x = Float64Array.from({ length: 120 }, () => normalFrom(random));
  const y = Float64Array.from({ length: 120 }, (_, i) => (x[i - 7] ?? 0) + 0.2 * normalFrom(random));
  for (const lag of [-5, 0, 7, 20]) {
    const [from, to] = [Math.max(0, -lag), Math.min(120, 120 - lag)];
    const [expected] = pythonList(
      `[__import__('scipy.stats',fromlist=['x']).pearsonr(${list(x.slice(from, to))}, ${list(y.slice(from + lag, to + lag))})[0]]`,
    );
    expect(correlationAt(x, y, lag)).toBeCloseTo(expected!, 10);
  }
  const [best] = pythonList(
    `[float(np.argmax(__import__('scipy.signal',fromlist=['x']).correlate(${list(y)}, ${list(x)})) - 119)]`,
  );
  expect(Math.round(bestLag(x, y, 30)!.lag)).toBe(best);
});

it('finds a lag between two samples', () => {
  const wave = (shift: number): Float64Array =>
    Float64Array.from({ length: 400 }, (_, i) => Math.sin((i - shift) / 9) + Math.sin((i - shift) / 31));
  for (const shift of [3.3, -2.6, 0.25]) expect(bestLag(wave(0), wave(shift), 12)!.lag).toBeCloseTo(shift, 1);
});

it('draws a line that a third of wrong pairs does not move', () => {
  const random = seededRandom(11);
  const x = Float64Array.from({ length: 300 }, () => 4 * random());
  const y = x.map((v, i) => (i % 3 === 0 ? 0.1 : 0.2 + 0.9 * v + 0.01 * normalFrom(random)));
  const line = robustLine(x, y)!;
  expect(line.gain).toBeCloseTo(0.9, 2);
  expect(line.offset).toBeCloseTo(0.2, 2);
});

describe('a scan tool beside the pin', () => {
  const pinValue = (t: number): number => 2.4 + Math.sin(t / 2.3) + 0.8 * Math.sin(t / 0.9);
  const random = seededRandom(13);
  const pin = channel(
    Float64Array.from({ length: 30_000 }, (_, i) => pinValue(i / 100) + 0.004 * normalFrom(random)),
    { id: 'pin', name: 'pin' },
  );
  const times = Float64Array.from({ length: 900 }, (_, i) => 0.5 + i * 0.3 + 0.05 * random());
  const scan = (value: (t: number, i: number) => number) =>
    channel(
      times.map((t, i) => Math.round(100 * value(t, i)) / 100),
      { id: 'scan', name: 'scan', role: 'scan-tool', clock: listedClock(times), step: 0.01, of: 'pin' },
    );

  it('agrees, with its delay', () => {
    const [found] = agreement(
      scan((t) => pinValue(t - 0.4)),
      pin,
      true,
    );
    expect(found).toMatchObject({ kind: 'agreement', agrees: true, severity: 'pass' });
    if (found?.kind !== 'agreement') throw new Error('no agreement');
    expect(found.delay_s).toBeCloseTo(0.4, 1);
    expect(found.gain).toBeCloseTo(1, 2);
    expect(found.offset).toBeCloseTo(0, 1);
  });

  it('differs by offset and gain', () => {
    const [found] = agreement(
      scan((t) => 0.3 + 0.85 * pinValue(t)),
      pin,
      true,
    );
    if (found?.kind !== 'agreement') throw new Error('no agreement');
    expect(found).toMatchObject({ agrees: false, severity: 'fail' });
    expect(found.gain).toBeCloseTo(0.85, 2);
    expect(found.offset).toBeCloseTo(0.3, 1);
  });

  it('wanders from the pin while it gets hot', () => {
    const found = agreement(
      scan((t) => pinValue(t - 0.4) + 0.0008 * t),
      pin,
      true,
    ).find((f) => f.kind === 'drift');
    if (found?.kind !== 'drift') throw new Error('no drift');
    expect(found.perHour / 3600).toBeCloseTo(0.0008, 3);
    expect(
      agreement(
        scan((t) => pinValue(t - 0.4)),
        pin,
        true,
      ).some((f) => f.kind === 'drift'),
    ).toBe(false);
  });

  it('parts for a moment', () => {
    const parts = agreement(
      scan((t, i) => (i > 300 && i < 304 ? 0.05 : pinValue(t))),
      pin,
      true,
    );
    expect(parts.map((p) => p.kind)).toEqual(['agreement', 'apart']);
    expect(parts[1]!.from_s).toBeCloseTo(times[301]!, 1);
  });

  it('agrees where each of its values is repeated until the next', () => {
    const held = Float64Array.from(
      { length: 30_000 },
      (_, i) => Math.round(100 * pinValue(Math.floor(i / 25) / 4 - 0.2)) / 100,
    );
    const shown = channel(held, { id: 'scan', name: 'scan', role: 'scan-tool', step: 0.01, of: 'pin' });
    const found = agreement(shown, pin, true);
    expect(found).toMatchObject([{ agrees: true }]);
    const [one] = found;
    if (one?.kind !== 'agreement') throw new Error('no agreement');
    expect(one.delay_s).toBeCloseTo(0.2, 1);
  });

  it('says nothing of gain where nothing moves', () => {
    const still = channel(new Float64Array(30_000).fill(2.5), { id: 'pin', name: 'pin' });
    expect(
      agreement(
        scan(() => 2.5),
        still,
        true,
      ),
    ).toMatchObject([{ agrees: true, gain: null, delay_s: null }]);
    expect(
      agreement(
        scan(() => 2.9),
        still,
        true,
      ),
    ).toMatchObject([{ agrees: false, gain: null }]);
  });
});

it('has the start of flanks that grow as a power of time', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 2.5, noNaN: true }),
      fc.double({ min: -5, max: 5, noNaN: true }),
      (power, start) => {
        const at = (height: number): number => start + height ** (1 / power);
        expect(startOf(at(0.01), at(0.04), at(0.16)).at_s).toBeCloseTo(start, 6);
      },
    ),
  );
});

describe('what moved first', () => {
  const random = seededRandom(17);
  const rise = (t: number, start: number, tau: number, height: number): number =>
    t < start ? 0 : height * (1 - Math.exp(-(t - start) / tau));
  const curve = (start: number, tau: number, height: number): Float64Array =>
    Float64Array.from(
      { length: 3000 },
      (_, i) =>
        1 + rise(i / 100, start, tau, height) - rise(i / 100, start + 3, 2 * tau, height) + 0.004 * normalFrom(random),
    );
  const air = channel(curve(10, 0.1, 3.6), { id: 'air', name: 'air', role: 'airflow' });
  const boost = channel(curve(10.25, 0.4, 2), { id: 'boost', name: 'boost', role: 'boost' });
  const still = channel(
    new Float64Array(3000).map(() => 2 + 0.004 * normalFrom(random)),
    { id: 'cool', name: 'cool' },
  );

  it('is told with its uncertainty, and what does not move is left out', () => {
    const moves = movesOf([air, boost, still]);
    const first = onsets([air, boost, still], moves).filter((o) => o.event === 1);
    expect(first.map((o) => o.channel)).toEqual(['air', 'boost']);
    expect(Math.abs(first[0]!.at_s - 10)).toBeLessThan(3 * first[0]!.uncertainty_s);
    expect(Math.abs(first[1]!.at_s - 10.25)).toBeLessThan(3 * first[1]!.uncertainty_s);
  });

  it('gives peak and rise of a snap', () => {
    const found = snaps([air, boost], movesOf([air, boost]));
    expect(found.map((f) => f.kind)).toEqual(['snap', 'snap', 'shape']);
    expect(found[0]).toMatchObject({ channel: 'air', severity: 'pass' });
    const [peak] = found;
    if (peak?.kind !== 'snap') throw new Error('no snap');
    expect(peak.peak).toBeCloseTo(4.6, 1);
    expect(peak.rise_s).toBeCloseTo(0.22, 1);
  });
});

it('gives back every decimal that was written', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.oneof(
          fc.tuple(fc.integer({ min: -999_999, max: 999_999 }), fc.integer({ min: 0, max: 6 })),
          fc.constant(null),
        ),
        { minLength: 1, maxLength: 50 },
      ),
      (given) => {
        const samples = new Samples();
        for (const one of given) {
          if (one) samples.add(one[0], one[1]);
          else samples.addMissing();
        }
        const expected = given.map((one) => (one ? one[0] / 10 ** one[1] : NaN));
        expect(Array.from(samples.values())).toEqual(expected);
        expect(given.map((_, i) => samples.at(i))).toEqual(expected);
      },
    ),
  );
});

it('keeps clocks that are even, that jump, and that are neither', () => {
  expect(rateClock(100, 10).at(5)).toBeCloseTo(0.05, 12);
  const jumping = evenClock(
    [
      { first: 0, start_s: 0, period_s: 0.01 },
      { first: 100, start_s: 6, period_s: 0.01 },
    ],
    200,
  );
  expect(jumping.jumps).toMatchObject([{ after: 99, missing: 500 }]);
  expect(jumping.before(6.005)).toBe(100);
  expect(jumping.before(3)).toBe(99);
  expect(listedClock(Float64Array.from([0, 0.3, 0.55, 0.9, 9])).jumps).toMatchObject([{ after: 3 }]);
});

it('takes blanks of a slower device for no gaps', () => {
  const clock = rateClock(100, 1000);
  const slow = Float64Array.from({ length: 1000 }, (_, i) => (i % 25 === 3 ? i : NaN));
  expect(withoutBlankRows(clock, slow)!.values).toHaveLength(40);
  const broken = Float64Array.from({ length: 1000 }, (_, i) => (i === 500 ? NaN : i));
  expect(withoutBlankRows(clock, broken)).toBeNull();
});

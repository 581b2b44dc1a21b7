import { rateClock } from '../clock';
import type { Capture } from './capture';
import { contribution } from './contribution';

const RATE = 60_000;
const ORDER = [1, 12, 5, 8, 3, 10, 6, 7, 2, 11, 4, 9];

/**
 * A crank of twelve cylinders whose energy falls by 1 % a firing and is lifted by 1 % by each that fires, as
 * a straight ramp over 60 degrees: no shape that the fit knows. Closed form but for the sum over angle.
 */
function twelve(dead: number | null, kind: 'hall' | 'coil', misfires = 1): Capture {
  const fires = (cycle: number, slot: number): boolean => ORDER[slot] !== dead || (cycle * 0.618) % 1 >= misfires;
  const step = 0.5;
  const [t, a]: [number[], number[]] = [[0], [0]];
  let energy = 1;
  for (let i = 1; i < (30 * 720) / step; i++) {
    const angle = i * step;
    const firing = Math.floor(angle / 60);
    const pushed = fires(Math.floor(firing / 12), firing % 12) ? 0.01 : 0;
    energy += ((pushed - 0.01 + 0.002 * (1 - energy)) * step) / 60;
    t.push((t.at(-1) ?? 0) + step / (4200 * Math.sqrt(energy)));
    a.push(angle);
  }
  const count = Math.floor((t.at(-1) ?? 0) * RATE);
  let k = 0;
  const angles = Float64Array.from({ length: count }, (_, i) => {
    while ((t[k + 1] ?? Infinity) < i / RATE) k++;
    const [from, to] = [t[k] ?? 0, t[k + 1] ?? 1];
    return (a[k] ?? 0) + ((i / RATE - from) / (to - from)) * step;
  });
  const tooth = (angle: number): number => ((angle + 37) % 360) / 6;
  const crank =
    kind === 'hall'
      ? angles.map((x) => (tooth(x) < 58 && tooth(x) % 1 < 0.5 ? 5 : 0))
      : // Noise that never repeats, and is largest where the signal rests.
        angles.map(
          (x, i) => (tooth(x) < 58 ? -3 * Math.sin(2 * Math.PI * tooth(x)) : 0) + 0.03 * Math.sin(i * i * 0.7),
        );
  const own = angles.map((x) => ((x + 8) % 720 < 12 ? 10 : 0));
  const made = (id: string, role: 'crank' | 'injector-current', values: Float64Array, more: object) => ({
    id,
    name: id,
    role,
    unit: role === 'crank' ? 'V' : 'A',
    clock: rateClock(RATE, values.length),
    values,
    step: 0.001,
    ...more,
  });
  return {
    cylinders: 12,
    firingOrder: ORDER,
    banks: [],
    wheel: null,
    channels: [made('k', 'crank', crank, {}), made('i', 'injector-current', own, { cylinder: 1 })],
  };
}

const found = (capture: Capture) => contribution(capture).flatMap((f) => (f.kind === 'contribution' ? [f] : []));

describe('twelve cylinders, whose pushes overlap', () => {
  test.each(['hall', 'coil'] as const)('%s: the dead one is named, and no other', (kind) => {
    for (const dead of [7, 1, 9]) {
      const rows = found(twelve(dead, kind));
      expect(rows.filter((f) => f.severity === 'fail').map((f) => f.cylinder)).toEqual([dead]);
      expect(rows.find((f) => f.cylinder === dead)?.misfires).toBeGreaterThan(0.9);
    }
  });
  test('one that misses half of its cycles is named with its share', () => {
    const rows = found(twelve(3, 'hall', 0.5));
    expect(rows.filter((f) => f.severity === 'fail').map((f) => f.cylinder)).toEqual([3]);
    expect(rows.find((f) => f.cylinder === 3)?.misfires).toBeCloseTo(0.5, 1);
  });
  test.each(['hall', 'coil'] as const)('%s: where all fire none is accused, not beside the gap either', (kind) => {
    const rows = found(twelve(null, kind));
    expect(rows).toHaveLength(12);
    expect(rows.filter((f) => f.severity === 'fail')).toEqual([]);
  });
});

import type { ToothTrain } from './wheel';

/** From tooth to tooth: angles in degrees, and the square of the mean speed in (degrees per second)². */
export interface Intervals {
  readonly from: Float64Array;
  readonly to: Float64Array;
  readonly energy: Float64Array;
  /** A speed over a longer way is known so much better. */
  readonly weight: Float64Array;
}

/**
 * Speeds from tooth to tooth; a gap is one long interval, nothing is filled in. The tooth that ends the gap
 * of a coil is not used: its edge begins at rest, where noise crosses too.
 */
export function intervalsOf({ times, angles, isTooth, wheel }: ToothTrain, isCoil: boolean): Intervals {
  const pitch = 360 / wheel.teeth;
  // Long intervals were filled in evenly by as many marks as teeth are missing: the train says which are
  // teeth.
  const isReal = (i: number): boolean => isTooth[i] === 1 && !(isCoil && i > 0 && isTooth[i - 1] === 0);
  const [from, to, energy, weight]: [number[], number[], number[], number[]] = [[], [], [], []];
  let last = -1;
  for (let i = 0; i < times.length; i++) {
    if (!isReal(i)) continue;
    const [a, b] = [angles[last] ?? NaN, angles[i] ?? NaN];
    const speed = (b - a) / ((times[i] ?? NaN) - (times[last] ?? NaN));
    if (speed > 0 && Number.isFinite(speed)) {
      from.push(a);
      to.push(b);
      energy.push(speed * speed);
      weight.push(((b - a) / pitch) ** 2);
    }
    last = i;
  }
  return {
    from: Float64Array.from(from),
    to: Float64Array.from(to),
    energy: Float64Array.from(energy),
    weight: Float64Array.from(weight),
  };
}

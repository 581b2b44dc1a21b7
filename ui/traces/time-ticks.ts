/** Steps of a time axis, seconds: as people divide time above a second, by 1, 2 and 5 below. */
const STEPS_s = [1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600, 7200, 14_400, 21_600, 43_200, 86_400];

/**
 * Moments of a window at which a line and a label stand: at most `most` of them, each a whole number of
 * steps.
 */
export function timeTicks(from_s: number, to_s: number, most: number): number[] {
  const span = to_s - from_s;
  if (!(span > 0) || most < 1) return [];
  const step = stepFor(span / most);
  const first = Math.ceil(from_s / step - 1e-9);
  const last = Math.floor(to_s / step + 1e-9);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => (first + i) * step);
}

function stepFor(least_s: number): number {
  if (least_s > 1) return STEPS_s.find((s) => s >= least_s) ?? 86_400 * Math.ceil(least_s / 86_400);
  const power = 10 ** Math.floor(Math.log10(least_s));
  return ([1, 2, 5, 10].find((n) => n * power >= least_s * (1 - 1e-9)) ?? 10) * power;
}

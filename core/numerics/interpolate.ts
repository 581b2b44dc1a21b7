/**
 * Straight lines between points [x, y], x rising and finite. `null` outside the first and the last point, for
 * NaN, and for no points; the y of a point exactly where x is that of the point.
 */
export function interpolateLinear(points: readonly (readonly [x: number, y: number])[], x: number): number | null {
  const above = points.findIndex(([at]) => at >= x);
  const high = points[above];
  if (!high) return null;
  if (high[0] === x) return high[1];
  const low = points[above - 1];
  return low ? low[1] + ((high[1] - low[1]) * (x - low[0])) / (high[0] - low[0]) : null;
}

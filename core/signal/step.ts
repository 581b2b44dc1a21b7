import { quantileInPlace } from '../numerics/select';

/**
 * The smallest step that a recording shows: no less than its last written digit, and what nearly all
 * neighbours that differ at all differ by (a converter may be coarser than the digits).
 */
export function stepOf(values: Float64Array, written: number): number {
  const stride = Math.max(1, Math.floor(values.length / 50_000));
  const differences = new Float64Array(Math.min(values.length, 50_001));
  let count = 0;
  for (let i = 1; i < values.length && count < differences.length; i += stride) {
    const d = Math.abs((values[i] ?? NaN) - (values[i - 1] ?? NaN));
    if (d > written * 0.01 && d > 0) differences[count++] = d;
  }
  if (count < 8) return written;
  const low = quantileInPlace(differences, 0.02, count);
  // A step is what many neighbours differ by; in a fine recording the lowest differences are all different.
  let same = 0;
  for (let i = 0; i < count; i++) if (Math.abs((differences[i] ?? 0) - low) < low * 0.05) same++;
  return same > count * 0.1 ? Math.max(written, low) : written;
}

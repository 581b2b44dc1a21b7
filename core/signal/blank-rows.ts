import { type Clock, listedClock } from './clock';

/** More of the rows than this are blank: the column is slower than the rows. */
const MOSTLY_BLANK = 0.5;
/** Jumps that a slow column may have, as a share of its values. */
const FEW_JUMPS = 0.02;

/**
 * Two devices in one table: a row holds the value of one and a blank for the other. Such a blank is no gap.
 * Where the values that are there follow each other without a gap, they are the channel, with a clock of
 * their own; else `null`.
 */
export function withoutBlankRows(
  clock: Clock,
  values: Float64Array,
): { readonly clock: Clock; readonly values: Float64Array } | null {
  let blanks = 0;
  for (const v of values) if (Number.isNaN(v)) blanks++;
  if (blanks === 0 || values.length - blanks < 4) return null;
  const times = new Float64Array(values.length - blanks);
  const kept = new Float64Array(values.length - blanks);
  let n = 0;
  for (let i = 0; i < values.length; i++) {
    const v = values[i] ?? NaN;
    if (Number.isNaN(v)) continue;
    times[n] = clock.at(i);
    kept[n++] = v;
  }
  const own = listedClock(times);
  const allowed = blanks > MOSTLY_BLANK * values.length ? FEW_JUMPS * n : 0;
  return own.jumps.length <= allowed ? { clock: own, values: kept } : null;
}

import { type Clock, evenClock, type EvenRun, listedClock } from '../../core/signal/clock';
import type { Samples } from '../../core/signal/samples';

/** More runs than this, and a list of times is shorter and quicker. */
const MOST_RUNS = 2000;

/**
 * The clock that a column of times makes: runs of equal steps where the written numbers are that, else the
 * list of them. `unit_s`: seconds for one of the column. Times count from `zero`, in the column's own unit.
 */
export function clockFromTimes(times: Samples, unit_s: number, zero: number): Clock {
  const runs = runsOf(times, unit_s, zero);
  if (runs) return evenClock(runs, times.count);
  const list = times.values();
  for (let i = 0; i < list.length; i++) list[i] = ((list[i] ?? NaN) - zero) * unit_s;
  return listedClock(list);
}

function runsOf(times: Samples, unit_s: number, zero: number): EvenRun[] | null {
  const { count, decimals } = times;
  if (count < 3) return null;
  // Steps are compared in the last digit that was written: 0.1 + 0.2 is no reason for another run.
  const last = 10 ** -decimals;
  const runs: EvenRun[] = [];
  let first = 0;
  let before = times.at(0);
  let step = times.at(1) - before;
  if (!(step > 0)) return null;
  const close = (): void =>
    void runs.push({ first, start_s: (times.at(first) - zero) * unit_s, period_s: step * unit_s });
  for (let i = 1; i < count; i++) {
    const now = times.at(i);
    if (Math.abs(now - before - step) > last * 0.01) {
      if (runs.length >= Math.min(MOST_RUNS, count / 8)) return null;
      close();
      first = i;
      const next = i + 1 < count ? times.at(i + 1) - now : step;
      if (!(next > 0) && i + 1 < count) return null;
      // A last sample alone has the step of the others.
      step = next > 0 ? rounded(next, decimals) : step;
    }
    before = now;
  }
  close();
  return runs.every((r) => r.period_s > 0) ? runs : null;
}

const rounded = (value: number, decimals: number): number => (decimals <= 12 ? Number(value.toFixed(decimals)) : value);

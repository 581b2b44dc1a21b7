import { crossCorrelation } from '../numerics/fft';
import { quantile } from '../numerics/select';
import { bestLag } from './correlate';
import { onGrid, valueAt } from './grid';
import type { Channel } from './types';

/** By how much the second recording's clock must be moved so that both show the same moment. */
export interface Alignment {
  readonly shift_s: number;
  readonly uncertainty_s: number;
  /** Pearson's coefficient of the two channels that tell it, at that shift. */
  readonly correlation: number;
  readonly by: readonly [first: string, second: string];
}

/** Moves are looked at on this grid. */
const GRID_s = 0.1;
const MOST_STEPS = 1 << 20;
/** Of the shorter recording: so much must be common to both, and not less than this many seconds. */
const LEAST_SHARE = 0.2;
const LEAST_s = 8;
/** A single jump of a size that no engine makes would outweigh the rest. */
const CLIPPED_SIGMA = 5;
/** The best shift must be so much better than the best elsewhere, and correlate so well. */
const BETTER = 1.35;
const LEAST_CORRELATION = 0.6;
/** Shifts nearer than this to the best one are the same answer. */
const SAME_s = 4;
/** So many channels of either are compared: those that move seldom and far. */
const MOST_CHANNELS = 6;

/**
 * How two recordings of one drive lie on one clock, from what moves in both: the shift at which the moves of
 * two channels correlate best, in whatever direction each of them moves. Over all shifts at once by the
 * spectrum; then between samples by `bestLag`. `null` where nothing moves in both, or where a second shift
 * fits nearly as well: then a person must say it.
 */
export function alignment(first: readonly Channel[], second: readonly Channel[]): Alignment | null {
  const [a, b] = [moving(first), moving(second)];
  let best: { readonly shift: number; readonly score: number; readonly pair: readonly [Moves, Moves] } | null = null;
  for (const x of a)
    for (const y of b) {
      const found = bestShift(x, y);
      if (found && found.score > (best?.score ?? 0)) best = { ...found, pair: [x, y] };
    }
  return best && refined(best.pair[0].channel, best.pair[1].channel, best.shift);
}

interface Moves {
  readonly channel: Channel;
  readonly start_s: number;
  /** Change from step to step, in standard deviations, clipped; 0 where nothing is known. */
  readonly moves: Float64Array;
}

const lengthOf = ({ clock, values }: Channel): number => clock.at(values.length - 1) - clock.at(0);

function moving(channels: readonly Channel[]): Moves[] {
  const each = channels.flatMap((channel): (Moves & { readonly share: number })[] => {
    const { clock, values } = channel;
    if (values.length < 20 || !(lengthOf(channel) > LEAST_s)) return [];
    const start_s = clock.at(0);
    const steps = Math.floor(lengthOf(channel) / GRID_s);
    if (steps > MOST_STEPS) return [];
    const levels = Float64Array.from({ length: steps }, (_, i) => valueAt(channel, start_s + i * GRID_s));
    // Over three steps: between two of a slow recorder lies a straight line, and no move.
    const moves = levels.map((v, i) => {
      const d = v - (levels[Math.max(0, i - 3)] ?? NaN);
      return Number.isFinite(d) ? d : 0;
    });
    const size = Math.sqrt(moves.reduce((s, d) => s + d * d, 0) / Math.max(1, moves.length));
    if (!(size > 0)) return [];
    const usual = quantile(moves.map(Math.abs), 0.5);
    return [
      {
        channel,
        start_s,
        moves: moves.map((d) => Math.max(-CLIPPED_SIGMA, Math.min(CLIPPED_SIGMA, d / size))),
        // What moves seldom and far tells a moment; noise moves always and little.
        share: usual / size,
      },
    ];
  });
  return each.sort((x, y) => x.share - y.share).slice(0, MOST_CHANNELS);
}

function bestShift(x: Moves, y: Moves): { readonly shift: number; readonly score: number } | null {
  const sums = crossCorrelation(x.moves, y.moves);
  const [n, m] = [x.moves.length, y.moves.length];
  const least = Math.max(LEAST_s / GRID_s, LEAST_SHARE * Math.min(n, m));
  const squares = (v: Float64Array): Float64Array => {
    const out = new Float64Array(v.length + 1);
    for (let i = 0; i < v.length; i++) out[i + 1] = (out[i] ?? 0) + (v[i] ?? 0) ** 2;
    return out;
  };
  const [xx, yy] = [squares(x.moves), squares(y.moves)];
  // Pearson's coefficient at each lag, over what both have.
  const scores = sums.map((sum, k) => {
    const lag = k - (n - 1);
    const [from, to] = [Math.max(0, -lag), Math.min(n, m - lag)];
    if (to - from < least) return 0;
    const energy = ((xx[to] ?? 0) - (xx[from] ?? 0)) * ((yy[to + lag] ?? 0) - (yy[from + lag] ?? 0));
    const whole = Math.sqrt((xx[n] ?? 0) * (yy[m] ?? 0));
    // What lies in the common part must be a fair part of what moved at all.
    return energy > 0 ? Math.abs(sum) / Math.max(Math.sqrt(energy), 0.2 * whole) : 0;
  });
  let at = 0;
  for (let k = 0; k < scores.length; k++) if ((scores[k] ?? 0) > (scores[at] ?? 0)) at = k;
  const score = scores[at] ?? 0;
  const reach = SAME_s / GRID_s;
  let second = 0;
  for (let k = 0; k < scores.length; k++) if (Math.abs(k - at) > reach) second = Math.max(second, scores[k] ?? 0);
  if (score < LEAST_CORRELATION || score < BETTER * second) return null;
  // `lag` says how many steps later the second one is, each counted from its own beginning.
  return { shift: x.start_s - y.start_s - (at - (n - 1)) * GRID_s, score };
}

/** The shift between the steps of the grid, from the values themselves around where both move. */
function refined(first: Channel, second: Channel, shift_s: number): Alignment | null {
  const step_s = Math.max(0.005, Math.min(0.02, first.clock.period_s, second.clock.period_s));
  const from_s = Math.max(first.clock.at(0), second.clock.at(0) + shift_s);
  const to_s = Math.min(first.clock.at(first.values.length - 1), second.clock.at(second.values.length - 1) + shift_s);
  const count = Math.min(20_000, Math.floor((to_s - from_s) / step_s));
  const middle = (from_s + to_s) / 2;
  const start = Math.max(from_s, middle - (count * step_s) / 2);
  const x = onGrid(first, start, step_s, count).values;
  const y = onGrid(second, start - shift_s, step_s, count).values;
  const most = Math.ceil(0.5 / step_s);
  const [same, turned] = [
    bestLag(x, y, most),
    bestLag(
      x,
      y.map((v) => -v),
      most,
    ),
  ];
  const lag = same && turned ? (same.correlation >= turned.correlation ? same : turned) : (same ?? turned);
  if (!lag || lag.isAtTheEnd || lag.correlation < LEAST_CORRELATION) return null;
  return {
    shift_s: shift_s - lag.lag * step_s,
    uncertainty_s: Math.max(first.clock.period_s, second.clock.period_s) / 2 + step_s,
    correlation: lag.correlation,
    by: [first.id, second.id],
  };
}

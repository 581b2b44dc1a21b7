import { cell, floatAt as floatOf } from '../numerics/cell';
import { chanceThere, type Moment } from '../evidence/kinds/supposition';
import { normalCdf } from '../numerics/normal';
import { OVERLOAD_ohm } from './predict';
import { type Predictions, reachSd } from './predictions';
import type { Hypothesis, Measured } from './types';

// Called most of all; see cell.ts.
const floatAt = floatOf;

/** Chance of a bad contact, a misread or a wrong terminal at any one reading. Common practice, no source. */
const MISREAD = 0.01;
/** A meter on a good circuit shows a wander now and then. */
const WANDERS_ANYWAY = 0.01;
const WANDERS_IF_LOOSE = 0.5;
/** What the contact of two probes adds, as a standard deviation. */
const CONTACT = { resistance: 0.1, voltage: 0.02, current: 0.2 } as const;
/** Of a misread in ohms: anything from a hundredth to ten megohms is as likely, and overload often. */
const LOG_RANGE = Math.log(1e9);
const MISREAD_OVERLOAD = 0.3;

/**
 * Probability density of a reading under a hypothesis: per natural logarithm of ohms, per volt, per ampere; of an overload
 * or a wander, a probability. Never 0: a misread is always possible. `hypothesis` and `instance` are places in `p`;
 * `outside` is the healthy circuit; `common` is what all readings of the test share; `shows` when the complaint shows
 * itself. Normal about the prediction, even over sizes between those of the grid. Common practice, no source.
 */
export function readingLikelihood(
  p: Predictions,
  hypothesis: number,
  instance: number,
  m: Measured,
  outside: number,
  common = 0,
  shows: readonly Moment[] = [],
): number {
  const mode = p.instances[instance]?.mode ?? 'voltage';
  const h = p.hypotheses[hypothesis] as Hypothesis;
  const k = hypothesis * p.instances.length + instance;
  const healthy = outside * p.instances.length + instance;
  const loose = p.loose[k] === 1;
  const there = loose ? chanceThere(h, m.under ?? [], shows) : 1;
  if (m.kind === 'unsteady') return loose ? Math.max(WANDERS_ANYWAY, (WANDERS_IF_LOOSE * there) / 0.5) : WANDERS_ANYWAY;
  const steady = (at: number): number => (1 - MISREAD) * exact(p, at, mode, m, common) + MISREAD * anything(p, mode, m);
  return loose
    ? (1 - WANDERS_IF_LOOSE) * (there * steady(k) + (1 - there) * steady(healthy))
    : (1 - WANDERS_ANYWAY) * steady(k);
}

/**
 * What all readings of one test have in common without anything being wrong: the set is warmer, the battery
 * fuller, the clamp a little off. As a standard deviation: of the logarithm of ohms, relative of volts and
 * amperes.
 */
const COMMON = { resistance: 0.12, current: 0.12 } as const;
/** Of volts: as far as their sources differ, twice that; at least what a meter is off. */
const commonVolts = (p: Predictions): number => Math.max(0.008, 2 * p.sourceSpread);

/**
 * The common part of the readings of one test that a hypothesis would need: a shift of the logarithm of ohms, or a relative
 * one of volts and amperes, drawn towards none and at most twice its own standard deviation; and how likely that is
 * against none, 0 to 1. Fewer than two readings that tell something of it give none. Median of the residuals, shrunk as a
 * normal prior would.
 */
export function commonPart(
  p: Predictions,
  hypothesis: number,
  readings: readonly { readonly m: Measured; readonly instance: number }[],
): { common: number; likelihood: number } {
  const mode = p.instances[readings[0]?.instance ?? 0]?.mode ?? 'voltage';
  const c = mode === 'voltage' ? commonVolts(p) : COMMON[mode];
  const residuals: number[] = [];
  let spread = 0;
  for (const { m, instance } of readings) {
    const k = hypothesis * p.instances.length + instance;
    const mean = floatAt(p.mean, k);
    if (m.kind !== 'value' || !Number.isFinite(mean)) continue;
    const scale = mode === 'resistance' ? 1 : Math.max(0.5, Math.abs(mean));
    // What is common is a factor: a point that wavers more by itself, or a fault of which only the order of
    // magnitude is known, tells nothing of it.
    if ((mode !== 'resistance' && CONTACT[mode] / scale > c) || reachSd(p, k) / scale > c) continue;
    residuals.push(((mode === 'resistance' ? Math.log(Math.max(1e-3, m.value)) : m.value) - mean) / scale);
    spread += (floatAt(p.sd, k) / scale) ** 2 + modelSpread(p, mode) ** 2;
  }
  if (residuals.length < 2) return { common: 0, likelihood: 1 };
  const sorted = residuals.toSorted((a, b) => a - b);
  const middle = cell(sorted, (sorted.length - 1) >> 1) / 2 + cell(sorted, sorted.length >> 1) / 2;
  const own = spread / residuals.length / residuals.length;
  const common = Math.max(-2 * c, Math.min(2 * c, (middle * c * c) / (c * c + own)));
  return { common, likelihood: Math.exp(-0.5 * (common / c) ** 2) };
}

function exact(
  p: Predictions,
  k: number,
  mode: 'resistance' | 'voltage' | 'current',
  m: Measured,
  common: number,
): number {
  const mean = floatAt(p.mean, k) + common * (mode === 'resistance' ? 1 : Math.abs(floatAt(p.mean, k)));
  const [own, below, above] = [floatAt(p.sd, k), floatAt(p.below, k), floatAt(p.above, k)];
  if (mode === 'resistance') {
    if (m.kind === 'overload') return mean === Infinity || mean > Math.log(OVERLOAD_ohm) ? 1 : 0;
    if (mean === Infinity) return 0;
    const value = Math.max(1e-3, m.value);
    const about = Math.max(value, Math.exp(mean));
    const sd = Math.hypot(own, MODEL, m.u / about, CONTACT.resistance / about);
    return blurredDensity(Math.log(value) - mean, sd, below, above);
  }
  return m.kind === 'overload'
    ? 0
    : blurredDensity(
        m.value - mean,
        Math.hypot(own, m.u, CONTACT[mode], modelSpread(p, mode) * Math.abs(mean)),
        below,
        above,
      );
}
/**
 * What the model leaves out: of any resistance as a standard deviation of its logarithm; of volts as far as
 * their sources differ, of amperes 2 %. Common practice, no source.
 */
const MODEL = 0.1;
const modelSpread = (p: Predictions, mode: 'resistance' | 'voltage' | 'current'): number =>
  mode === 'resistance' ? MODEL : mode === 'current' ? 0.02 : Math.min(0.02, Math.max(0.006, p.sourceSpread));

function anything(p: Predictions, mode: 'resistance' | 'voltage' | 'current', m: Measured): number {
  if (mode === 'resistance') return m.kind === 'overload' ? MISREAD_OVERLOAD : (1 - MISREAD_OVERLOAD) / LOG_RANGE;
  return m.kind === 'overload' ? 1e-3 : 1 / (1.5 * p.volts * (mode === 'current' ? 3 : 1));
}

const SQRT_2PI = 2.5066282746310002;
/** Reaches below this many standard deviations make no difference to a normal distribution. */
const NARROW = 0.1;
/** Beyond this many there is nothing of it. */
const TAIL = 8;

/**
 * Density at `x` of a value that lies anywhere from `-below` to `above` with equal chance and is read with a
 * standard deviation of `sd`.
 */
function blurredDensity(x: number, sd: number, below: number, above: number): number {
  const width = below + above;
  if (width < NARROW * sd) return Math.exp(-0.5 * (x / sd) ** 2) / (sd * SQRT_2PI);
  const [low, high] = [(x - above) / sd, (x + below) / sd];
  if (low > TAIL || high < -TAIL) return 0;
  // Taken on the side where both are small, so that far out nothing is lost.
  const inside = low > 0 ? normalCdf(-low) - normalCdf(-high) : normalCdf(high) - normalCdf(low);
  return inside / width;
}

/**
 * How far a good meter may show from a predicted mean, as a standard deviation: of the logarithm of ohms, of
 * volts, of amperes. `own`: what the prediction itself leaves open.
 */
export const spreadShown = (
  p: Predictions,
  mode: 'resistance' | 'voltage' | 'current',
  mean: number,
  own: number,
): number =>
  mode === 'resistance'
    ? Math.hypot(own, MODEL, CONTACT.resistance / Math.exp(mean))
    : Math.hypot(own, CONTACT[mode], modelSpread(p, mode) * Math.abs(mean));

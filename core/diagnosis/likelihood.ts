import { cell, floatAt as floatOf } from '../numerics/cell';
import { chanceThere, type Moment } from '../evidence/kinds/supposition';
import { studentCdf, studentDensity } from '../numerics/student';
import { OVERLOAD_ohm } from './setup-predictor';
import { type Predictions, reachSd } from './predictions';
import type { Hypothesis, DiagnosticReading } from './types';

// Called most of all; see cell.ts.
const floatAt = floatOf;

type Mode = 'resistance' | 'voltage' | 'current';

/** Chance of a bad contact, a misread or a wrong terminal at any one reading. Common practice, no source. */
const MISREAD = 0.015;
/** A meter on a good circuit shows a wander now and then. */
const WANDERS_ANYWAY = 0.01;
const WANDERS_IF_LOOSE = 0.5;
/** What the contact of two probes adds, as a standard deviation. */
const CONTACT = { resistance: 0.07, voltage: 0.02, current: 0.2 } as const;
/** Of a misread in ohms: anything from a hundredth to ten megohms is as likely, and overload often. */
const LOG_RANGE = Math.log(1e9);
const MISREAD_OVERLOAD = 0.3;
/** Of a misread in volts or amperes: no contact, or the fuse of the meter, shows nothing. */
const MISREAD_NOTHING = 0.35;
/** Of a misread: the prefix, a thousandfold or a thousandth. */
const MISREAD_PREFIX = 0.15;
/** Below this a resistance is compared in ohms, above by its logarithm: a meter's errors are so. */
const LINEAR_ohm = 1;
/** The least that a density by the logarithm is taken at: 0.00 is a reading too. */
const LEAST_ohm = 0.05;

/**
 * Probability density of a reading under a hypothesis: per natural logarithm of ohms, per volt, per ampere;
 * of an overload or a wander, a probability. Never 0: a misread is always possible. `hypothesis` and
 * `instance` are places in `p`; `outside` is the healthy circuit; `common` is what all readings of the test
 * share; `shows` when the complaint shows itself. About the prediction with heavy tails, even over sizes
 * between those of the grid. Common practice, no source.
 */
export function readingLikelihood(
  p: Predictions,
  hypothesis: number,
  instance: number,
  m: DiagnosticReading,
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
  if (m.kind === 'unsteady') return wanderLikelihood(p, k, healthy, mode, m, loose ? there : null, common);
  const here = steadyLikelihood(p, k, mode, m, common);
  if (!loose) return (1 - WANDERS_ANYWAY) * here;
  return (1 - WANDERS_IF_LOOSE) * (there * here + (1 - there) * steadyLikelihood(p, healthy, mode, m, common));
}

function steadyLikelihood(p: Predictions, k: number, mode: Mode, m: DiagnosticReading, common: number): number {
  const plain = exact(p, k, mode, m, common);
  const astray = MISREAD * anything(p, mode, m);
  // Where the reading fits as it is, nobody asks for its prefix.
  if (plain > 10 * astray || m.kind !== 'value' || m.value === 0) return (1 - MISREAD) * plain + astray;
  const prefixed =
    exact(p, k, mode, { ...m, value: m.value * 1e3, u: m.u * 1e3 }, common) +
    exact(p, k, mode, { ...m, value: m.value / 1e3, u: m.u / 1e3 }, common);
  // A density for each volt or ampere: of a reading that stands for a thousand times as much, or for a
  // thousandth.
  const perUnit = mode === 'resistance' ? 1 : 500;
  return (1 - MISREAD) * plain + astray + (MISREAD * MISREAD_PREFIX * prefixed) / 2 / perUnit;
}

/**
 * Of a display that does not settle: both of its ends. What comes and goes shows anything from good to its
 * fault; anything else wanders seldom, and about what it shows otherwise. `there`: `null` where nothing is
 * loose.
 */
function wanderLikelihood(
  p: Predictions,
  k: number,
  healthy: number,
  mode: Mode,
  m: DiagnosticReading,
  there: number | null,
  common: number,
): number {
  const often = there === null ? WANDERS_ANYWAY : Math.max(WANDERS_ANYWAY, (WANDERS_IF_LOOSE * there) / 0.5);
  if (!m.ends) return often;
  const end = (value: number | null): DiagnosticReading =>
    value === null ? { ...m, kind: 'overload', value: 0 } : { ...m, kind: 'value', value };
  const [low, high] = [end(m.ends.low), end(m.ends.high)];
  const about = (e: DiagnosticReading, at: number): number =>
    0.7 * exact(p, at, mode, e, common) + 0.3 * anything(p, mode, e);
  if (there === null) return often * about(low, k) * about(high, k);
  const between = (e: DiagnosticReading): number =>
    0.8 * betweenDensity(p, healthy, k, mode, e) + 0.1 * about(e, k) + 0.1 * about(e, healthy);
  return often * between(low) * between(high);
}

/**
 * Of volts, what good parts of other types show besides: the level of a signal is not known before its sensor
 * is.
 */
const typesSpread = (p: Predictions, k: number, mode: Mode): number => {
  const instance = k % p.instances.length;
  return mode === 'voltage' ? floatAt(p.batch, instance) * Math.abs(floatAt(p.mean, instance)) : 0;
};

/** Density of a value that lies anywhere from what is good to what is wrong. */
function betweenDensity(p: Predictions, healthy: number, k: number, mode: Mode, e: DiagnosticReading): number {
  const [a, b] = [floatAt(p.mean, healthy), floatAt(p.mean, k)];
  const most = Math.log(OVERLOAD_ohm);
  if (mode === 'resistance') {
    const isOpen = b > most || a > most;
    if (e.kind === 'overload') return isOpen ? 0.5 : 0;
    const [from, to] = [Math.min(a, b, most), Math.min(Math.max(a, b), most)];
    const x = Math.log(Math.max(LEAST_ohm, e.value));
    return (x > from - 0.5 && x < to + 0.5 ? (isOpen ? 0.5 : 1) : 0) / (to - from + 1);
  }
  if (e.kind === 'overload') return 0;
  const edge = 3 * Math.hypot(CONTACT[mode], modelSpread(p, mode) * Math.abs(a));
  const [from, to] = [Math.min(a, b) - edge, Math.max(a, b) + edge];
  return e.value > from && e.value < to ? 1 / (to - from) : 0;
}

/**
 * What all readings of one test have in common without anything being wrong: the set is warmer, the parts are
 * of another type, the battery fuller, the clamp a little off. As a standard deviation: of the logarithm of
 * ohms, relative of volts and amperes; below an ohm it is the leads, in ohms.
 */
const COMMON = { resistance: 0.12, current: 0.12 } as const;
const COMMON_LEADS_ohm = 0.12;
/** Of volts: rather more than their sources differ among good ones; at least what a meter is off. */
const commonVolts = (p: Predictions): number => Math.max(0.008, 1.5 * p.sourceSpread);

/**
 * How readings that share something are put together: ohms and amperes by test, volts all that one source
 * gives.
 */
export const sharingOf = (mode: Mode, test: string): string => (mode === 'voltage' ? 'volts' : test);

/**
 * The common part of readings that share something, as a hypothesis would need it: a shift of the logarithm
 * of ohms (below an ohm, of ohms), or a relative one of volts and amperes, drawn towards none and at most
 * twice its own standard deviation; and how likely that is against none, 0 to 1. Readings that tell nothing
 * of it give none.
 */
export function commonPart(
  p: Predictions,
  hypothesis: number,
  readings: readonly { readonly m: DiagnosticReading; readonly instance: number }[],
): { common: number; likelihood: number } {
  const [first] = readings;
  if (first === undefined) return { common: 0, likelihood: 1 };
  const mode = p.instances[first.instance]?.mode ?? 'voltage';
  const isLinear = mode === 'resistance' && isLinearAt(p, first.instance);
  const c = commonSpread(p, first.instance);
  const residuals: number[] = [];
  let spread = 0;
  for (const { m, instance } of readings) {
    const k = hypothesis * p.instances.length + instance;
    const mean = floatAt(p.mean, k);
    if (m.kind !== 'value' || !Number.isFinite(mean)) continue;
    if (isLinear) {
      if (mean > Math.log(LINEAR_ohm * 3) || reachSd(p, k) > 0.3) continue;
      const ohms = Math.exp(mean);
      residuals.push(m.value - ohms);
      spread += (floatAt(p.sd, k) * ohms) ** 2 + (MODEL * ohms) ** 2 + CONTACT.resistance ** 2;
      continue;
    }
    const scale = mode === 'resistance' ? 1 : Math.max(0.5, Math.abs(mean));
    // What is common is a factor: a point that wavers more by itself, or a fault of which only the order of
    // magnitude is known, tells nothing of it.
    if ((mode !== 'resistance' && CONTACT[mode] / scale > c) || reachSd(p, k) / scale > c) continue;
    residuals.push(((mode === 'resistance' ? Math.log(Math.max(LEAST_ohm, m.value)) : m.value) - mean) / scale);
    spread += (floatAt(p.sd, k) / scale) ** 2 + modelSpread(p, mode) ** 2;
  }
  if (residuals.length < (mode === 'voltage' ? 1 : 2)) return { common: 0, likelihood: 1 };
  const common = bestShift(residuals, Math.sqrt(spread / residuals.length), c);
  return { common, likelihood: Math.exp(-0.5 * (common / c) ** 2) };
}

/**
 * Standard deviation, above 0, of what readings share that are like the one at `instance`, in the measure of
 * `commonPart`. An instance that is not there is taken for a voltage.
 */
export function commonSpread(p: Predictions, instance: number): number {
  const mode = p.instances[instance]?.mode ?? 'voltage';
  const batch = floatAt(p.batch, instance);
  if (mode === 'voltage') return commonVolts(p);
  if (mode === 'resistance' && isLinearAt(p, instance))
    return Math.hypot(COMMON_LEADS_ohm, batch * Math.exp(floatAt(p.mean, instance)));
  return Math.hypot(COMMON[mode], batch);
}

/** A reading this far out has slipped, and says nothing of what the others have in common. */
const SLIPPED = 1e-3;

/** Of many residuals so many are tried as the shift. */
const TRIED = 12;
const spreadOver = (sorted: readonly number[]): readonly number[] =>
  sorted.length <= TRIED
    ? sorted
    : Array.from({ length: TRIED }, (_, i) => cell(sorted, Math.round((i * (sorted.length - 1)) / (TRIED - 1))));

/**
 * The shift that residuals with a spread of their own have most likely in common, if a shift has a standard
 * deviation of `c`: the best of none and of what each of them would need, each drawn towards none. At most
 * twice `c`.
 */
function bestShift(residuals: readonly number[], own: number, c: number): number {
  const sorted = residuals.toSorted((a, b) => a - b);
  const middle = cell(sorted, (sorted.length - 1) >> 1) / 2 + cell(sorted, sorted.length >> 1) / 2;
  const pull = (c * c) / (c * c + (own * own) / residuals.length);
  let [best, most] = [0, -Infinity];
  for (const needed of [0, middle, ...spreadOver(sorted)]) {
    const shift = Math.max(-2 * c, Math.min(2 * c, needed * pull));
    let score = -0.5 * (shift / c) ** 2;
    // The product is of few factors, each at least SLIPPED: one logarithm of it is enough.
    let product = 1;
    for (const r of sorted) {
      product *= Math.max(SLIPPED, studentDensity((r - shift) / own));
      if (product > 1e-250) continue;
      score += Math.log(product);
      product = 1;
    }
    score += Math.log(product);
    if (score > most) [best, most] = [shift, score];
  }
  return best;
}

/** Whether good parts read below an ohm here: then leads are what readings have in common. */
const isLinearAt = (p: Predictions, instance: number): boolean => floatAt(p.mean, instance) < Math.log(LINEAR_ohm);

function exact(p: Predictions, k: number, mode: Mode, m: DiagnosticReading, common: number): number {
  const [own, below, above] = [floatAt(p.sd, k), floatAt(p.below, k), floatAt(p.above, k)];
  if (mode === 'resistance') return exactOhms(p, k, m, common, own, below, above);
  if (m.kind === 'overload') return 0;
  const mean = floatAt(p.mean, k) + common * Math.abs(floatAt(p.mean, k));
  return blurredDensity(
    m.value - mean,
    Math.hypot(own, m.u, CONTACT[mode], modelSpread(p, mode) * Math.abs(mean), typesSpread(p, k, mode)),
    below,
    above,
  );
}

function exactOhms(
  p: Predictions,
  k: number,
  m: DiagnosticReading,
  common: number,
  own: number,
  below: number,
  above: number,
): number {
  const mean = floatAt(p.mean, k);
  if (m.kind === 'overload') return mean === Infinity || mean > Math.log(OVERLOAD_ohm) ? 1 : 0;
  if (mean === Infinity) return 0;
  const isLinear = isLinearAt(p, k % p.instances.length);
  const ohms = isLinear ? Math.max(0, Math.exp(mean) + common) : Math.exp(mean + common);
  if (ohms < LINEAR_ohm || m.value < LEAST_ohm) {
    const sd = Math.hypot(own * ohms, MODEL * ohms, m.u, CONTACT.resistance);
    const density = blurredDensity(
      m.value - ohms,
      sd,
      ohms * -Math.expm1(-below),
      ohms * Math.expm1(Math.min(5, above)),
    );
    return density * Math.max(LEAST_ohm, m.value);
  }
  const value = Math.max(LEAST_ohm, m.value);
  const about = Math.max(value, ohms);
  const sd = Math.hypot(own, MODEL, m.u / about, CONTACT.resistance / about);
  return blurredDensity(Math.log(value / ohms), sd, below, above);
}
/**
 * What the model leaves out: of any resistance as a standard deviation of its logarithm; of volts a part of
 * what their sources differ by, most of which all readings have in common; of amperes 2 %. Common practice,
 * no source.
 */
const MODEL = 0.1;
const modelSpread = (p: Predictions, mode: Mode): number =>
  mode === 'resistance' ? MODEL : mode === 'current' ? 0.02 : Math.min(0.02, Math.max(0.006, 0.4 * p.sourceSpread));

/**
 * How likely a reading is as a slip, whatever is wrong: a density above 0, in the same measure as
 * `readingLikelihood`.
 */
export const slipLikelihood = (p: Predictions, instance: number, m: DiagnosticReading): number =>
  MISREAD * anything(p, p.instances[instance]?.mode ?? 'voltage', m);

/** Density of a reading that says nothing of what it was held to. */
function anything(p: Predictions, mode: Mode, m: DiagnosticReading): number {
  if (mode === 'resistance') return m.kind === 'overload' ? MISREAD_OVERLOAD : (1 - MISREAD_OVERLOAD) / LOG_RANGE;
  if (m.kind === 'overload') return 1e-3;
  const nothing = 2.5 * CONTACT[mode];
  const range = 1.5 * p.volts * (mode === 'current' ? 3 : 1);
  return (1 - MISREAD_NOTHING) / range + (Math.abs(m.value) < nothing ? MISREAD_NOTHING / (2 * nothing) : 0);
}

/** Reaches below this many standard deviations make no difference. */
const NARROW = 0.1;

/**
 * Density at `x` of a value that lies anywhere from `-below` to `above` with equal chance and is read with a
 * standard deviation of about `sd`, now and then much worse.
 */
function blurredDensity(x: number, sd: number, below: number, above: number): number {
  const width = below + above;
  if (width < NARROW * sd) return studentDensity(x / sd) / sd;
  const [low, high] = [(x - above) / sd, (x + below) / sd];
  // Taken on the side where both are small, so that far out nothing is lost.
  const inside = low > 0 ? studentCdf(-low) - studentCdf(-high) : studentCdf(high) - studentCdf(low);
  return Math.max(0, inside) / width;
}

/**
 * How far a good meter may show from a predicted `mean`, as a standard deviation above 0: of the natural
 * logarithm of ohms (`mean` is one too), of volts, of amperes. `own`: what the prediction itself leaves open,
 * 0 or more, in the same measure. NaN where either is.
 */
export const spreadShown = (p: Predictions, mode: Mode, mean: number, own: number): number =>
  mode === 'resistance'
    ? Math.hypot(own, MODEL, CONTACT.resistance / Math.max(CONTACT.resistance, Math.exp(mean)))
    : Math.hypot(own, CONTACT[mode], modelSpread(p, mode) * Math.abs(mean));

import { quantile, robustDeviation } from '../../numerics/select';
import type { Finding } from '../types';
import { type Axis, nearZero, turned } from './axis';
import { type Capture, cylinderAfter, phaseOf, positionOf } from './capture';
import type { Contribution } from './types';

/** Speed is looked at in so many steps for each firing. */
const STEPS = 24;
/** A cycle is a misfire where what it gave is so many standard deviations below what good ones give. */
const OUTLIER = 6.5;
/** And at least so much of what a firing usually moves the speed by. */
const LEAST_LOSS = 0.1;
/** A firing that lifts the speed by less than this share of a good one may be a misfire. */
const MISFIRE_RISE = 0.62;
/** A cylinder below this share of the mean is weak; a share of misfires from here on fails. Common practice, no source. */
const [WEAK, OFTEN, SELDOM] = [0.75, 0.2, 0.03];
/** Where pushes overlap a firing is known less well: more of them must be missing. */
const OFTEN_OVERLAPPING = 0.35;
/** The crank's speed changes by more than this over the capture: load or gear, and nothing is safe to say. */
const STEADY = 0.25;
/** Fewer cycles tell nothing of misfires. */
const FEWEST = 4;

/** With more cylinders than this their pushes overlap: the ripple of one firing is no longer that of one cylinder. */
const MOST_APART = 6;

/**
 * What each cylinder gives, from the crank's speed over angle (as speed squared, which goes with kinetic energy). Two looks at
 * each firing: how far the energy rises from top dead centre on, and what is left of it at the next top dead centre, where
 * compression and expansion of the gas have cancelled. A firing that is far below the good ones in either is a misfire.
 * Derived here; common practice compares speeds by eye.
 */
export function contribution(capture: Capture): Finding[] {
  const position = positionOf(capture);
  const phase = position && phaseOf(capture, position);
  if (!position || !phase) return [];
  const n = capture.cylinders;
  const grid = speedGrid(phase.axis, position.train.wheel.teeth, n);
  if (!grid || grid.cycles < 2) return [];
  const top = topOf(grid, n, phase.named?.angle_deg ?? null);
  const firings = firingsOf(grid, n, top);
  const swing = swingOf(grid, n);
  const left = spreadIn(firings, n, (f) => f.left);
  const rise = spreadIn(firings, n, (f) => f.rise);
  const isApart = n <= MOST_APART && rise.good > 0;
  const slots = Array.from({ length: n }, (_, slot) => firings.filter((f) => f.slot === slot));
  const byLeft = misfiresIn(
    slots.map((own) => own.map((f) => f.left)),
    left,
    LEAST_LOSS * swing,
  );
  const byRise = misfiresIn(
    slots.map((own) => own.map((f) => f.rise)),
    rise,
    (1 - MISFIRE_RISE) * rise.good,
  );
  // Of a cylinder that still lifts the speed well nothing is said by what is left of it.
  const isMissed = (f: Firing, slot: number, i: number): boolean =>
    isApart
      ? byRise[slot]?.[i] === true || (byLeft[slot]?.[i] === true && f.rise < MISFIRE_RISE * rise.good)
      : byLeft[slot]?.[i] === true;
  const misfired = new Set(slots.flatMap((own, slot) => own.filter((f, i) => isMissed(f, slot, i))));
  const isMisfire = (f: Firing): boolean => misfired.has(f);
  const relatives = relativesOf(firings, n, swing, left.good, isMisfire);
  const base = {
    channel: position.crank.id,
    from_s: phase.axis.timeAt(phase.axis.first_deg),
    to_s: phase.axis.timeAt(phase.axis.last_deg),
  };
  const trend = Math.abs(grid.lastSpeed / grid.firstSpeed - 1);
  const isCoarse = !isApart && left.sigma > COARSE * swing;
  return slots.map((own, slot) => {
    const relative = relatives[slot] ?? NaN;
    const share = own.length < FEWEST ? 0 : own.filter(isMisfire).length / own.length;
    return finding(base, capture, phase.named?.cylinder ?? null, slot, {
      relative,
      spread: robustDeviation(own.map((f) => f.left)) / Math.max(swing, 1e-12) / Math.sqrt(Math.max(1, own.length)),
      // Single firings are not told from the noise: only a cylinder that gives little by its median missed some.
      misfires: isCoarse && relative > 0.5 ? 0 : share,
      cycles: own.length,
      trend,
      isCoarse,
    });
  });
}

/** Of the ripple: with more noise than this in a firing single misfires are not told. */
const COARSE = 0.5;

interface Firing {
  readonly slot: number;
  /** Energy half a firing after top dead centre less that at it. */
  readonly rise: number;
  /** Energy at the next top dead centre less that at its own, less what the whole cycle gains. */
  readonly left: number;
}

interface Spread {
  /** What a good cylinder usually gives. */
  readonly good: number;
  /** Standard deviation of one firing. */
  readonly sigma: number;
}

/** The good cylinders are the upper ones; how far cycles of one cylinder differ is the noise. */
function spreadIn(firings: readonly Firing[], n: number, value: (f: Firing) => number): Spread {
  const slots = Array.from({ length: n }, (_, slot) => firings.filter((f) => f.slot === slot).map(value));
  const medians = slots.map((v) => quantile(v, 0.5));
  return { good: quantile(medians, 0.6), sigma: quantile(slots.map(robustDeviation), 0.5) };
}

/** A firing that is below the good ones by so many standard deviations is suspect; many of them are no chance. */
const SUSPECT = 2.5;
const SUSPECT_SHARE = 0.12;
/** And so many times as many as other cylinders have: noise of the recording is in all of them. */
const TIMES_USUAL = 2.5;

/**
 * Which firings of each cylinder are misfires. A single one must be far below the good ones; where one cylinder has many below,
 * the line is halfway between them and the good.
 */
function misfiresIn(slots: readonly (readonly number[])[], { good, sigma }: Spread, least: number): boolean[][] {
  const low = slots.map((values) => values.filter((v) => v < good - SUSPECT * sigma && v < good - least));
  const shares = low.map((l, i) => l.length / Math.max(1, slots[i]?.length ?? 0));
  const usual = quantile(shares, 0.4);
  return slots.map((values, i) => {
    const own = low[i] ?? [];
    const share = shares[i] ?? 0;
    // Misfires pull the mean down by what they lose; noise that reaches as far to either side does not.
    const pulled = good - values.reduce((a, b) => a + b, 0) / values.length;
    const isOften =
      own.length >= 3 &&
      share > TIMES_USUAL * usual + SUSPECT_SHARE &&
      pulled > 0.5 * share * (good - quantile(own, 0.5));
    const line = isOften
      ? Math.min(good - least, (good + quantile(own, 0.5)) / 2)
      : good - Math.max(OUTLIER * sigma, least);
    return values.map((v) => v < line);
  });
}

/** Of each place of the order what it gives, 1 for the mean of all. */
function relativesOf(
  firings: readonly Firing[],
  n: number,
  swing: number,
  good: number,
  isMisfire: (f: Firing) => boolean,
): number[] {
  const of = (slot: number, value: (f: Firing) => number): number =>
    quantile(firings.filter((f) => f.slot === slot).map(value), 0.5);
  const slots = Array.from({ length: n }, (_, slot) => slot);
  const rises = slots.map((slot) => of(slot, (f) => f.rise));
  const mean = rises.reduce((s, r) => s + r, 0) / n;
  if (n <= MOST_APART && mean > 0) return rises.map((r) => r / mean);
  // What a misfire loses is what a firing gives; where there is none, the ripple says how much that is at least.
  const lost = firings.filter(isMisfire).map((f) => good - f.left);
  const whole = lost.length >= FEWEST ? quantile(lost, 0.5) : Math.max(swing, 1e-12);
  const lefts = slots.map((slot) => of(slot, (f) => f.left));
  const middle = lefts.reduce((s, l) => s + l, 0) / n;
  return lefts.map((l) => Math.max(0, 1 + (l - middle) / whole));
}

interface SpeedGrid {
  /** Degrees of its first step on the axis. */
  readonly first_deg: number;
  readonly step_deg: number;
  /** Square of the speed, (degrees per second)². */
  readonly energy: Float64Array;
  readonly cycles: number;
  readonly firstSpeed: number;
  readonly lastSpeed: number;
}

/** The square of the speed at even steps of angle: over a fifth of a firing to either side, and over three teeth at least. */
function speedGrid(axis: Axis, teeth: number, n: number): SpeedGrid | null {
  const step_deg = 720 / n / STEPS;
  const reach = Math.max(720 / n / 5, (1.5 * 360) / teeth);
  const first_deg = axis.first_deg + reach;
  const count = Math.floor((axis.last_deg - reach - first_deg) / step_deg);
  if (count < n * STEPS) return null;
  const speed = Float64Array.from({ length: count }, (_, i) => {
    const a = first_deg + i * step_deg;
    return (2 * reach) / (axis.timeAt(a + reach) - axis.timeAt(a - reach));
  });
  const cycle = n * STEPS;
  const mean = (from: number): number => quantile(speed.slice(from, from + cycle), 0.5);
  return {
    first_deg,
    step_deg,
    energy: speed.map((v) => v * v),
    cycles: count / cycle,
    firstSpeed: mean(0),
    lastSpeed: mean(count - cycle),
  };
}

const energyAt = ({ energy, first_deg, step_deg }: SpeedGrid, angle: number): number => {
  const x = (angle - first_deg) / step_deg;
  const i = Math.floor(x);
  if (i < 0 || i + 1 >= energy.length) return NaN;
  return (energy[i] ?? NaN) + (x - i) * ((energy[i + 1] ?? NaN) - (energy[i] ?? NaN));
};

/** Injection begins about this long before top dead centre, degrees. Common practice, no source. */
const ADVANCE_deg = 8;
/** The lowest speed is not further from top dead centre than this, degrees. */
const NEAR_TOP_deg = 25;

/**
 * The angle of the first cylinder's top dead centre: where the speed is lowest in the ripple of firing. That of the named
 * cylinder is the one at its injection; where cylinders push at once, its injection alone tells it.
 */
function topOf(grid: SpeedGrid, n: number, injection_deg: number | null): number {
  const step = 720 / n;
  const { energy } = grid;
  // Less what it does over a whole firing: a slow change is no ripple.
  const sums = new Float64Array(energy.length + 1);
  for (let i = 0; i < energy.length; i++) sums[i + 1] = (sums[i] ?? 0) + (energy[i] ?? 0);
  let [c, s] = [0, 0];
  for (let i = STEPS / 2; i < energy.length - STEPS / 2; i++) {
    const ripple = (energy[i] ?? 0) - ((sums[i + STEPS / 2] ?? 0) - (sums[i - STEPS / 2] ?? 0)) / STEPS;
    const k = (2 * Math.PI * (grid.first_deg + i * grid.step_deg)) / step;
    c += ripple * Math.cos(k);
    s += ripple * Math.sin(k);
  }
  const low = turned((Math.atan2(-s, -c) * step) / (2 * Math.PI), step);
  if (injection_deg === null) return low;
  const expected = injection_deg + ADVANCE_deg;
  const off = nearZero(low - expected, step);
  return n > MOST_APART || Math.abs(off) > NEAR_TOP_deg ? expected : expected + off;
}

function firingsOf(grid: SpeedGrid, n: number, top: number): Firing[] {
  const step = 720 / n;
  const out: Firing[] = [];
  const end = grid.first_deg + grid.energy.length * grid.step_deg;
  for (let k = Math.ceil((grid.first_deg - top) / step); top + k * step < end; k++) {
    const at = top + k * step;
    const here = energyAt(grid, at);
    const rise = energyAt(grid, at + step / 2) - here;
    // What the whole cycle around it gains or loses is load, and none of this cylinder's.
    const whole = (energyAt(grid, at + 360 + step / 2) - energyAt(grid, at - 360 + step / 2)) / n;
    const left = energyAt(grid, at + step) - here - (Number.isFinite(whole) ? whole : 0);
    if (Number.isFinite(rise) && Number.isFinite(left)) out.push({ slot: ((k % n) + n) % n, rise, left });
  }
  return withoutTail(out, step);
}

/** Combustion pushes for about so long: the angle at which its torque is highest, degrees. Common practice, no source. */
const PUSH_deg = 21;

/**
 * Less what the firing before still gives after the next top dead centre: of a torque that grows and fades as x·exp(-x), so much of
 * it comes later than a firing is long. Without it the one after a misfire would be accused too.
 */
function withoutTail(firings: readonly Firing[], step: number): Firing[] {
  const until = (deg: number): number => 1 - (1 + deg / PUSH_deg) * Math.exp(-deg / PUSH_deg);
  const tail = (until(2 * step) - until(step)) / until(step);
  const good = quantile(
    firings.map((f) => f.left),
    0.6,
  );
  let before = 0;
  return firings.map((f) => {
    const left = f.left - tail * before;
    before = left - good;
    return { ...f, left };
  });
}

/** How far the energy usually swings within a firing. */
function swingOf({ energy }: SpeedGrid, n: number): number {
  const swings: number[] = [];
  for (let i = 0; i + STEPS <= energy.length; i += STEPS) {
    const part = energy.slice(i, i + STEPS);
    swings.push(Math.max(...part) - Math.min(...part));
  }
  return n > 0 ? quantile(swings, 0.5) : 0;
}

function finding(
  base: { channel: string; from_s: number; to_s: number },
  capture: Capture,
  named: number | null,
  slot: number,
  r: {
    relative: number;
    spread: number;
    misfires: number;
    cycles: number;
    trend: number;
    isCoarse: boolean;
  },
): Contribution {
  const cylinder = cylinderAfter(capture.firingOrder, named, slot);
  const isSafe = r.trend < STEADY;
  const often = capture.cylinders > MOST_APART ? OFTEN_OVERLAPPING : OFTEN;
  const isBad = r.misfires >= often || r.relative + 2 * r.spread < WEAK;
  const isWatched = r.misfires >= SELDOM;
  const who = cylinder === null ? `The firing at place ${slot + 1}` : `Cylinder ${cylinder}`;
  return {
    kind: 'contribution',
    ...base,
    severity: isBad ? (isSafe ? 'fail' : 'attention') : isWatched ? 'attention' : 'pass',
    confidence: isSafe && !r.isCoarse ? 0.9 : 0.5,
    cylinder,
    position: slot + 1,
    relative: r.relative,
    uncertainty: r.spread,
    misfires: r.misfires,
    reasons: [
      `${who} speeds the crank up by ${Math.round(100 * r.relative)} % of the mean; ${Math.round(100 * r.misfires)} % of ${r.cycles} cycles misfired.`,
      ...(isSafe
        ? []
        : [
            `The speed changed by ${Math.round(100 * r.trend)} % meanwhile: load or gear may say the same. Record at a steady speed.`,
          ]),
      ...(r.isCoarse
        ? ['The speed is too coarse for single misfires of so many cylinders: record faster, or for longer.']
        : []),
      ...(cylinder === null ? ['Without a channel that names a cylinder places are counted in order of time.'] : []),
    ],
  };
}

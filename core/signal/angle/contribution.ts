import { tr } from '../../locale/translate';
import { quantile, robustDeviation } from '../../numerics/select';
import type { Finding } from '../types';
import { type Axis, nearZero, turned } from './axis';
import { type Given, givenOf } from './overlapping';
import { type Pushes, pushesOf } from './pushes';
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
/**
 * A cylinder below this share of the mean is weak; a share of misfires from here on fails. Common practice,
 * no source.
 */
const [WEAK, OFTEN, SELDOM] = [0.75, 0.2, 0.03];
/** The crank's speed changes by more than this over the capture: load or gear, and nothing is safe to say. */
const STEADY = 0.25;
/** Fewer cycles tell nothing of misfires. */
const FEWEST = 4;

/**
 * With more cylinders than this their pushes overlap: the ripple of one firing is no longer that of one
 * cylinder.
 */
const MOST_APART = 6;

/**
 * What each cylinder gives, from the crank's speed over angle (as speed squared, which goes with kinetic
 * energy). Two looks at each firing: how far the energy rises from top dead centre on, and what is left of it
 * at the next top dead centre, where compression and expansion of the gas have cancelled. A firing that is
 * far below the good ones in either is a misfire. Derived here; common practice compares speeds by eye.
 */
export function contribution(capture: Capture): Finding[] {
  const position = positionOf(capture);
  const phase = position && phaseOf(capture, position);
  if (!position || !phase) return [];
  const n = capture.cylinders;
  const grid = speedGrid(phase.axis, position.train.wheel.teeth, n);
  if (!grid || grid.cycles < 2) return [];
  const top = topOf(grid, n, phase.named?.angle_deg ?? null);
  const [slots, ...others] = pushesOf(position, n, top, n > MOST_APART).map((p) => slotsOf(p, n));
  if (!slots || slots.some((own) => own.length === 0)) return [];
  // Where speed does not rise after what is taken for top dead centre, only what firings leave behind says
  // anything.
  const isApart = n <= MOST_APART && quantile(slots.map(riseOf), 0.6) > 0 && meanOf(slots.map(riseOf)) > 0;
  const given = isApart ? apart(slots, grid) : overlapping(slots, others, grid);
  const base = {
    channel: position.crank.id,
    from_s: phase.axis.timeAt(phase.axis.first_deg),
    to_s: phase.axis.timeAt(phase.axis.last_deg),
  };
  const trend = Math.abs(grid.lastSpeed / grid.firstSpeed - 1);
  const named = phase.named?.cylinder ?? null;
  return given.map((own, slot) =>
    finding(base, capture, named, slot, {
      ...own,
      cycles: slots[slot]?.length ?? 0,
      trend,
      isFromCam: position.isFromCam,
    }),
  );
}

/** What a place of the order gives, and whether that is too little. */
interface Judged extends Omit<Given, 'isLow' | 'mayBeLow'> {
  readonly isBad: boolean;
  /** Single firings are not told from the noise. */
  readonly isCoarse: boolean;
}

const riseOf = (own: readonly Firing[]): number =>
  quantile(
    own.map((f) => f.rise),
    0.5,
  );
const meanOf = (values: readonly number[]): number => values.reduce((s, v) => s + v, 0) / values.length;

/** Pushes that do not reach into each other: how far each lifts the speed, and what it leaves. */
function apart(slots: readonly (readonly Firing[])[], grid: SpeedGrid): Judged[] {
  const swing = swingOf(grid);
  const lefts = slots.map((own) => own.map((f) => f.left));
  const rises = slots.map((own) => own.map((f) => f.rise));
  const left = spreadIn(lefts);
  const rise = spreadIn(rises);
  const byLeft = misfiresIn(lefts, left, LEAST_LOSS * swing);
  const byRise = misfiresIn(rises, rise, (1 - MISFIRE_RISE) * rise.good);
  // Of a cylinder that still lifts the speed well nothing is said by what is left of it.
  const isMissed = (f: Firing, slot: number, i: number): boolean =>
    byRise[slot]?.[i] === true || (byLeft[slot]?.[i] === true && f.rise < MISFIRE_RISE * rise.good);
  const mean = meanOf(slots.map(riseOf));
  return slots.map((own, slot) => {
    // One that only compresses takes more than it gives: it gives nothing.
    const relative = Math.max(0, riseOf(own) / mean);
    const uncertainty = robustDeviation(lefts[slot] ?? []) / Math.max(swing, 1e-12) / Math.sqrt(own.length);
    const misfires = own.length < FEWEST ? 0 : own.filter((f, i) => isMissed(f, slot, i)).length / own.length;
    return {
      relative,
      uncertainty,
      misfires,
      isBad: misfires >= OFTEN || relative + 2 * uncertainty < WEAK,
      isCoarse: false,
    };
  });
}

/** Pushes that reach into each other: what each leaves, beside what the others do. */
function overlapping(
  slots: readonly (readonly Firing[])[],
  others: readonly (readonly (readonly Firing[])[])[],
  grid: SpeedGrid,
): Judged[] {
  const swing = swingOf(grid);
  const leftsOf = (fit: readonly (readonly Firing[])[]): number[][] => fit.map((own) => own.map((f) => f.left));
  const lefts = leftsOf(slots);
  const otherwise = others.map((fit) => givenOf(leftsOf(fit), swing));
  // Certain only where every fit that is as good bears it out.
  const given = givenOf(lefts, swing).map((g, i) => ({
    ...g,
    isLow: g.isLow && otherwise.every((o) => o[i]?.mayBeLow === true),
  }));
  const isAnyLow = given.some((g) => g.isLow);
  const isCoarse = !isAnyLow && quantile(lefts.map(robustDeviation), 0.5) > COARSE * swing;
  return given.map(({ isLow, relative, uncertainty, misfires }) => ({
    relative,
    uncertainty,
    misfires: isCoarse ? 0 : misfires,
    isBad: isLow,
    isCoarse,
  }));
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
function spreadIn(slots: readonly (readonly number[])[]): Spread {
  const medians = slots.map((v) => quantile(v, 0.5));
  return { good: quantile(medians, 0.6), sigma: quantile(slots.map(robustDeviation), 0.5) };
}

/**
 * A firing that is below the good ones by so many standard deviations is suspect; many of them are no chance.
 */
const SUSPECT = 2.5;
const SUSPECT_SHARE = 0.12;
/** And so many times as many as other cylinders have: noise of the recording is in all of them. */
const TIMES_USUAL = 2.5;

/**
 * Which firings of each cylinder are misfires. A single one must be far below the good ones; where one
 * cylinder has many below, the line is halfway between them and the good.
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

/**
 * The square of the speed at even steps of angle: over a fifth of a firing to either side, and over three
 * teeth at least.
 */
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

/** Injection begins about this long before top dead centre, degrees. Common practice, no source. */
const ADVANCE_deg = 8;
/** The lowest speed is not further from top dead centre than this, degrees. */
const NEAR_TOP_deg = 25;

/**
 * The angle of the first cylinder's top dead centre: where the speed is lowest in the ripple of firing. That
 * of the named cylinder is the one at its injection; where cylinders push at once, its injection alone tells
 * it.
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

/** Firings by their place in the order, of those that were recorded from well before to well after. */
function slotsOf({ energyAt, first, left, step_deg, top_deg }: Pushes, n: number): Firing[][] {
  const firings = Array.from(left).flatMap((own, i) => {
    const k = first + i;
    const at = top_deg + k * step_deg;
    const rise = energyAt(at + step_deg / 2) - energyAt(at);
    // What the whole cycle around it gains or loses is load, and none of this cylinder's.
    const whole = (energyAt(at + 360 + step_deg / 2) - energyAt(at - 360 + step_deg / 2)) / n;
    const isEdge = i < 2 || i >= left.length - 2;
    if (isEdge || !Number.isFinite(rise)) return [];
    return [{ slot: ((k % n) + n) % n, rise, left: own - (Number.isFinite(whole) ? whole : 0) }];
  });
  return Array.from({ length: n }, (_, slot) => firings.filter((f) => f.slot === slot));
}

/** How far the energy usually swings within a firing. */
function swingOf({ energy }: SpeedGrid): number {
  const swings: number[] = [];
  for (let i = 0; i + STEPS <= energy.length; i += STEPS) {
    const part = energy.slice(i, i + STEPS);
    swings.push(Math.max(...part) - Math.min(...part));
  }
  return quantile(swings, 0.5);
}

function finding(
  base: { channel: string; from_s: number; to_s: number },
  capture: Capture,
  named: number | null,
  slot: number,
  r: Judged & { readonly cycles: number; readonly trend: number; readonly isFromCam: boolean },
): Contribution {
  const cylinder = cylinderAfter(capture.firingOrder, named, slot);
  const isSafe = r.trend < STEADY;
  const isWatched = r.misfires >= SELDOM;
  const who = cylinder === null ? tr`The firing at place ${slot + 1}` : tr`Cylinder ${cylinder}`;
  return {
    kind: 'contribution',
    ...base,
    severity: r.isBad ? (isSafe ? 'fail' : 'attention') : isWatched ? 'attention' : 'pass',
    confidence: isSafe && !r.isCoarse && !r.isFromCam ? 0.9 : 0.5,
    cylinder,
    position: slot + 1,
    relative: r.relative,
    uncertainty: r.uncertainty,
    misfires: r.misfires,
    cycles: r.cycles,
    reasons: [
      tr`${who} speeds the crank up by ${Math.round(100 * r.relative)} % of the mean; ${Math.round(100 * r.misfires)} % of ${r.cycles} cycles misfired.`,
      ...(isSafe
        ? []
        : [
            tr`The speed changed by ${Math.round(100 * r.trend)} % meanwhile: load or gear may say the same. Record at a steady speed.`,
          ]),
      ...(r.isCoarse
        ? ['The speed is too coarse for single misfires of so many cylinders: record faster, or for longer.']
        : []),
      ...(r.isFromCam
        ? ['From the wheel of the cam: its drive gives way a little, so that it follows the crank less well.']
        : []),
      ...(cylinder === null ? ['Without a channel that names a cylinder places are counted in order of time.'] : []),
    ],
  };
}

import { bisectRising } from '../numerics/bisect';
import { failureWithin, type Weibull } from './weibull';

/** Money in integer minor units of one currency; times in minutes; ages in hours. */
export interface OneOrSetInputs {
  readonly positions: number;
  readonly failed: number;
  readonly part: number;
  /** To get there and back, once. */
  readonly access_min: number;
  readonly each_min: number;
  /** Per hour. */
  readonly labour: number;
  /** Age of those that still work. */
  readonly age_h: number;
  readonly horizon_h: number;
  readonly life: Weibull;
  /** Probability that one breaks on being taken out, and what that costs. */
  readonly breakage: number;
  readonly breakageCost: number;
  /**
   * What a return within the horizon costs beside parts and labour: standing still, fetching, the customer.
   */
  readonly comeback: number;
}

export interface School {
  /** To be paid now, breakage on the average. */
  readonly now: number;
  /** Returns expected within the horizon. */
  readonly returns: number;
  readonly later: number;
  readonly total: number;
}

export interface OneOrSet {
  readonly one: School;
  readonly set: School;
  readonly cheaper: 'one' | 'set' | 'even';
  /** Of a single one that works now. */
  readonly nextFailure: number;
  readonly tips: readonly Tip[];
}

/** At which value of one input, all others as they are, the answer turns over; `null` where no value does. */
export interface Tip {
  readonly input: 'comeback' | 'part' | 'access_min' | 'age_h' | 'breakage';
  readonly at: number | null;
}

export const ASSUMPTIONS: readonly string[] = [
  'Lives follow a Weibull distribution with the shape and scale stated; parts fail independently of each other.',
  'A position fails at most once within the horizon; each failure is a return of its own, with access, labour, a part and what a return costs.',
  'New parts have the same distribution from age 0.',
  'Breakage can happen at each one that is taken out, now or at a return.',
  'Nothing is discounted; the horizon is the time for which the answer is meant.',
];

/**
 * Expected cost of the two strategies, in minor units of the depot's currency: renewing those that failed, or
 * the whole set, within a horizon of `i.horizon_h` hours. Costs are integers of 0 or more, ages in hours,
 * breakage a share from 0 to 1. Total of each is parts, access and labour, what breaks, and the comebacks
 * that the Weibull lives of the others lead one to expect. `tips` are the values of single inputs at which
 * the answer turns over, to 1e-15 of their range. Assumptions stand in `ASSUMPTIONS`; common practice, no
 * source.
 */
export function oneOrSet(i: OneOrSetInputs): OneOrSet {
  const [one, set] = [costOfStrategy(i, i.failed), costOfStrategy(i, i.positions)];
  return {
    one,
    set,
    cheaper: Math.abs(one.total - set.total) < 0.5 ? 'even' : one.total < set.total ? 'one' : 'set',
    nextFailure: failureWithin(i.life, i.age_h, i.horizon_h),
    tips: TIPS.map(({ input, most }) => ({ input, at: tipOf(i, input, most) })),
  };
}

/** Expected cost of renewing so many of the positions. */
function costOfStrategy(i: OneOrSetInputs, renewed: number): School {
  const perMinute = i.labour / 60;
  const each = i.part + i.each_min * perMinute + i.breakage * i.breakageCost;
  const now = i.access_min * perMinute + renewed * each;
  const returns =
    (i.positions - renewed) * failureWithin(i.life, i.age_h, i.horizon_h) +
    renewed * failureWithin(i.life, 0, i.horizon_h);
  const later = returns * (i.access_min * perMinute + each + i.comeback);
  return { now, returns, later, total: now + later };
}

/** Inputs that a person would turn, and how far it is looked. */
const TIPS: readonly { readonly input: Tip['input']; readonly most: number }[] = [
  { input: 'comeback', most: 1e8 },
  { input: 'part', most: 1e8 },
  { input: 'access_min', most: 6000 },
  { input: 'age_h', most: 1e5 },
  { input: 'breakage', most: 1 },
];

/**
 * The value at which both schools cost the same, between 0 and the most; the difference is monotonic in each
 * of these inputs.
 */
function tipOf(i: OneOrSetInputs, input: Tip['input'], most: number): number | null {
  const difference = (value: number): number => {
    const changed = { ...i, [input]: value };
    return costOfStrategy(changed, i.failed).total - costOfStrategy(changed, i.positions).total;
  };
  const [atNone, atMost] = [difference(0), difference(most)];
  if (atNone * atMost >= 0) return null;
  const sign = atMost > atNone ? 1 : -1;
  return bisectRising((value) => sign * difference(value), 0, { low: 0, high: most, tolerance: most * 1e-15 });
}

/**
 * What a stream of values says of the probe: on, off, settled, wandering, tapped. A state machine:
 * `touchStep` takes a state and one value with its moment, and gives the next state and what has happened. It
 * knows no bench.
 */
export interface TouchRules {
  /**
   * How far apart values may be and still be one, in the base unit, shown with steps of this size: from the
   * card of the meter.
   */
  readonly band: (value: number, step: number) => number;
  /** So long they must be, seconds, and at least so many. */
  readonly hold_s: number;
  readonly count: number;
  /**
   * Whether the meter has a finer range for a value than the one that shows it with steps of this size: it is
   * not there yet.
   */
  readonly isCoarse: (value: number, step: number) => boolean;
  /** Whether a value (`null`: overload) may be a probe that lies on nothing. */
  readonly isOff: (value: number | null) => boolean;
  /**
   * A value that may be the probes touching each other; the part must read more. `null`: the test has no such
   * thing.
   */
  readonly shortBelow: number | null;
}

export type TouchEvent =
  | { readonly kind: 'touched' }
  /** `value`: the middle of what stood still. */
  | { readonly kind: 'settled'; readonly value: number }
  /** It does not come to rest; `high` is `null` where it breaks now and then. */
  | { readonly kind: 'wanders'; readonly low: number; readonly high: number | null }
  | { readonly kind: 'lifted' }
  /** The probes touched each other for a moment. */
  | { readonly kind: 'tapped' }
  /** Three times in a row. */
  | { readonly kind: 'tapped-thrice' }
  /**
   * The probe was off for a moment only, and shows the same: this position again, or the next one? Nothing is
   * taken.
   */
  | { readonly kind: 'asks-again'; readonly value: number }
  /** It reads no more than the leads: a shorted part, or the probes on each other? Nothing is taken. */
  | { readonly kind: 'asks-short'; readonly value: number }
  /** It has come to rest at another value after it was taken, without being lifted. */
  | { readonly kind: 'moved'; readonly from: number; readonly to: number }
  /** Off for so long that an open position is to be asked for. */
  | { readonly kind: 'asks-open' }
  /** No value came for so long. */
  | { readonly kind: 'silent' };

/** What a display shows: `null` for overload, and one step of its last digit. */
export interface Display {
  readonly value: number | null;
  readonly step: number;
}

interface Sample {
  readonly t: number;
  /** `null`: off or overload. */
  readonly v: number | null;
  readonly step: number;
}

export interface TouchState {
  readonly phase: 'off' | 'on' | 'held' | 'asking';
  /** When this phase began, seconds. */
  readonly since_s: number;
  /** When the newest value came. */
  readonly last_s: number;
  readonly isSilent: boolean;
  /** Values of this touch, the newest last; no older than is needed. */
  readonly recent: readonly Sample[];
  /** When the values of now began to lie within one band. */
  readonly steady_s: number;
  /** Since when it may be off: bounces are shorter. `null`: it is on. */
  readonly gone_s: number | null;
  /** What was taken from this touch, or from the last one. */
  readonly taken: number | null;
  /** When the probe was lifted. */
  readonly lifted_s: number;
  readonly taps: readonly number[];
  readonly hasAskedOpen: boolean;
  /** Touched again so soon that it may be the same place. */
  readonly isBrief: boolean;
  /** Which way the values have gone since contact: -1 or 1; 0 they have not moved yet, 2 they have turned. */
  readonly trend: number;
  /** The value that the steps are counted from. */
  readonly from: number | null;
}

/** A contact that breaks for less bounces. Common practice, no source. */
const BOUNCE_s = 0.18;
/** Longer than this on each other is no tap. */
const TAP_s = 0.9;
const TAPS_WITHIN_s = 3;
/** A probe needs longer from one part to the next. */
const SAME_PLACE_s = 0.6;
const WANDERS_s = 3.5;
const ASK_OPEN_s = 3.5;
const SILENT_s = 3;
/**
 * Of the time since contact: what still nears its end by ever smaller steps must stand for this share of it.
 */
const NEARING = 0.27;
/** A meter that has a finer range goes there within this. Common practice, no source. */
const RANGES_s = 1.6;
const LOOKS_BACK_s = 2;
/** Steps that hardly shrink may go on for long. */
const MOST_RATIO = 0.9;
const KEPT_s = 6;
const MOST_KEPT = 400;

export const startTouch = (t_s: number): TouchState => ({
  phase: 'off',
  since_s: t_s,
  last_s: t_s,
  isSilent: false,
  recent: [],
  steady_s: t_s,
  gone_s: null,
  taken: null,
  lifted_s: -Infinity,
  taps: [],
  hasAskedOpen: false,
  isBrief: false,
  trend: 0,
  from: null,
});

export interface TouchResult {
  readonly state: TouchState;
  readonly events: readonly TouchEvent[];
}

/** Time that passes without a value. */
export const touchTick = (state: TouchState, t_s: number): TouchResult =>
  t_s - state.last_s >= SILENT_s && !state.isSilent
    ? { state: { ...state, isSilent: true }, events: [{ kind: 'silent' }] }
    : { state, events: [] };

/** One value of the display. Moments never go back. */
export function touchStep(before: TouchState, t_s: number, { value, step }: Display, rules: TouchRules): TouchResult {
  // After a silence nothing is known of what happened meanwhile.
  const state = before.isSilent ? { ...startTouch(t_s), taken: before.taken } : before;
  const now = { ...state, last_s: t_s };
  const off = value === null || rules.isOff(value);
  if (now.phase === 'off') return off ? whileOff(now, t_s) : touched(now, { t: t_s, v: value, step });
  if (off) return maybeGone(now, t_s, rules);
  const on = withSample({ ...now, gone_s: null }, { t: t_s, v: value, step }, rules);
  if (on.phase === 'on') return whileOn(on, t_s, rules);
  // A question is not answered by staying: the probe is lifted, or somebody says yes.
  return on.phase === 'held' ? whileHeld(on, t_s, rules) : { state: on, events: [] };
}

function whileOff(s: TouchState, t: number): TouchResult {
  const asks = !s.hasAskedOpen && t - s.since_s >= ASK_OPEN_s;
  return { state: asks ? { ...s, hasAskedOpen: true } : s, events: asks ? [{ kind: 'asks-open' }] : [] };
}

type On = Sample & { readonly v: number };

function touched(s: TouchState, first: On): TouchResult {
  const { t, v } = first;
  const fresh: TouchState = {
    ...s,
    phase: 'on',
    since_s: t,
    recent: [first],
    steady_s: t,
    gone_s: null,
    hasAskedOpen: false,
    trend: 0,
    from: v,
    isBrief: t - s.lifted_s < SAME_PLACE_s,
  };
  return { state: fresh, events: [{ kind: 'touched' }] };
}

/** The contact breaks: a bounce, or the probe is lifted. */
function maybeGone(s: TouchState, t: number, rules: TouchRules): TouchResult {
  const gone_s = s.gone_s ?? t;
  const broken = { ...s, gone_s, recent: kept([...s.recent, { t, v: null, step: 0 }], t), steady_s: t };
  // What breaks again and again wanders; it is lifted only when it stays away.
  if (t - gone_s < BOUNCE_s) return s.phase === 'on' ? wandering(broken, t, rules) : { state: broken, events: [] };
  return lifted(broken, t, gone_s, rules);
}

function lifted(s: TouchState, t: number, gone_s: number, rules: TouchRules): TouchResult {
  const off: TouchState = {
    ...s,
    phase: 'off',
    since_s: gone_s,
    lifted_s: s.phase === 'held' || s.phase === 'asking' ? gone_s : s.lifted_s,
    recent: [],
    gone_s: null,
    steady_s: t,
  };
  if (s.phase !== 'on') return { state: { ...off, taps: [] }, events: [{ kind: 'lifted' }] };
  if (!isTap(s, gone_s, rules)) return { state: off, events: [{ kind: 'lifted' }] };
  const taps = [...s.taps.filter((at) => t - at < TAPS_WITHIN_s), t];
  return taps.length >= 3
    ? { state: { ...off, taps: [] }, events: [{ kind: 'tapped-thrice' }] }
    : { state: { ...off, taps, hasAskedOpen: s.hasAskedOpen }, events: [{ kind: 'tapped' }] };
}

function isTap(s: TouchState, gone_s: number, { shortBelow }: TouchRules): boolean {
  if (shortBelow === null || gone_s - s.since_s > TAP_s) return false;
  const values = s.recent.flatMap(({ v }) => (v === null ? [] : [v]));
  return values.length > 0 && Math.min(...values) <= shortBelow;
}

/** What is needed of the past. */
const kept = (recent: readonly Sample[], t: number): readonly Sample[] =>
  recent.filter((x) => t - x.t <= KEPT_s).slice(-MOST_KEPT);

/** The new value among the others: since when they lie within one band, and which way they have gone. */
function withSample(s: TouchState, newest: On, { band }: TouchRules): TouchState {
  const { t, v } = newest;
  const recent = kept([...s.recent, newest], t);
  const width = band(v, newest.step);
  let [low, high, steady_s] = [v, v, t];
  for (let i = recent.length - 1; i >= 0; i--) {
    const x = recent[i] as Sample;
    // Another range shows the same with other digits: it begins anew.
    if (x.v === null || x.step !== newest.step) break;
    low = Math.min(low, x.v);
    high = Math.max(high, x.v);
    if (high - low > width) break;
    steady_s = x.t;
  }
  const from = s.from ?? v;
  const step = Math.sign(v - from);
  const isStep = Math.abs(v - from) > width / 2;
  const trend = !isStep ? s.trend : s.trend === 0 || s.trend === step ? step : 2;
  return { ...s, recent, steady_s, from: isStep ? v : from, trend };
}

/** So long the values must lie within one band. */
function needed_s(s: TouchState, t: number, rules: TouchRules): number {
  const newest = s.recent.at(-1);
  const isShort = rules.shortBelow !== null && (newest?.v ?? Infinity) <= rules.shortBelow;
  const isCoarse = newest?.v != null && rules.isCoarse(newest.v, newest.step);
  const hold = Math.max(rules.hold_s, isShort ? TAP_s + 0.1 : 0, isCoarse ? RANGES_s : 0);
  const isNearing = s.trend === 1 || s.trend === -1;
  return isNearing ? Math.max(hold, NEARING * (t - s.since_s)) : hold;
}

/** The middle of what stands still; `null`: it does not yet. */
function settledAt(s: TouchState, t: number, rules: TouchRules): number | null {
  const still = s.recent.filter((x) => x.t >= s.steady_s);
  if (still.length < rules.count || t - s.steady_s < needed_s(s, t, rules)) return null;
  const values = still.slice(-Math.max(rules.count, 5)).flatMap(({ v }) => (v === null ? [] : [v]));
  const value = middle(values);
  return stillToGo(s, t) > rules.band(value, lastStep(s)) / 2 ? null : value;
}

/**
 * How far a value that comes nearer by ever smaller steps still has to go, as a geometric series of its last
 * three parts (Aitken's delta-squared process). 0 where it has turned, or where its steps are no more than a
 * digit.
 */
function stillToGo(s: TouchState, t: number): number {
  const span = Math.min(LOOKS_BACK_s, Math.max(2 * BOUNCE_s, 0.6 * (t - s.since_s)));
  const parts = [0, 1, 2].map((part) =>
    s.recent.flatMap(({ t: at, v }) => (v !== null && Math.floor((3 * (at - t + span)) / span) === part ? [v] : [])),
  );
  const [a = NaN, b = NaN] = parts.map(mean);
  const c = mean((parts[2] ?? []).concat(s.recent.at(-1)?.v ?? []));
  const [before, now] = [b - a, c - b];
  const isStep = Math.abs(now) > lastStep(s) / 2;
  if (!Number.isFinite(before + now) || !isStep || before * now <= 0) return 0;
  const ratio = Math.min(MOST_RATIO, now / before);
  return (Math.abs(now) * ratio) / (1 - ratio);
}

const mean = (values: readonly number[]): number => values.reduce((n, v) => n + v, 0) / values.length;

/** One step of the newest value that was shown. */
const lastStep = (s: TouchState): number => s.recent.findLast((x) => x.v !== null)?.step ?? 0;

const middle = (values: readonly number[]): number => {
  const sorted = values.toSorted((a, b) => a - b);
  return sorted[(sorted.length - 1) >> 1] ?? NaN;
};

function whileOn(s: TouchState, t: number, rules: TouchRules): TouchResult {
  const value = settledAt(s, t, rules);
  if (value === null) return wandering(s, t, rules);
  // Off for a moment only, and the same again: the probe may have slipped, or the next part may be as good.
  if (s.isBrief && s.taken !== null && Math.abs(value - s.taken) <= rules.band(s.taken, lastStep(s)))
    return { state: { ...s, phase: 'asking', since_s: t, isBrief: false }, events: [{ kind: 'asks-again', value }] };
  if (rules.shortBelow !== null && value <= rules.shortBelow)
    return { state: { ...s, phase: 'asking', since_s: t }, events: [{ kind: 'asks-short', value }] };
  return { state: { ...s, phase: 'held', since_s: t, taken: value, taps: [] }, events: [{ kind: 'settled', value }] };
}

function wandering(s: TouchState, t: number, { band }: TouchRules): TouchResult {
  const stay = { state: s, events: [] };
  if (t - s.since_s < WANDERS_s) return stay;
  const late = s.recent.filter((x) => x.t >= t - WANDERS_s / 2);
  const values = late.flatMap(({ v }) => (v === null ? [] : [v]));
  if (values.length < 3) return stay;
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const breaks = late.some((x) => x.v === null);
  // Still on its way, or nearly at rest: it is waited for.
  const isOnItsWay = (s.trend === 1 || s.trend === -1) && !breaks && t - s.since_s < 2 * WANDERS_s;
  if (isOnItsWay || (!breaks && high - low <= band(high, lastStep(s)))) return stay;
  return {
    state: { ...s, phase: 'held', since_s: t, taken: null, taps: [] },
    events: [{ kind: 'wanders', low, high: breaks ? null : high }],
  };
}

/** Taken already: another value that comes to rest without a lift is told, once for each. */
function whileHeld(s: TouchState, t: number, rules: TouchRules): TouchResult {
  const value = s.steady_s > s.since_s ? settledAt(s, t, rules) : null;
  if (value === null || s.taken === null || Math.abs(value - s.taken) <= rules.band(s.taken, lastStep(s)))
    return { state: s, events: [] };
  return { state: { ...s, since_s: t, taken: value }, events: [{ kind: 'moved', from: s.taken, to: value }] };
}

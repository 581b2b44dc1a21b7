import { entryOf, wanderEntry } from '../../core/instrument/entry';
import { misfit } from '../../core/instrument/feed';
import {
  startTouch,
  touchStep,
  touchTick,
  type TouchEvent,
  type TouchRules,
  type TouchState,
} from '../../core/instrument/touch';
import type { MeterValue } from '../../core/instrument/types';
import type { Position } from '../../core/judge/types';
import type { Quantity } from '../../core/quantity/units';

/** Where the next value goes: a position, the zero of the leads, or nothing. */
export type ListenTarget =
  { readonly kind: 'lead-zero' } | { readonly kind: 'position'; readonly position: Position } | null;

/** What the bench is told to do. */
export type ListenAction =
  | {
      readonly do: 'record';
      readonly target: NonNullable<ListenTarget>;
      readonly entry: string;
      readonly isRepeat: boolean;
    }
  | { readonly do: 'ask'; readonly question: Question; readonly position: Position; readonly entry: string }
  /** The last position is framed again: what is read next corrects it. */
  | { readonly do: 'back'; readonly position: Position }
  | { readonly do: 'nothing-to-take-back' }
  | { readonly do: 'silent' };
export type Question = 'open' | 'nothing' | 'short' | 'again' | 'moved';

export interface ListenState {
  readonly touch: TouchState;
  /** What was shown last. */
  readonly shown: MeterValue | null;
  /** Why values are not taken; `null`: they are. */
  readonly misfit: string | null;
  readonly question: { readonly kind: Question; readonly position: Position; readonly entry: string } | null;
  /** What was recorded last, newest at the end. */
  readonly recorded: readonly Position[];
}

export interface ListenContext {
  readonly target: ListenTarget;
  readonly quantity: Quantity;
  readonly rules: TouchRules;
  /**
   * One step of the display at a value, from the card of the meter, where the meter does not say it; 0:
   * nobody knows.
   */
  readonly stepAt: (value: number) => number;
}

export const startListening = (t_s: number): ListenState => ({
  touch: startTouch(t_s),
  shown: null,
  misfit: null,
  question: null,
  recorded: [],
});

export interface Listened {
  readonly state: ListenState;
  readonly actions: readonly ListenAction[];
}

const MOST_REMEMBERED = 50;

/** One value of the meter. */
export function hearValue(before: ListenState, t_s: number, value: MeterValue, context: ListenContext): Listened {
  const why = misfit(value, context.quantity);
  const shown = value.step > 0 || value.value === null ? value : { ...value, step: context.stepAt(value.value) };
  const state = { ...before, shown, misfit: why };
  // What does not fit is neither a touch nor a lift: the machine starts anew when it fits again.
  if (why !== null) return { state: { ...state, touch: startTouch(t_s), question: null }, actions: [] };
  const display = { value: shown.value, step: shown.step };
  const { state: touch, events } = touchStep(state.touch, t_s, display, context.rules);
  return events.reduce<Listened>(
    (so, event) => {
      const next = follow(so.state, event, context);
      return { state: next.state, actions: [...so.actions, ...next.actions] };
    },
    { state: { ...state, touch }, actions: [] },
  );
}

/** Time that passes without a value. */
export function hearNothing(state: ListenState, t_s: number): Listened {
  const { state: touch, events } = touchTick(state.touch, t_s);
  return events.length
    ? { state: { ...state, touch, shown: null, question: null }, actions: [{ do: 'silent' }] }
    : { state, actions: [] };
}

/**
 * The key, the button or the foot switch: it answers the question that stands with yes. `null`: there is
 * none.
 */
export function sayYes(state: ListenState, context: ListenContext): Listened | null {
  const { question } = state;
  if (!question) return null;
  return question.kind === 'moved'
    ? takeBack(state)
    : record(
        state,
        { kind: 'position', position: question.position },
        question.entry,
        question.kind === 'again',
        context,
      );
}

/** The last position is to be read again. */
export function takeBack(state: ListenState): Listened {
  const position = state.recorded.at(-1);
  if (position === undefined) return { state, actions: [{ do: 'nothing-to-take-back' }] };
  return {
    state: { ...state, question: null, recorded: state.recorded.slice(0, -1) },
    actions: [{ do: 'back', position }],
  };
}

function follow(state: ListenState, event: TouchEvent, context: ListenContext): Listened {
  const { target, quantity } = context;
  const step = state.shown?.step ?? 0;
  const stay: Listened = { state, actions: [] };
  switch (event.kind) {
    case 'settled':
      return target ? record(state, target, entryOf(event.value, step, quantity), false, context) : stay;
    case 'wanders':
      return target?.kind === 'position'
        ? record(state, target, wanderEntry(event.low, event.high, step, quantity), false, context)
        : stay;
    case 'asks-again':
      return askOfLast(state, 'again', entryOf(event.value, step, quantity));
    case 'asks-short':
      return target?.kind === 'position'
        ? ask(state, 'short', target.position, entryOf(event.value, step, quantity))
        : stay;
    case 'moved':
      return askOfLast(state, 'moved', entryOf(event.to, step, quantity));
    case 'asks-open':
      return target?.kind === 'position' ? askOpen(state, target.position, context) : stay;
    case 'tapped':
      return state.question?.kind === 'open'
        ? record(state, { kind: 'position', position: state.question.position }, 'OL', false, context)
        : stay;
    case 'tapped-thrice':
      return takeBack(state);
    case 'touched':
      // A tap answers the question, so that it stands until the probe has come to rest on something.
      return stay;
    case 'lifted':
      return { state: { ...state, question: isOfTouch(state.question?.kind) ? null : state.question }, actions: [] };
    case 'silent':
      return { state: { ...state, shown: null }, actions: [{ do: 'silent' }] };
  }
}

/** Asked while the probe is on; lifted means no. */
const isOfTouch = (question: Question | undefined): boolean => question === 'again' || question === 'short';

/** A question about what was recorded last; nothing was, nothing is asked. */
function askOfLast(state: ListenState, kind: 'again' | 'moved', entry: string): Listened {
  const position = state.recorded.at(-1);
  return position === undefined ? { state, actions: [] } : ask(state, kind, position, entry);
}

/** In ohms an open part shows overload; in volts a dead pin shows what the display shows now. */
const askOpen = (state: ListenState, position: Position, { quantity }: ListenContext): Listened =>
  quantity === 'resistance'
    ? ask(state, 'open', position, 'OL')
    : ask(state, 'nothing', position, entryOf(state.shown?.value ?? 0, state.shown?.step ?? 0, quantity));

const ask = (state: ListenState, question: Question, position: Position, entry: string): Listened => ({
  state: { ...state, question: { kind: question, position, entry } },
  actions: [{ do: 'ask', question, position, entry }],
});

function record(
  state: ListenState,
  target: NonNullable<ListenTarget>,
  entry: string,
  isRepeat: boolean,
  { target: framed }: ListenContext,
): Listened {
  // A question about a position that is no longer framed is no longer asked: somebody has typed meanwhile.
  const isStale =
    !isRepeat && target.kind === 'position' && !(framed?.kind === 'position' && framed.position === target.position);
  if (isStale) return { state: { ...state, question: null }, actions: [] };
  const recorded =
    target.kind === 'position' && !isRepeat
      ? [...state.recorded, target.position].slice(-MOST_REMEMBERED)
      : state.recorded;
  return { state: { ...state, question: null, recorded }, actions: [{ do: 'record', target, entry, isRepeat }] };
}

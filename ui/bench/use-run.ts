'use client';
import { useIsOnDevice, useRouter } from '../kit/router';
import { type RefObject, useCallback, useEffect, useMemo, useReducer, useRef, useState } from 'react';
import { v7 } from 'uuid';
import type { Judgement, Position } from '../../core/judge/types';
import { sameContent } from '../../core/foundation/content';
import { judgeRun, type RunInputs } from '../../application/judging/judge-run';
import type { ProblemDetails } from '../../formats/problem';
import { type CircumstanceView, type ReadingView, type RunView } from '../../application/views';
import type { RecordCircumstance } from '../../formats/requests/runs';
import { useLive } from '../kit/live';
import { read } from '../kit/send';
import { idOf } from '../offline/items';
import { drop, flush, keep, onOutbox, type OutboxEvent, type OutboxItem } from '../offline/outbox';
import { readAll } from '../offline/outbox-store';
import { countingReadings, currentReadings } from '../../application/judging/corrections';

export type SaveState = 'keeping' | 'queued' | 'saved' | 'refused' | 'not kept';

/** A reading as it was entered. */
interface Fact {
  readonly id: string;
  readonly position: Position;
  readonly entry: string;
  readonly supersedes: string | null;
  readonly why: string | null;
  /** The meter in use when it was taken. */
  readonly instrumentId: string | null;
}

/** How far a reading has come. Kept apart from the readings: what is saved changes no judgement. */
interface Saved {
  readonly state: SaveState;
  readonly problem?: ProblemDetails;
}

/** A reading as the bench shows it. */
export type Line = Fact & Saved;

interface State {
  readonly facts: readonly Fact[];
  readonly saves: ReadonlyMap<string, Saved>;
  /** What waited in this browser has been looked up: before that nobody can say that all is saved. */
  readonly loaded: boolean;
  readonly circumstance: CircumstanceView;
}

type Action =
  | { readonly type: 'fact'; readonly fact: Fact }
  | { readonly type: 'circumstance'; readonly circumstance: CircumstanceView }
  | { readonly type: 'state'; readonly id: string; readonly state: SaveState; readonly problem?: ProblemDetails }
  | { readonly type: 'drop'; readonly id: string }
  | { readonly type: 'outbox'; readonly items: readonly OutboxItem[]; readonly locked: boolean }
  | { readonly type: 'colleagues'; readonly view: RunView };

function reduce(state: State, action: Action): State {
  switch (action.type) {
    case 'fact':
      return addFact(state, action.fact, { state: 'keeping' });
    case 'circumstance':
      return { ...state, circumstance: action.circumstance };
    case 'drop':
      return { ...state, facts: state.facts.filter((f) => f.id !== action.id) };
    case 'state':
      return {
        ...state,
        saves: new Map(state.saves).set(action.id, {
          state: action.state,
          ...(action.problem ? { problem: action.problem } : {}),
        }),
      };
    case 'outbox':
      return { ...action.items.reduce(mergeItem, state), loaded: !action.locked };
    case 'colleagues':
      return mergeColleagues(state, action.view);
  }
}

/**
 * What others have written: their readings beside ours, in the order in which the server stored them; their
 * word on what is true, unless ours is still on its way.
 */
function mergeColleagues(state: State, view: RunView): State {
  const stored = new Set(view.readings.map((r) => r.id));
  const here = new Map(state.facts.map((f) => [f.id, f]));
  const ours = [...state.saves.values()].some((s) => s.state === 'keeping' || s.state === 'queued');
  return {
    ...state,
    facts: [...view.readings.map((r) => here.get(r.id) ?? factOf(r)), ...state.facts.filter((f) => !stored.has(f.id))],
    circumstance: ours ? state.circumstance : view.circumstance,
  };
}

/** What waited in this browser when the page was opened. */
function mergeItem(state: State, item: OutboxItem): State {
  if (item.kind === 'circumstance') {
    const { instrumentId = null, leadZero = null, states, condition } = item.body;
    if (item.refused) return state;
    return {
      ...state,
      circumstance: withZero(state.circumstance, { instrumentId, leadZero, states, condition }),
      saves: new Map(state.saves).set(item.body.id, { state: 'queued' }),
    };
  }
  if (item.kind !== 'reading') return state;
  const { id, position, entry, supersedes = null, why = null } = item.body;
  if (state.facts.some((f) => f.id === id)) return state;
  return addFact(
    state,
    { id, position, entry, supersedes, why, instrumentId: state.circumstance.instrumentId },
    item.refused ? { state: 'refused', problem: item.refused } : { state: 'queued' },
  );
}

/** A circumstance, with its zero kept for its meter: what was read with it goes on using the newest. */
export function withZero(before: CircumstanceView, next: Omit<CircumstanceView, 'zeros'>): CircumstanceView {
  const zeros = next.instrumentId === null ? before.zeros : { ...before.zeros, [next.instrumentId]: next.leadZero };
  return { ...next, zeros };
}

const addFact = (state: State, fact: Fact, saved: Saved): State => ({
  ...state,
  facts: [...state.facts, fact],
  saves: new Map(state.saves).set(fact.id, saved),
});

/** A reading without a note of its own came from the server. */
const SAVED: Saved = { state: 'saved' };

export interface Run {
  readonly lines: readonly Line[];
  readonly circumstance: CircumstanceView;
  readonly judgement: Judgement;
  /** What the judge was given: opens a reading's uncertainty. */
  readonly inputs: RunInputs;
  readonly reachable: boolean;
  /** Entries and circumstances that the server has not confirmed yet. */
  readonly waiting: number;
  /** All of it is where the job is: at the server, or in this device’s own rooms while there is none. */
  readonly settled: boolean;
  readonly loaded: boolean;
  /** Something could not even be kept in this browser. */
  readonly unkept: boolean;
  readonly current: ReadonlyMap<Position, Line>;
  readonly record: (position: Position, entry: string, why: string | null) => void;
  readonly change: (next: Partial<CircumstanceView>) => void;
  readonly discard: (id: string) => void;
}

/** The run on the bench: judged here at once, kept and sent in the background. */
export function useRun(view: RunView, by: string): Run {
  const [state, dispatch] = useReducer(reduce, view, initial);
  /**
   * Circumstances that state another temperature: other limits may hold then, and the server knows the shelf.
   */
  const warmed = useRef(new Set<string>());
  const reachable = useOutbox(view.id, dispatch, warmed);
  useColleagues(view, state, dispatch);
  const isOnDevice = useIsOnDevice();
  const { lines, current, inputs, judgement } = useJudged(view, state);

  const { instrumentId } = state.circumstance;
  const record = useCallback(
    (position: Position, entry: string, why: string | null) => {
      const supersedes = current.get(position)?.id ?? null;
      const body = { id: v7(), position, entry, supersedes, why, by, takenAt: new Date().toISOString() };
      dispatch({ type: 'fact', fact: { id: body.id, position, entry, supersedes, why, instrumentId } });
      keepOrSay({ runId: view.id, jobId: view.job.id, kind: 'reading', body }, dispatch);
    },
    [by, current, instrumentId, view.id, view.job.id],
  );
  const change = useCallback(
    (part: Partial<CircumstanceView>) => {
      const next = changedCircumstance(state.circumstance, part);
      const body = circumstanceBody(next, by);
      if (next.condition.partTemperature_degC !== state.circumstance.condition.partTemperature_degC)
        warmed.current.add(body.id);
      dispatch({ type: 'circumstance', circumstance: next });
      dispatch({ type: 'state', id: body.id, state: 'keeping' });
      keepOrSay({ runId: view.id, jobId: view.job.id, kind: 'circumstance', body }, dispatch);
    },
    [by, state.circumstance, view.id, view.job.id],
  );
  const discard = useCallback((id: string) => {
    dispatch({ type: 'drop', id });
    void drop(id);
  }, []);

  const states = [...state.saves.values()].map((s) => s.state);
  const waiting = states.filter((s) => s === 'keeping' || s === 'queued').length;
  const unkept = states.includes('not kept');
  const settled = isOnDevice ? !states.includes('keeping') && !unkept : waiting === 0;
  const { circumstance, loaded } = state;
  return {
    lines,
    circumstance,
    judgement,
    inputs,
    reachable,
    waiting,
    settled,
    loaded,
    unkept,
    current,
    record,
    change,
    discard,
  };
}

type Dispatch = (action: Action) => void;

/** What becomes of what waits in this browser. Answers whether there is a server. */
function useOutbox(runId: string, dispatch: Dispatch, warmed: RefObject<Set<string>>): boolean {
  const [reachable, setReachable] = useState(true);
  const router = useRouter();
  useEffect(() => {
    const queued = sayLater((id) => dispatch({ type: 'state', id, state: 'queued' }));
    const stop = onOutbox((event) => {
      if (event.type === 'kept') return queued.later(event.id);
      if (event.type === 'stored' || event.type === 'refused') queued.never(event.id);
      follow(event, dispatch, setReachable);
      if (event.type === 'stored' && warmed.current.delete(event.id)) router.refresh();
      // A refusal means that somebody else was here: their readings are needed to decide.
      if (event.type === 'refused') fetchColleagues(runId, dispatch);
    });
    return () => {
      stop();
      queued.end();
    };
  }, [runId, router, dispatch, warmed]);
  useEffect(() => {
    const load = (): void =>
      void readAll().then(
        ({ items, locked }) => {
          const own = items.filter((i) => i.kind !== 'request' && i.runId === runId);
          dispatch({ type: 'outbox', items: own, locked: locked.length > 0 });
          return flush(true);
        },
        () => dispatch({ type: 'outbox', items: [], locked: false }),
      );
    load();
    const stop = onOutbox((event) => {
      if (event.type === 'unlocked') load();
    });
    const online = () => void flush(true);
    window.addEventListener('online', online);
    return () => {
      stop();
      window.removeEventListener('online', online);
    };
  }, [runId, dispatch]);
  return reachable;
}

/**
 * A server that answers at once leaves nothing queued that anybody could see: the bench is not drawn for it.
 */
const SEEN_ms = 150;

/** Says of each id, a moment later, unless it has become untrue. */
function sayLater(say: (id: string) => void): {
  readonly later: (id: string) => void;
  readonly never: (id: string) => void;
  readonly end: () => void;
} {
  const timers = new Map<string, ReturnType<typeof setTimeout>>();
  const never = (id: string): void => {
    clearTimeout(timers.get(id));
    timers.delete(id);
  };
  const later = (id: string): void => {
    never(id);
    const timer = setTimeout(() => {
      timers.delete(id);
      say(id);
    }, SEEN_ms);
    timers.set(id, timer);
  };
  return { later, never, end: () => [...timers.keys()].forEach(never) };
}

/** What others write here appears as they write it; what stands here already is not fetched again. */
function useColleagues(view: RunView, state: State, dispatch: Dispatch): void {
  const router = useRouter();
  const known = useRef(state);
  useEffect(() => {
    known.current = state;
  });
  useLive(view.job.id, (heard) => {
    const { facts: here, saves: sent } = known.current;
    const foreign = heard.some(
      (h) => h.kind === 'reconnected' || (h.run === view.id && !sent.has(h.row) && !here.some((f) => f.id === h.row)),
    );
    if (heard.some((h) => h.kind === 'test_run')) router.refresh();
    if (foreign) fetchColleagues(view.id, dispatch);
  });
}

const fetchColleagues = (runId: string, dispatch: Dispatch): void =>
  void colleagues(runId).then((now) => {
    if (now) dispatch({ type: 'colleagues', view: now });
  });

/** The readings that count, and what they are judged to be. */
function useJudged(view: RunView, state: State): Pick<Run, 'lines' | 'current' | 'inputs' | 'judgement'> {
  const { facts, saves, circumstance } = state;
  const lines = useMemo(() => facts.map((f): Line => ({ ...f, ...(saves.get(f.id) ?? SAVED) })), [facts, saves]);
  const current = useMemo(
    () => new Map(currentReadings(lines.filter((l) => l.state !== 'refused')).map((l) => [l.position, l])),
    [lines],
  );
  // Judged again only when a reading has changed, not when one is saved.
  const counting = [...current.values()].map((l) => l.id).join();
  // oxlint-disable-next-line react/exhaustive-deps -- `counting` names exactly what `current` holds
  const stored = useMemo(() => countingReadings(facts.filter((f) => saves.get(f.id)?.state !== 'refused')), [counting]);
  const inputs = useMemo(
    (): RunInputs => ({
      definition: view.definition,
      engine: view.unit.engine,
      limits: view.specification.limits,
      decision: view.decision,
      circumstance,
      instruments: view.instruments,
      readings: stored,
    }),
    [view, circumstance, stored],
  );
  // As it was judged and stored, until something is read or stated here that the server has not judged.
  const asStored =
    counting === countingIds(view.readings) && sameContent(circumstance, view.circumstance) ? view.judgement : null;
  const judgement = useMemo(() => {
    if (asStored) return asStored;
    const judged = judgeRun(inputs);
    // What another version has stored may be more than this one can judge: it is shown, and the server says
    // why it takes no more.
    return judged.ok ? judged.value : view.judgement;
  }, [asStored, inputs, view.judgement]);
  return { lines, current, inputs, judgement };
}

/** Another meter has a zero of its own: the newest that was read with it here, or none. */
function changedCircumstance(before: CircumstanceView, part: Partial<CircumstanceView>): CircumstanceView {
  const changed = part.instrumentId !== undefined && part.instrumentId !== before.instrumentId;
  const own = changed && part.instrumentId ? (before.zeros[part.instrumentId] ?? null) : null;
  const keepsZero = before.instrumentId === null;
  return withZero(before, { ...before, ...(changed && !keepsZero ? { leadZero: own } : {}), ...part });
}

function circumstanceBody(c: CircumstanceView, by: string): RecordCircumstance {
  const { partTemperature_degC, note, engineSeen, commandSeen } = c.condition;
  return {
    id: v7(),
    by,
    recordedAt: new Date().toISOString(),
    instrumentId: c.instrumentId,
    leadZero: c.leadZero,
    states: [...c.states],
    condition: {
      ...(partTemperature_degC === undefined ? {} : { partTemperature_degC }),
      ...(note === undefined ? {} : { note }),
      ...(engineSeen === undefined ? {} : { engineSeen }),
      ...(commandSeen === undefined ? {} : { commandSeen }),
    },
  };
}

/** Keeps it in this browser and sends it; where the browser keeps nothing, that is said. */
const keepOrSay = (item: OutboxItem, dispatch: Dispatch): void =>
  void keep(item).catch(() => {
    dispatch({ type: 'state', id: idOf(item), state: 'not kept' });
  });

const countingIds = (readings: readonly ReadingView[]): string =>
  currentReadings(readings)
    .map((r) => r.id)
    .join();

const initial = (view: RunView): State => ({
  circumstance: view.circumstance,
  loaded: false,
  saves: new Map(),
  facts: view.readings.map(factOf),
});

const factOf = (r: ReadingView): Fact => ({
  id: r.id,
  position: r.position,
  entry: r.entry,
  supersedes: r.supersedes,
  why: r.why,
  instrumentId: r.instrumentId,
});

/** The run as the server has it now; `null` where it does not answer. */
async function colleagues(runId: string): Promise<RunView | null> {
  try {
    const response = await read(`/api/runs/${runId}`);
    return response.ok ? ((await response.json()) as RunView) : null;
  } catch {
    return null;
  }
}

function follow(event: OutboxEvent, dispatch: (a: Action) => void, setReachable: (r: boolean) => void): void {
  switch (event.type) {
    case 'stored':
      return dispatch({ type: 'state', id: event.id, state: 'saved' });
    case 'refused':
      return dispatch({ type: 'state', id: event.id, state: 'refused', problem: event.problem });
    case 'reached':
      return setReachable(true);
    case 'unreachable':
      return setReachable(false);
    case 'kept':
    case 'dropped':
    case 'waiting':
    case 'unlocked':
      return;
  }
}

import { tr } from '../../../core/locale/translate';
import { type RefObject, useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import {
  hearNothing,
  hearValue,
  type ListenAction,
  type ListenContext,
  type Listened,
  type ListenState,
  sayYes,
  startListening,
  takeBack,
} from '../../../application/listening/listen';
import type { ToneName } from '../../../application/listening/tones';
import { SPOKEN } from '../../../application/listening/words';
import type { RunView } from '../../../application/views';
import { SEVERITY, type Verdict } from '../../../core/foundation/vocabulary';
import type { Position } from '../../../core/judge/types';
import { verdictWord } from '../../../core/judge/words';
import { readEntry } from '../../../core/limits/entry';
import type { Quantity } from '../../../core/quantity/units';
import { type CloseFeed, type FeedNews, now_s, type Tell } from '../../instruments/feeds/feed';
import type { Run } from '../use-run';
import type { Targeting } from '../use-target';
import { contextOf } from './context';
import type { HearingSettings } from './settings';
import { playTone, speak } from './sound';

/** Whether nothing came for long is looked at so often. */
const TICK_ms = 500;

/** What the listening bench shows. */
export interface Listening {
  readonly state: ListenState;
  /** How the meter is reached: in words, and whether it is there. */
  readonly link: { readonly isThere: boolean; readonly words: string };
  /** What was read last, with its verdict once there is one. */
  readonly last: { readonly position: Position; readonly entry: string; readonly verdict: Verdict | null } | null;
  readonly yes: () => void;
  readonly takeBack: () => void;
}

interface Bench {
  readonly view: RunView;
  readonly run: Run;
  readonly targeting: Targeting;
  readonly order: readonly Position[];
  readonly clamp: number | null;
  readonly quantity: Quantity;
}

/**
 * Takes readings from a meter while it is mounted: settled values are recorded, the next position is framed,
 * all of it is said.
 */
export function useListening(
  bench: Bench,
  open: (tell: Tell) => CloseFeed | null,
  hearing: HearingSettings,
): Listening {
  const { run, targeting, view, clamp, quantity } = bench;
  const context = useMemo(
    () => contextOf(view, run, targeting.target, clamp, quantity),
    [view, run, targeting.target, clamp, quantity],
  );
  const [state, setState] = useState<ListenState>(() => startListening(now_s()));
  const [link, setLink] = useState<Listening['link']>({ isThere: false, words: 'Looking for the meter …' });
  const { last, await: awaitVerdict } = useVerdict(bench, hearing);
  const latest = useLatest({ bench, context, hearing, link });
  const machine = useRef(state);

  const perform = useCallback(
    (actions: readonly ListenAction[]) => {
      for (const action of actions) performOne(action, latest.current, awaitVerdict);
    },
    [latest, awaitVerdict],
  );
  const take = useCallback(
    (listened: Listened | null) => {
      if (!listened) return;
      machine.current = listened.state;
      setState(listened.state);
      perform(listened.actions);
    },
    [perform],
  );
  const news = useCallback(
    (heard: FeedNews) => {
      if (heard.kind === 'value') {
        if (!latest.current.link.isThere) setLink((l) => (l.isThere ? l : { ...l, isThere: true }));
        return take(hearValue(machine.current, heard.t_s, heard.value, latest.current.context));
      }
      const next = linkOf(heard);
      const was = latest.current.link;
      setLink((before) => (before.words === next.words && before.isThere === next.isThere ? before : next));
      const { hearing: how } = latest.current;
      if (was.isThere && !next.isThere && heard.kind === 'lost') say('lost', SPOKEN.lost, how);
      // What was touched meanwhile nobody knows.
      if (heard.kind === 'lost') take({ state: { ...machine.current, ...freshTouch() }, actions: [] });
    },
    [take, latest],
  );
  useEffect(() => open(news) ?? undefined, [open, news]);
  useEffect(() => {
    const timer = setInterval(() => take(hearNothing(machine.current, now_s())), TICK_ms);
    return () => clearInterval(timer);
  }, [take]);

  return {
    state,
    link,
    last,
    yes: () => take(sayYes(machine.current, latest.current.context)),
    takeBack: () => take(takeBack(machine.current)),
  };
}

/** The newest of something, for what happens between two paints. */
function useLatest<T>(value: T): RefObject<T> {
  const latest = useRef(value);
  useLayoutEffect(() => {
    latest.current = value;
  });
  return latest;
}

const freshTouch = () => {
  const { touch, shown, question } = startListening(now_s());
  return { touch, shown, question };
};

function linkOf(news: Exclude<FeedNews, { kind: 'value' }>): Listening['link'] {
  switch (news.kind) {
    case 'connecting':
      return { isThere: false, words: 'Looking for the meter …' };
    case 'connected':
      return { isThere: true, words: news.name === null ? 'The meter is there.' : tr`${news.name} is there.` };
    case 'lost':
    case 'complaint':
      return { isThere: false, words: news.why };
  }
}

function say(tone: ToneName, words: string | null, { tones, speech, volume }: HearingSettings): void {
  if (tones) playTone(tone, volume);
  if (speech && words !== null) speak(words, volume);
}

interface Now {
  readonly bench: Bench;
  readonly context: ListenContext;
  readonly hearing: HearingSettings;
}

function performOne(
  action: ListenAction,
  { bench: { run, targeting, view, clamp }, hearing }: Now,
  awaitVerdict: (position: Position, entry: string) => void,
): void {
  switch (action.do) {
    case 'record': {
      const { target, entry, isRepeat } = action;
      if (target.kind === 'lead-zero') {
        run.change({ leadZero: entry });
        targeting.pick('auto');
        return say('captured', SPOKEN.zero(entry), hearing);
      }
      const read = readEntry(entry, view.specification.limits, clamp);
      if (!read.ok) return say('question', read.error, hearing);
      run.record(target.position, entry, run.current.has(target.position) ? 'read again' : null);
      if (!isRepeat) targeting.goOn(target.position);
      awaitVerdict(target.position, entry);
      return say('captured', null, hearing);
    }
    case 'ask':
      return say('question', questionWords(action), hearing);
    case 'back':
      targeting.pick({ kind: 'position', position: action.position });
      return say('back', SPOKEN.back(action.position), hearing);
    case 'nothing-to-take-back':
      return say('question', SPOKEN.nothingToTakeBack, hearing);
    case 'silent':
      return say('lost', SPOKEN.silent, hearing);
  }
}

/** A question in words, for ear and eye. */
export function questionWords({
  question,
  position,
  entry,
}: Pick<Extract<ListenAction, { do: 'ask' }>, 'question' | 'position' | 'entry'>): string {
  switch (question) {
    case 'open':
      return SPOKEN.isOpen(position);
    case 'nothing':
      return SPOKEN.isNothing(position);
    case 'short':
      return SPOKEN.isShort(position);
    case 'again':
      return SPOKEN.again(position);
    case 'moved':
      return SPOKEN.moved(position, entry);
  }
}

const TONE_OF = (verdict: Verdict): ToneName => {
  if (verdict === 'open') return 'open';
  if (verdict === 'unsteady') return 'wanders';
  const severity = SEVERITY[verdict];
  return severity === 'pass' ? 'in' : severity === 'fail' ? 'out' : 'question';
};

/** Says the verdict of what was just read, when the judge has it. */
function useVerdict({ run, order, view }: Bench, hearing: HearingSettings) {
  const [last, setLast] = useState<Listening['last']>(null);
  const waited = useRef<{ position: Position; entry: string } | null>(null);
  const how = useLatest(hearing);
  const awaitVerdict = useCallback((position: Position, entry: string) => {
    waited.current = { position, entry };
    setLast({ position, entry, verdict: null });
  }, []);
  const { judgement, current } = run;
  useEffect(() => {
    const wanted = waited.current;
    if (!wanted || current.get(wanted.position)?.entry !== wanted.entry) return;
    const read = judgement.readings.find((r) => r.position === wanted.position);
    if (!read || read.verdict === 'not-measured') return;
    waited.current = null;
    setLast({ ...wanted, verdict: read.verdict });
    const isDone = order.every((p) => current.has(p));
    const words = SPOKEN.reading(wanted.position, wanted.entry, verdictWord(read.verdict, view.specification.limits));
    say(TONE_OF(read.verdict), isDone ? `${words} ${SPOKEN.done}` : words, how.current);
    if (isDone) setTimeout(() => say('done', null, how.current), 700);
  }, [judgement, current, order, view, how]);
  return { last, await: awaitVerdict };
}

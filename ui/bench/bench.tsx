'use client';
import { tr } from '../../core/locale/translate';
import dynamic from 'next/dynamic';
import { type RefObject, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { noteOf } from '../../application/posts/rows';
import type { RunView } from '../../application/views';
import type { Position } from '../../core/judge/types';
import { tellBenchFacts } from '../calculations/bench-facts';
import { bringIntoView } from '../kit/bring-into-view';
import { useOnClient } from '../kit/on-client';
import { useMay, usePerson } from '../kit/session';
import { PostRow } from '../posts/post-row';
import { Conclusions } from './conclusions';
import { EntryArea, type Sheet } from './entry-area';
import { Foot } from './foot';
import type { ListenKeys } from './listening/listening';
import { OtherVersion } from './other-version';
import { Refusals } from './refusals';
import { RunList } from './run-list';
import { proveMeter, statesAsked } from './states-asked';
import { StatesBar } from './states-bar';
import { type BenchLayout, useBenchLayout } from './use-bench-layout';
import { useEntry } from './use-entry';
import { type Line, type Run, useRun } from './use-run';
import { type Targeting, useTarget } from './use-target';

const Shortcuts = dynamic(() => import('./shortcuts').then((m) => m.Shortcuts));
const Override = dynamic(() => import('./override').then((m) => m.Override));
const ImportCsv = dynamic(() => import('./import-csv').then((m) => m.ImportCsv));
const Listening = dynamic(() => import('./listening/listening').then((m) => m.Listening));

/** The run on the bench: what is read next, what is typed, how it comes in and what lies over it. */
function useBench(view: RunView) {
  const run = useRun(view, usePerson());
  const [showsAll, setShowsAll] = useState(false);
  const layout = useBenchLayout(view, run.judgement, run.circumstance.instrumentId, showsAll);
  const [draft, setDraft] = useState('');
  const targeting = useTarget(run, layout.order, layout.zeroWanted, draft);
  const entry = useEntry(run, view.specification.limits, layout.clamp, targeting, [draft, setDraft]);
  const states = useMemo(
    () => statesAsked(view.definition.states, run.judgement, run.circumstance),
    [view.definition, run.judgement, run.circumstance],
  );
  const [sheet, setSheet] = useState<Sheet | null>(null);
  const hands = useHands();
  const input = useRef<HTMLInputElement>(null);
  useFocusOn(input, targeting.active);
  useBenchFacts(view, run, targeting.active);

  const picks = usePick(targeting, entry, input);
  const onMeterProven = useMeterProven(run);
  const showAll = useCallback(() => setShowsAll(true), []);
  return {
    run,
    layout,
    showAll,
    draft,
    setDraft,
    targeting,
    entry,
    states,
    sheet,
    setSheet,
    hands,
    input,
    picks,
    onMeterProven,
  };
}

type BenchState = ReturnType<typeof useBench>;

/** A test on the bench: posts in the engine's order, the entry bar below, what the readings say beside it. */
export function Bench({ view }: { view: RunView }) {
  const bench = useBench(view);
  const { run, layout, targeting, setSheet, hands } = bench;
  const { pick, pickPosition, pickZero } = bench.picks;
  const { isListening, toggleListening, pad } = hands;
  const isLead = useMay('run.override-state');
  const openOverride = useCallback(() => setSheet('override'), [setSheet]);

  return (
    // One row of a height that is known: an automatic one lays all posts out twice, whatever has changed.
    <main className="grid min-h-0 flex-1 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_19rem] lg:grid-rows-[minmax(0,1fr)] xl:grid-cols-[13rem_minmax(0,1fr)_19rem]">
      <RunList view={view} judgement={run.judgement} className="order-3 lg:hidden xl:order-none xl:block" />
      <div className="flex min-h-0 min-w-0 flex-col gap-2 p-3">
        <StatesBar
          states={bench.states}
          circumstance={run.circumstance}
          instruments={view.instruments}
          leads={view.testLeads}
          quantity={view.specification.limits.quantity}
          zeroWanted={layout.zeroWanted}
          onChange={run.change}
          onZero={pickZero}
          onOverride={isLead ? openOverride : null}
        />
        {view.definition.alternatives !== undefined && (
          <Alternatives view={view} shown={layout.order.length} onAll={bench.showAll} />
        )}
        <Posts view={view} run={run} layout={layout} active={targeting.active} onPick={pickPosition} />
        <OtherVersion view={view} />
        <RefusedReadings run={run} />
        {isListening && <FromMeter view={view} bench={bench} />}
        <EntryArea
          view={view}
          run={run}
          layout={layout}
          targeting={targeting}
          entry={bench.entry}
          draft={bench.draft}
          pad={pad}
          input={bench.input}
          pick={pick}
          onSheet={setSheet}
          onDraft={bench.setDraft}
          listenKeys={hands.listenKeys}
          onListen={toggleListening}
        />
        <Foot
          view={view}
          shown={shownLine(run, targeting.active)}
          waiting={run.waiting}
          unkept={run.unkept}
          loaded={run.loaded}
          reachable={run.reachable}
          padOpen={pad}
          isListening={isListening}
          onListen={toggleListening}
          onSheet={setSheet}
          onPad={hands.togglePad}
        />
      </div>
      <Conclusions
        view={view}
        judgement={run.judgement}
        inputs={run.inputs}
        active={targeting.active}
        target={targeting.target}
        isSaved={run.settled && run.loaded}
        onMeterProven={bench.onMeterProven}
      />
      <OpenSheet sheet={bench.sheet} view={view} run={run} onClose={() => setSheet(null)} />
    </main>
  );
}

function FromMeter({ view, bench: { run, targeting, layout, hands } }: { view: RunView; bench: BenchState }) {
  return (
    <Listening
      view={view}
      run={run}
      targeting={targeting}
      order={layout.order}
      clamp={layout.clamp}
      onKeys={hands.setListenKeys}
      onStop={hands.toggleListening}
    />
  );
}

/** How readings come in: typed, by the large keys, or from a meter that is listened to. */
function useHands() {
  const [isListening, setListening] = useState(false);
  const [wanted, setWanted] = useState<boolean | null>(null);
  // Who listens types nothing: the posts have the room, until the keys are asked for.
  const pad = isListening ? (wanted ?? false) : wanted;
  const listenKeys = useRef<ListenKeys | null>(null);
  const setListenKeys = useCallback((keys: ListenKeys | null) => {
    listenKeys.current = keys;
  }, []);
  const toggleListening = useCallback(() => setListening((on) => !on), []);
  const togglePad = useCallback(() => setWanted(pad === null ? !matchMedia('(pointer: coarse)').matches : !pad), [pad]);
  return { isListening, toggleListening, listenKeys, setListenKeys, pad, togglePad };
}

/** What lies over the bench, if anything. */
function OpenSheet({
  sheet,
  view,
  run,
  onClose,
}: {
  sheet: Sheet | null;
  view: RunView;
  run: Run;
  onClose: () => void;
}) {
  switch (sheet) {
    case 'shortcuts':
      return <Shortcuts onClose={onClose} />;
    case 'override':
      return (
        <Override
          runId={view.id}
          states={view.definition.states.filter((s) => !run.circumstance.states.includes(s.id))}
          onClose={onClose}
        />
      );
    case 'csv':
      return <ImportCsv runId={view.id} onClose={onClose} />;
    default:
      return null;
  }
}

/**
 * Picks a position and gives the field the focus; the posts and the bar above are not drawn again for each
 * key that is typed.
 */
function usePick(targeting: Targeting, entry: ReturnType<typeof useEntry>, input: RefObject<HTMLInputElement | null>) {
  const { pick: pickTarget } = targeting;
  const { clearError } = entry;
  const pick = (...next: Parameters<Targeting['pick']>): void => {
    pickTarget(...next);
    clearError();
    input.current?.focus();
  };
  const latest = useRef(pick);
  useEffect(() => {
    latest.current = pick;
  });
  const pickPosition = useCallback((position: Position) => latest.current({ kind: 'position', position }), []);
  const pickZero = useCallback(() => latest.current({ kind: 'lead-zero' }), []);
  return { pick, pickPosition, pickZero };
}

/** The same function for as long as the bench is there, however often the run changes. */
function useMeterProven(run: Run): () => void {
  const latest = useRef(run);
  useEffect(() => {
    latest.current = run;
  });
  return useCallback(() => proveMeter(latest.current), []);
}

/**
 * What the display of the meter shows now, as far as it was recorded: the framed position, else what was read
 * last.
 */
function shownLine(run: Run, active: Position | null): Line | null {
  const framed = active === null ? undefined : run.current.get(active);
  return framed ?? run.lines.findLast((l) => run.current.get(l.position)?.id === l.id) ?? null;
}

/** The field has the focus, and the framed post is in view. */
function useFocusOn(input: RefObject<HTMLInputElement | null>, active: Position | null): void {
  const alive = useOnClient();
  useEffect(() => {
    if (document.activeElement !== input.current) input.current?.focus({ preventScroll: true });
    if (active === null) return undefined;
    const post = document.querySelector(`[data-position="${CSS.escape(String(active))}"]`);
    return post ? bringIntoView(post) : undefined;
  }, [active, alive, input]);
}

/** Calculations can be filled from the bench. */
function useBenchFacts(view: RunView, run: Run, active: Position | null): void {
  const shown = active === null ? undefined : run.current.get(active)?.entry;
  const { leadZero, condition } = run.circumstance;
  useEffect(() => {
    const told = {
      reading: shown?.split('@')[0]?.trim(),
      'lead-zero': leadZero ?? undefined,
      'system-voltage': view.unit.engine.systemVoltage_V?.toString(),
      temperature: condition.partTemperature_degC?.toString(),
    };
    tellBenchFacts(Object.fromEntries(Object.entries(told).filter(([, v]) => v !== undefined)));
    return () => tellBenchFacts(null);
  }, [shown, leadZero, condition, view]);
}

/** Only one of the posts is there on this unit: which one is asked once. */
function Alternatives({ view, shown, onAll }: { view: RunView; shown: number; onAll: () => void }) {
  const { alternatives, positions } = view.definition;
  return (
    <p className="text-sm text-soft">
      {shown < positions.length ? (
        <button type="button" className="min-h-11 underline" onClick={onAll}>
          Another one is fitted
        </button>
      ) : (
        tr`${alternatives} Read that one only.`
      )}
    </p>
  );
}

function Posts({
  view,
  run,
  layout: { rows, readings, scale },
  active,
  onPick,
}: {
  view: RunView;
  run: Run;
  layout: BenchLayout;
  active: Position | null;
  onPick: (position: Position) => void;
}) {
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-2 overflow-x-auto">
      {rows.map((r, i) => (
        <PostRow
          key={r.title}
          title={r.title}
          note={noteOf(view.unit.engine, i, rows.length, view.definition)}
          positions={r.positions}
          readings={readings}
          limits={view.specification.limits}
          scale={scale}
          active={active}
          onPick={onPick}
          saved={(p) => run.current.get(p)?.state ?? null}
        />
      ))}
    </div>
  );
}

const RefusedReadings = ({ run }: { run: Run }) => (
  <Refusals
    lines={run.lines}
    onDiscard={run.discard}
    onSend={(l) => {
      run.discard(l.id);
      run.record(l.position, l.entry, 'read again by a second person');
    }}
  />
);

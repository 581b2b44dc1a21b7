'use client';
import dynamic from 'next/dynamic';
import { type KeyboardEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { leadZeroMatters } from '../../core/judge/measure';
import type { Position } from '../../core/judge/types';
import { findSlip } from '../../core/judge/slip';
import { readEntry } from '../../core/limits/entry';
import { findUnit, toBase } from '../../core/quantity/units';
import { unitValue } from '../../core/quantity/values';
import { readClampZero, readLeadZero } from '../../formats/instrument';
import type { RunView } from '../../application/views';
import { useOnClient } from '../kit/on-client';
import { usePerson, useMay } from '../kit/session';
import { PostRow } from '../posts/post-row';
import { noteOf, rowsOf } from '../../application/posts/rows';
import { scaleFor } from '../../application/posts/scale';
import { EntryBar } from './entry-bar';
import { Foot } from './foot';
import { Pad } from './pad';
import { OtherVersion } from './other-version';
import { Refusals } from './refusals';
import { Conclusions } from './conclusions';
import { meantEntry, type SlipAsked, SlipQuestion } from './slip-question';
import { StatesBar } from './states-bar';
import { tellBenchFacts } from '../calculations/bench-facts';
import type { Target } from './target';
import { RunList } from './run-list';
import { useRun } from './use-run';

const Shortcuts = dynamic(() => import('./shortcuts').then((m) => m.Shortcuts));
const Override = dynamic(() => import('./override').then((m) => m.Override));
const ImportCsv = dynamic(() => import('./import-csv').then((m) => m.ImportCsv));

export function Bench({ view }: { view: RunView }) {
  const by = usePerson();
  const isLead = useMay('run.override-state');
  const run = useRun(view, by);
  const { current: standing } = run;
  const { definition: test } = view;
  const { limits } = view.specification;
  const rows = useMemo(() => rowsOf(view.unit.engine, test), [view, test]);
  const order = useMemo(() => rows.flatMap((r) => r.positions), [rows]);
  const readings = useMemo(() => new Map(run.judgement.readings.map((r) => [r.position, r])), [run.judgement]);
  const bare = limits.lower === undefined && limits.upper === undefined;
  const scale = useMemo(
    () =>
      scaleFor(limits, bare ? run.judgement.readings.flatMap((r) => (r.corrected === null ? [] : [r.corrected])) : []),
    [limits, bare, run.judgement],
  );
  const meter = view.instruments.find((i) => i.id === run.circumstance.instrumentId);
  const clamp = limits.quantity === 'current' ? (meter?.clamp_mVperA ?? null) : null;
  const zeroWanted = useMemo(
    () => clamp !== null || leadZeroMatters(limits, ohmsPerUnit(limits.unit)),
    [clamp, limits],
  );
  const [picked, setPicked] = useState<Target | 'auto'>('auto');
  /** The reading that stood at the picked position when it was picked. */
  const [seen, setSeen] = useState<{ position: Position; id: string | null } | null>(null);
  const [zeroSkipped, setZeroSkipped] = useState(false);
  const [draft, setDraft] = useState('');
  const [error, setError] = useState<string | null>(null);
  const [why, setWhy] = useState('misread');
  const [slip, setSlip] = useState<SlipAsked | null>(null);
  const [sheet, setSheet] = useState<'shortcuts' | 'csv' | 'override' | null>(null);
  const alive = useOnClient();
  const [pad, setPad] = useState<boolean | null>(null);
  const input = useRef<HTMLInputElement>(null);

  const firstFree = order.find((p) => !run.current.has(p));
  const automatic: Target =
    zeroWanted && run.circumstance.leadZero === null && !zeroSkipped && run.current.size === 0
      ? { kind: 'lead-zero' }
      : firstFree === undefined
        ? null
        : { kind: 'position', position: firstFree };
  // Somebody else has read the position meanwhile: nothing typed yet, so go on to the next; something typed, so ask.
  const taken =
    seen !== null &&
    picked !== 'auto' &&
    picked?.kind === 'position' &&
    picked.position === seen.position &&
    (run.current.get(seen.position)?.id ?? null) !== seen.id
      ? run.current.get(seen.position)
      : undefined;
  const target = picked === 'auto' || (taken && draft === '') ? automatic : picked;
  const active = target?.kind === 'position' ? target.position : null;
  const observing = limits.quantity === 'observation';

  useEffect(() => {
    input.current?.focus({ preventScroll: true });
    // On a phone the page scrolls and the entry bar covers its lower half.
    if (active !== null)
      document.querySelector(`[data-position="${CSS.escape(String(active))}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [active, alive]);

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

  const pick = useCallback(
    (next: Target | 'auto'): void => {
      setPicked(next);
      setSeen(
        next !== 'auto' && next?.kind === 'position'
          ? { position: next.position, id: standing.get(next.position)?.id ?? null }
          : null,
      );
      setError(null);
      setSlip(null);
      input.current?.focus();
    },
    [standing],
  );
  const pickPosition = useCallback((position: Position) => pick({ kind: 'position', position }), [pick]);
  const openOverride = useCallback(() => setSheet('override'), []);
  const pickZero = useCallback(() => pick({ kind: 'lead-zero' }), [pick]);

  function step(by: 1 | -1): void {
    const at = active === null ? (by === 1 ? -1 : order.length) : order.indexOf(active);
    const next = order[(at + by + order.length) % order.length];
    if (next !== undefined) pick({ kind: 'position', position: next });
  }

  function submit(): void {
    const entry = draft.trim();
    if (target === null) return setError('All positions are read. Choose one with the arrow keys to correct it.');
    if (taken) {
      setSeen({ position: taken.position, id: taken.id });
      return setError(
        `${taken.entry} was read here by somebody else meanwhile. Enter again sends yours as a correction of it; Esc leaves theirs.`,
      );
    }
    if (entry === '') return setError('Type what the display shows, OL where it shows overload.');
    const problem = target.kind === 'lead-zero' ? recordZero(entry) : recordReading(target.position, entry);
    setError(problem);
    if (problem === null) setDraft('');
    if (problem === ASKED) setError(null);
    input.current?.focus();
  }

  function recordZero(entry: string): string | null {
    const zero = clamp === null ? readLeadZero(entry) : readClampZero(entry, clamp);
    if (!zero.ok) return zero.error;
    run.change({ leadZero: entry });
    setPicked('auto');
    return null;
  }

  function recordReading(position: Position, entry: string): string | null {
    const read = readEntry(entry, limits, clamp);
    if (!read.ok) return read.error;
    if (read.value.entry.kind === 'nothing') return 'Type what the display shows, OL where it shows overload.';
    const slipped = findSlip(entry, position, limits, run.judgement.readings);
    if (slipped && !(slip?.position === position && slip.entry === entry)) {
      setSlip({ position, entry, slip: slipped });
      return ASKED;
    }
    setSlip(null);
    const correction = run.current.has(position);
    run.record(position, entry, correction ? why : null);
    const at = order.indexOf(position);
    const following = [...order.slice(at + 1), ...order.slice(0, at)].find((p) => !run.current.has(p));
    setPicked(following === undefined ? null : { kind: 'position', position: following });
    setSeen(following === undefined ? null : { position: following, id: null });
    return null;
  }

  function takeMeant(): void {
    if (!slip) return;
    const problem = recordReading(slip.position, meantEntry(slip, limits));
    setError(problem);
    if (problem === null) setDraft('');
  }

  function type(text: string): void {
    // What is typed belongs to the position that was active when the typing began.
    if (picked === 'auto' && draft === '' && target?.kind === 'position') {
      setPicked(target);
      setSeen({ position: target.position, id: run.current.get(target.position)?.id ?? null });
    }
    setError(null);
    setSlip(null);
    if (observing) return setDraft(text);
    // One letter is enough for the overload, whoever types it out gets it all the same; a w for the wander that few
    // keyboards have a good key for.
    setDraft(/^(o|OL(l|p|pe|pen))$/i.test(text) ? 'OL' : text.replace(/w/i, '~'));
  }

  /** A key that says all there is to say, where there is nothing to measure. */
  function pressSeen(key: 'pass' | 'fail'): void {
    if (active === null) return;
    setError(recordReading(active, `${key} ${draft}`.trim()));
    setDraft('');
  }

  function press(key: string): void {
    if (key === 'pass' || key === 'fail') return pressSeen(key);
    if (key === 'Enter') return submit();
    if (key === 'back') return type(draft.slice(0, -1));
    type(key === 'OL' ? 'OL' : draft + key);
    input.current?.focus();
  }

  function onKey(e: KeyboardEvent): void {
    const plain = !e.ctrlKey && !e.metaKey && !e.altKey;
    const empty = draft === '';
    const actions: Record<string, (() => void) | undefined> = {
      ArrowDown: () => step(1),
      ArrowUp: () => step(-1),
      ArrowRight: empty ? () => step(1) : undefined,
      ArrowLeft: empty ? () => step(-1) : undefined,
      Escape: () => {
        setDraft('');
        pick('auto');
      },
      '?': () => setSheet('shortcuts'),
      z: empty && (zeroWanted || limits.quantity === 'resistance') ? pickZero : undefined,
    };
    const action = plain ? actions[e.key] : undefined;
    if (!action) return;
    e.preventDefault();
    action();
  }

  const line = active === null ? undefined : run.current.get(active);
  return (
    <main className="grid min-h-0 flex-1 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_19rem] xl:grid-cols-[13rem_minmax(0,1fr)_19rem]">
      <RunList view={view} judgement={run.judgement} className="order-3 lg:hidden xl:order-none xl:block" />
      <div className="flex min-h-0 min-w-0 flex-col gap-2 p-3">
        <StatesBar
          states={test.states}
          circumstance={run.circumstance}
          instruments={view.instruments}
          leads={view.testLeads}
          quantity={limits.quantity}
          zeroWanted={zeroWanted}
          onChange={run.change}
          onZero={pickZero}
          onOverride={isLead ? openOverride : null}
        />
        <div className="flex min-h-0 flex-1 flex-col gap-2 overflow-x-auto">
          {rows.map((r, i) => (
            <PostRow
              key={r.title}
              title={r.title}
              note={noteOf(view.unit.engine, i, rows.length, test)}
              positions={r.positions}
              readings={readings}
              limits={limits}
              scale={scale}
              active={active}
              onPick={pickPosition}
              saved={(p) => run.current.get(p)?.state ?? null}
            />
          ))}
        </div>
        <OtherVersion view={view} />
        <Refusals
          lines={run.lines}
          onDiscard={run.discard}
          onSend={(l) => {
            run.discard(l.id);
            run.record(l.position, l.entry, 'read again by a second person');
          }}
        />
        <div className="sticky bottom-0 z-10 -mx-3 flex flex-col gap-2 bg-ground px-3 py-1 lg:static">
          {slip && <SlipQuestion asked={slip} limits={limits} onMeant={takeMeant} />}
          <EntryBar
            ref={input}
            target={target}
            draft={draft}
            error={error}
            unit={limits.unit}
            correcting={line}
            why={why}
            limits={limits}
            onWhy={(reason) => {
              setWhy(reason);
              input.current?.focus();
            }}
            onType={type}
            onKey={onKey}
            onSubmit={submit}
            onPress={press}
            onSkipZero={() => {
              setZeroSkipped(true);
              setPicked('auto');
            }}
          />
          <Pad open={pad} seen={observing} onPress={press} />
        </div>
        <Foot
          runId={view.id}
          waiting={run.waiting}
          unkept={run.unkept}
          loaded={run.loaded}
          reachable={run.reachable}
          padOpen={pad}
          onSheet={setSheet}
          onPad={() => setPad(pad === null ? !matchMedia('(pointer: coarse)').matches : !pad)}
        />
      </div>
      <Conclusions view={view} judgement={run.judgement} inputs={run.inputs} active={active} target={target} />
      {sheet === 'shortcuts' && <Shortcuts onClose={() => setSheet(null)} />}
      {sheet === 'override' && (
        <Override
          runId={view.id}
          states={test.states.filter((s) => !run.circumstance.states.includes(s.id))}
          onClose={() => setSheet(null)}
        />
      )}
      {sheet === 'csv' && <ImportCsv runId={view.id} onClose={() => setSheet(null)} />}
    </main>
  );
}

/** Not an error at the field: a question stands beside it. */
const ASKED = 'asked';

function ohmsPerUnit(symbol: string): number {
  const unit = findUnit(symbol);
  return unit ? toBase(unitValue(1), unit) : 1;
}

'use client';
import dynamic from 'next/dynamic';
import { type KeyboardEvent, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { findTest } from '../../core/catalogue/catalogue';
import type { RequiredState } from '../../core/catalogue/types';
import { leadZeroMatters } from '../../core/judge/measure';
import type { Position } from '../../core/judge/types';
import { parseEntry } from '../../core/quantity/entry';
import { findUnit, toBase } from '../../core/quantity/units';
import { readLeadZero } from '../../formats/instrument';
import type { PersonView, RunView } from '../../formats/views';
import { useOnClient } from '../kit/on-client';
import { usePerson } from '../kit/person';
import { PostRow } from '../posts/post-row';
import { noteOf, rowsOf } from '../posts/rows';
import { scaleFor } from '../posts/scale';
import { EntryBar } from './entry-bar';
import { Foot } from './foot';
import { Pad } from './pad';
import { Refusals } from './refusals';
import { Says } from './says';
import { StatesBar } from './states-bar';
import type { Target } from './target';
import { Trail } from './trail';
import { useRun } from './use-run';

const Shortcuts = dynamic(() => import('./shortcuts').then((m) => m.Shortcuts));
const ImportCsv = dynamic(() => import('./import-csv').then((m) => m.ImportCsv));

const NO_STATES: readonly RequiredState[] = [];

export function Bench({ view, persons }: { view: RunView; persons: readonly PersonView[] }) {
  const by = usePerson(persons.map((p) => p.name));
  const run = useRun(view, by);
  const test = findTest(view.test);
  const { limits } = view.specification;
  const rows = useMemo(() => rowsOf(view.unit.engine, test), [view, test]);
  const order = useMemo(() => rows.flatMap((r) => r.positions), [rows]);
  const scale = useMemo(() => scaleFor(limits), [limits]);
  const readings = useMemo(() => new Map(run.judgement.readings.map((r) => [r.position, r])), [run.judgement]);

  const zeroWanted = useMemo(() => leadZeroMatters(limits, ohmsPerUnit(limits.unit)), [limits]);
  const [picked, setPicked] = useState<Target | 'auto'>('auto');
  const [zeroSkipped, setZeroSkipped] = useState(false);
  const [draft, setDraft] = useState('');
  const [error, setError] = useState<string | null>(null);
  const [why, setWhy] = useState('misread');
  const [sheet, setSheet] = useState<'shortcuts' | 'csv' | null>(null);
  const alive = useOnClient();
  const [pad, setPad] = useState<boolean | null>(null);
  const input = useRef<HTMLInputElement>(null);

  const firstFree = order.find((p) => !run.current.has(p));
  const automatic: Target = zeroWanted && run.circumstance.leadZero === null && !zeroSkipped && run.current.size === 0
    ? { kind: 'lead-zero' } : firstFree === undefined ? null : { kind: 'position', position: firstFree };
  const target = picked === 'auto' ? automatic : picked;
  const active = target?.kind === 'position' ? target.position : null;

  useEffect(() => {
    input.current?.focus({ preventScroll: true });
    // On a phone the page scrolls and the entry bar covers its lower half.
    if (active !== null) document.querySelector(`[data-position="${CSS.escape(String(active))}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [active, alive]);

  const pick = useCallback((next: Target | 'auto'): void => {
    setPicked(next);
    setError(null);
    input.current?.focus();
  }, []);
  const pickPosition = useCallback((position: Position) => pick({ kind: 'position', position }), [pick]);
  const pickZero = useCallback(() => pick({ kind: 'lead-zero' }), [pick]);

  function step(by: 1 | -1): void {
    const at = active === null ? (by === 1 ? -1 : order.length) : order.indexOf(active);
    const next = order[(at + by + order.length) % order.length];
    if (next !== undefined) pick({ kind: 'position', position: next });
  }

  function submit(): void {
    const entry = draft.trim();
    if (target === null) return setError('All positions are read. Choose one with the arrow keys to correct it.');
    if (entry === '') return setError('Type what the display shows, OL where it shows overload.');
    const problem = target.kind === 'lead-zero' ? recordZero(entry) : recordReading(target.position, entry);
    setError(problem);
    if (problem === null) setDraft('');
    input.current?.focus();
  }

  function recordZero(entry: string): string | null {
    const zero = readLeadZero(entry);
    if (!zero.ok) return zero.error;
    run.change({ leadZero: entry });
    setPicked('auto');
    return null;
  }

  function recordReading(position: Position, entry: string): string | null {
    const parsed = parseEntry(entry, limits.quantity);
    if (!parsed.ok) return parsed.error;
    if (parsed.value.kind === 'nothing') return 'Type what the display shows, OL where it shows overload.';
    const correction = run.current.has(position);
    run.record(position, entry, correction ? why : null);
    const at = order.indexOf(position);
    const following = [...order.slice(at + 1), ...order.slice(0, at)].find((p) => !run.current.has(p));
    setPicked(following === undefined ? null : { kind: 'position', position: following });
    return null;
  }

  function type(text: string): void {
    setError(null);
    // One letter is enough for the overload, whoever types it out gets it all the same; a w for the wander that few
    // keyboards have a good key for.
    setDraft(/^(o|OL(l|p|pe|pen))$/i.test(text) ? 'OL' : text.replace(/w/i, '~'));
  }

  function press(key: string): void {
    if (key === 'Enter') return submit();
    if (key === 'back') return type(draft.slice(0, -1));
    type(key === 'OL' ? 'OL' : draft + key);
    input.current?.focus();
  }

  function onKey(e: KeyboardEvent): void {
    const plain = !e.ctrlKey && !e.metaKey && !e.altKey;
    const empty = draft === '';
    const actions: Record<string, (() => void) | undefined> = {
      ArrowDown: () => step(1), ArrowUp: () => step(-1),
      ArrowRight: empty ? () => step(1) : undefined, ArrowLeft: empty ? () => step(-1) : undefined,
      Escape: () => { setDraft(''); pick('auto'); },
      '?': () => setSheet('shortcuts'),
      z: empty ? pickZero : undefined,
    };
    const action = plain ? actions[e.key] : undefined;
    if (!action) return;
    e.preventDefault();
    action();
  }

  const line = active === null ? undefined : run.current.get(active);
  return (
    <main className="grid min-h-0 flex-1 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_19rem] xl:grid-cols-[13rem_minmax(0,1fr)_19rem]">
      <Trail view={view} judgement={run.judgement} className="order-3 lg:hidden xl:order-none xl:block" />
      <div className="flex min-h-0 min-w-0 flex-col gap-2 p-3">
        <StatesBar states={test?.states ?? NO_STATES} circumstance={run.circumstance} instruments={view.instruments} zeroWanted={zeroWanted}
          onChange={run.change} onZero={pickZero} />
        <div className="flex min-h-0 flex-1 flex-col gap-2 overflow-x-auto">
          {rows.map((r, i) => (
            <PostRow key={r.title} title={r.title} note={noteOf(view.unit.engine, i, rows.length, test)}
              positions={r.positions} readings={readings} limits={limits} scale={scale} active={active}
              onPick={pickPosition} saved={(p) => run.current.get(p)?.state ?? null} />
          ))}
        </div>
        <Refusals lines={run.lines} onDiscard={run.discard} onSend={(l) => { run.discard(l.id); run.record(l.position, l.entry, 'read again by a second person'); }} />
        <div className="sticky bottom-0 z-10 -mx-3 flex flex-col gap-2 bg-ground px-3 py-1 lg:static">
          <EntryBar ref={input} target={target} draft={draft} error={error} unit={limits.unit} correcting={line} why={why} limits={limits}
            onWhy={(reason) => { setWhy(reason); input.current?.focus(); }} onType={type} onKey={onKey} onSubmit={submit} onPress={press}
            onSkipZero={() => { setZeroSkipped(true); setPicked('auto'); }} />
          <Pad open={pad} onPress={press} />
        </div>
        <Foot runId={view.id} waiting={run.waiting} unkept={run.unkept} loaded={run.loaded} reachable={run.reachable} padOpen={pad} onSheet={setSheet}
          onPad={() => setPad(pad === null ? !matchMedia('(pointer: coarse)').matches : !pad)} />
      </div>
      <Says view={view} judgement={run.judgement} test={test} active={active} target={target} />
      {sheet === 'shortcuts' && <Shortcuts onClose={() => setSheet(null)} />}
      {sheet === 'csv' && <ImportCsv runId={view.id} by={by} onClose={() => setSheet(null)} />}
    </main>
  );
}

function ohmsPerUnit(symbol: string): number {
  const unit = findUnit(symbol);
  return unit ? toBase(1, unit) : 1;
}

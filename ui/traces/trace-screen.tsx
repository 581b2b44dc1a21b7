'use client';
import { tr } from '../../core/locale/translate';
import { Link } from '../kit/link';
import { useRouter } from '../kit/router';
import { type PointerEvent, useEffect, useMemo, useRef, useState, type WheelEvent } from 'react';
import type { CaptureBehind, TraceView } from '../../application/views';
import type { Finding } from '../../core/signal/types';
import type { Shown } from '../../core/numerics/rare-events';
import { moment } from '../../core/signal/words';
import { useLive } from '../kit/live';
import { CycleView } from './cycle-view';
import { DecideDialog } from './decide-dialog';
import { FindingList } from './finding-list';
import { listedFindings } from './finding-words';
import { LaneReadings } from './lane-readings';
import { MarkDialog } from './mark-dialog';
import { around, shifted, useChart, zoomed } from './use-chart';
import { useTraceKeys } from './use-trace-keys';

interface Props {
  readonly trace: TraceView;
  readonly isClosed: boolean;
  readonly timeZone: string;
  readonly shown: Shown | undefined;
  /** Captures that this one can be laid over, the best first. */
  readonly ghosts: readonly CaptureBehind[];
}

/** The lanes of a recording and where one looks at them: window, cursor, the finding that is shown. */
function useLanes(trace: TraceView) {
  const findings = useMemo(() => listedFindings(trace), [trace]);
  const [selected, setSelected] = useState<Finding | null>(null);
  const [cursor_s, setCursor] = useState<number | null>(null);
  const [large, setLarge] = useState<number | null>(null);
  const element = useRef<HTMLDivElement>(null);
  const marks = useMemo(() => trace.notes.filter((n) => n.body.kind === 'mark'), [trace]);
  const events = useMemo(() => trace.head.search.events ?? [], [trace]);
  const marked = useMemo(
    () => ({ findings, selected, marks: marks.map((m) => m.body), cursor_s, large, events }),
    [findings, selected, marks, cursor_s, large, events],
  );
  const { data, failed, window_s, move, at } = useChart(trace, element, marked);

  function show(f: Finding): void {
    setSelected(f);
    setCursor((f.from_s + Math.min(f.to_s, f.from_s + 1)) / 2);
    move(() => around(f.from_s, Math.min(f.to_s, f.from_s + 600)));
  }
  function step(by: 1 | -1): void {
    const timed = [...findings].sort((a, b) => a.from_s - b.from_s);
    const here = selected ? timed.indexOf(selected) : by > 0 ? -1 : timed.length;
    const next = timed[(here + by + timed.length) % Math.max(1, timed.length)];
    if (next) show(next);
  }
  const zoom = (share: number): void => move((w) => zoomed(w, cursor_s ?? (w.from_s + w.to_s) / 2, share));
  const whole = (): void => move((_, all) => all);
  /** Where a mark would be set; `null`: nothing is drawn yet. */
  const here_s = window_s && (cursor_s ?? (window_s.from_s + window_s.to_s) / 2);
  return {
    findings,
    selected,
    cursor_s,
    setCursor,
    large,
    setLarge,
    element,
    data,
    failed,
    window_s,
    move,
    at,
    show,
    step,
    zoom,
    whole,
    here_s,
  };
}

/** A recording: its lanes over one time, all of it in a strip, and what was found in words. */
export function TraceScreen({ trace, isClosed, timeZone, shown, ghosts }: Props) {
  const router = useRouter();
  useLive(trace.jobId, () => router.refresh());
  const lanes = useLanes(trace);
  const { findings, cursor_s, setCursor, large, setLarge, data, failed, move, here_s } = lanes;
  const [deciding, setDeciding] = useState<Finding | 'nothing' | null>(null);
  const [isOverAngle, setOverAngle] = useState(trace.head.capture !== undefined);
  const [marking, setMarking] = useState<number | null>(null);
  const onMark = isClosed || here_s === null ? null : () => setMarking(here_s);
  useTraceKeys({
    isOn: deciding === null && marking === null,
    shift: (share) => move((w) => shifted(w, share)),
    zoom: lanes.zoom,
    whole: lanes.whole,
    step: lanes.step,
    mark: () => onMark?.(),
    lane: (n) => setLarge((now) => (now === n || n >= trace.head.channels.length ? null : n)),
  });

  return (
    <main className="flex min-h-0 flex-1 flex-col lg:flex-row">
      <section className="flex min-h-[22rem] min-w-0 flex-1 flex-col p-3" aria-label="Lanes">
        <Heading trace={trace} window_s={lanes.window_s} />
        {trace.head.capture && <AngleOrTime isOverAngle={isOverAngle} onChange={setOverAngle} />}
        {isOverAngle && trace.head.capture && <CycleView trace={trace} ghosts={ghosts} isClosed={isClosed} />}
        <WhatIsMissing failed={failed} missing={trace.missing.length} />
        <div className={isOverAngle ? 'hidden' : 'contents'}>
          <LaneReadings trace={trace} data={data} cursor_s={cursor_s} large={large} onLarge={setLarge} />
          <Surface
            element={lanes.element}
            at={lanes.at}
            move={move}
            onCursor={setCursor}
            label={sentence(trace)}
            isReady={data !== null}
          />
          <Tools
            onStep={lanes.step}
            onZoom={lanes.zoom}
            onWhole={lanes.whole}
            onMark={onMark}
            hasFindings={findings.length > 0}
          />
        </div>
      </section>
      <FindingList
        trace={trace}
        findings={findings}
        selected={lanes.selected}
        timeZone={timeZone}
        shown={shown}
        onShow={lanes.show}
        onMark={(m) => {
          setCursor(m.from_s);
          move(() => around(m.from_s, m.to_s));
        }}
        onEvent={(e) => {
          setCursor(e.from_s);
          move(() => around(e.from_s, Math.min(e.to_s, e.from_s + 5)));
        }}
        onDecide={isClosed ? null : setDeciding}
      />
      {deciding !== null && <DecideDialog trace={trace} of={deciding} onClose={() => setDeciding(null)} />}
      {marking !== null && <MarkDialog trace={trace} at_s={marking} onClose={() => setMarking(null)} />}
    </main>
  );
}

function Heading({ trace, window_s }: Pick<Props, 'trace'> & { window_s: ReturnType<typeof useLanes>['window_s'] }) {
  return (
    <div className="flex flex-wrap items-baseline gap-x-4">
      <h2 className="text-xl font-bold">{trace.name}</h2>
      <Link href={`/jobs/${trace.jobId}/traces`} className="underline">
        Recordings of the job
      </Link>
      <span className="ml-auto font-mono text-sm text-soft">
        {window_s ? tr`${moment(window_s.from_s)} to ${moment(window_s.to_s)}` : ''}
      </span>
    </div>
  );
}

/** What did not arrive, of a recording that is shown all the same. */
function WhatIsMissing({ failed, missing }: { failed: string | null; missing: number }) {
  return (
    <>
      {failed !== null && (
        <p role="alert" className="mt-2 font-semibold text-rust">
          The samples did not arrive: {failed} Reload the page.
        </p>
      )}
      {missing > 0 && (
        <p className="mt-2 font-semibold text-ochre">
          {missing} blocks have not arrived: what is missing looks like a gap here.
        </p>
      )}
    </>
  );
}

function AngleOrTime({ isOverAngle, onChange }: { isOverAngle: boolean; onChange: (isOverAngle: boolean) => void }) {
  return (
    <div className="mt-1 flex gap-2" role="group" aria-label="Look at it">
      {([true, false] as const).map((angle) => (
        <button
          key={String(angle)}
          type="button"
          aria-pressed={isOverAngle === angle}
          onClick={() => onChange(angle)}
          className={`min-h-12 rounded-lg border-2 bg-card px-4 ${isOverAngle === angle ? 'border-estuary font-bold' : 'border-line'}`}
        >
          {angle ? 'Over crank angle' : 'Over time'}
        </button>
      ))}
    </div>
  );
}

const sentence = (trace: TraceView): string =>
  tr`${trace.head.channels.length} lanes: ${trace.head.channels.map((c) => tr`${c.name} in ${c.unit}`).join(', ')}. ${trace.head.search.summary}`;

interface SurfaceProps {
  readonly element: React.RefObject<HTMLDivElement | null>;
  readonly at: (x: number, y: number) => { readonly t_s: number; readonly onStrip: boolean } | null;
  readonly move: ReturnType<typeof useChart>['move'];
  readonly onCursor: (t_s: number | null) => void;
  readonly label: string;
  readonly isReady: boolean;
}

/** Where the lanes are drawn: the wheel zooms about the pointer, dragging moves, the strip is gone to. */
function Surface({ element, at, move, onCursor, label, isReady }: SurfaceProps) {
  const pointers = useRef(new Map<number, number>());
  const spread = useRef(0);
  const place = (e: { clientX: number; clientY: number }): ReturnType<typeof at> => {
    const box = element.current?.getBoundingClientRect();
    return box ? at(e.clientX - box.left, e.clientY - box.top) : null;
  };
  // React listens to the wheel passively: the page would scroll along.
  useEffect(() => {
    const here = element.current;
    const hold = (e: Event): void => e.preventDefault();
    here?.addEventListener('wheel', hold, { passive: false });
    return () => here?.removeEventListener('wheel', hold);
  }, [element]);
  function onWheel(e: WheelEvent): void {
    const p = place(e);
    if (!p || p.onStrip) return;
    if (e.shiftKey || Math.abs(e.deltaX) > Math.abs(e.deltaY)) move((w) => shifted(w, (e.deltaX || e.deltaY) / 1500));
    else move((w) => zoomed(w, p.t_s, 1.0015 ** Math.max(-400, Math.min(400, e.deltaY))));
  }
  function onPointerDown(e: PointerEvent<HTMLDivElement>): void {
    const p = place(e);
    if (!p) return;
    if (p.onStrip)
      return move((w) => ({ from_s: p.t_s - (w.to_s - w.from_s) / 2, to_s: p.t_s + (w.to_s - w.from_s) / 2 }));
    e.currentTarget.setPointerCapture(e.pointerId);
    pointers.current.set(e.pointerId, e.clientX);
    spread.current = 0;
    onCursor(p.t_s);
  }
  function onPointerMove(e: PointerEvent<HTMLDivElement>): void {
    const before = pointers.current.get(e.pointerId);
    const p = place(e);
    if (before === undefined || !p) {
      if (p && !p.onStrip && e.pointerType === 'mouse') onCursor(p.t_s);
      return;
    }
    const width = Math.max(1, e.currentTarget.clientWidth);
    pointers.current.set(e.pointerId, e.clientX);
    const xs = [...pointers.current.values()];
    if (xs.length === 2) {
      const now = Math.abs((xs[0] ?? 0) - (xs[1] ?? 0));
      if (spread.current > 0 && now > 8) {
        const share = spread.current / now;
        move((w) => zoomed(w, (w.from_s + w.to_s) / 2, share));
      }
      spread.current = now;
    } else move((w) => shifted(w, (before - e.clientX) / width));
  }
  const onPointerUp = (e: PointerEvent<HTMLDivElement>): void => {
    pointers.current.delete(e.pointerId);
    spread.current = 0;
  };
  return (
    <div className="relative min-h-[26rem] flex-1 lg:min-h-0">
      <div
        ref={element}
        role="img"
        aria-label={label}
        className="absolute inset-0 cursor-crosshair touch-none"
        onWheel={onWheel}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={onPointerUp}
        onPointerCancel={onPointerUp}
      />
      {!isReady && <p className="absolute inset-0 grid place-items-center text-soft">Opening the recording</p>}
    </div>
  );
}

function Tools(props: {
  onStep: (by: 1 | -1) => void;
  onZoom: (share: number) => void;
  onWhole: () => void;
  onMark: (() => void) | null;
  hasFindings: boolean;
}) {
  const look = 'inline-flex min-h-12 items-center rounded-lg border border-line bg-card px-3 disabled:opacity-50';
  return (
    <div className="mt-2 flex flex-wrap gap-2" role="toolbar" aria-label="Move in the recording">
      <button type="button" className={look} disabled={!props.hasFindings} onClick={() => props.onStep(-1)}>
        Previous finding <Key name="p" />
      </button>
      <button type="button" className={look} disabled={!props.hasFindings} onClick={() => props.onStep(1)}>
        Next finding <Key name="n" />
      </button>
      <button type="button" className={look} onClick={() => props.onZoom(0.5)}>
        Closer <Key name="+" />
      </button>
      <button type="button" className={look} onClick={() => props.onZoom(2)}>
        Wider <Key name="−" />
      </button>
      <button type="button" className={look} onClick={props.onWhole}>
        All of it <Key name="0" />
      </button>
      {props.onMark && (
        <button type="button" className={look} onClick={props.onMark}>
          Mark <Key name="m" />
        </button>
      )}
    </div>
  );
}

const Key = ({ name }: { name: string }) => (
  <kbd className="ml-2 rounded border border-line px-1.5 font-mono text-xs text-soft max-sm:hidden">{name}</kbd>
);

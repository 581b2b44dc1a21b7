'use client';
import { fixed } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import { useMemo, useState } from 'react';
import { v7 } from 'uuid';
import type { CaptureBehind, TraceView } from '../../application/views';
import type { Cycle } from '../../core/signal/angle/cycle';
import { compareCaptures } from '../../core/signal/angle/compare';
import type { Change } from '../../core/signal/angle/types';
import { inTimeWithin, shiftBetween } from '../../core/signal/angle/timing';
import type { Standing } from '../../formats/requests/traces';
import { STANDINGS } from '../../formats/requests/traces';
import { Button } from '../kit/button';
import { inputLook } from '../kit/field';
import { useRouter } from '../kit/router';
import { useMay, usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';
import { CycleFigure } from './cycle-figure';
import { conditionWords, type CylinderRow, cylinderRows } from './cycle-words';

interface Props {
  readonly trace: TraceView;
  readonly ghosts: readonly CaptureBehind[];
  readonly isClosed: boolean;
}

/**
 * A capture over one cycle: the cylinders in firing order as posts, each channel through the angle, a known
 * good behind it.
 */
export function CycleView({ trace, ghosts, isClosed }: Props) {
  const { capture } = trace.head;
  const [ghostId, setGhost] = useState(ghosts[0]?.id ?? '');
  const ghost = ghosts.find((g) => g.id === ghostId) ?? null;
  const changes = useMemo(() => changesOf(trace, ghost), [trace, ghost]);
  const rows = useMemo(
    () => cylinderRows(trace.head.search.findings, ghost?.findings, changes),
    [trace, ghost, changes],
  );
  if (!capture) return null;
  const { cycle } = capture;
  return (
    <div
      className="mt-2 flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto *:shrink-0"
      aria-label="Over crank angle"
      role="group"
    >
      <p>
        Recorded while {conditionWords(capture)}
        {cycle &&
          tr`; ${Math.round(cycle.speed_rpm)} rpm, ${cycle.cycles === 1 ? 'one cycle' : tr`${cycle.cycles} cycles over each other`}, angle from the ${cycle.from === 'crank' ? 'crank wheel' : 'injector of one cylinder'}`}
        .
      </p>
      {capture.conclusions.map((c) => (
        <p key={c} className="rounded-lg border-l-4 border-rust bg-card p-3">
          {c}
        </p>
      ))}
      {cycle ? (
        <>
          {ghosts.length > 0 && (
            <label className="text-sm">
              Behind it
              <select
                aria-label="Behind it"
                className={inputLook}
                value={ghostId}
                onChange={(e) => setGhost(e.target.value)}
              >
                <option value="">nothing</option>
                {ghosts.map((g) => (
                  <option key={g.id} value={g.id}>
                    {tr`${g.unit}, ${g.name}: ${g.standing}, ${conditionWords(g.capture)}${g.capture.cycle ? tr`, ${Math.round(g.capture.cycle.speed_rpm)} rpm` : ''}`}
                  </option>
                ))}
              </select>
            </label>
          )}
          {ghost && <Beside ghost={ghost} changes={changes} />}
          {ghost?.capture.cycle && <Against cycle={cycle} ghost={ghost} known={ghost.capture.cycle} />}
          <CycleFigure trace={trace} cycle={cycle} ghost={ghost} />
        </>
      ) : (
        <p className="text-soft">
          No whole cycle could be laid over crank angle: a crank wheel, or an injector that names its cylinder, must be
          recorded beside.
        </p>
      )}
      {rows.map((r) => (
        <CylinderPosts key={r.title} row={r} />
      ))}
      {!isClosed && <StandingForm trace={trace} />}
    </div>
  );
}

/** Each number beside the same of the capture behind it; of another condition nothing is called worse. */
function changesOf(trace: TraceView, ghost: CaptureBehind | null): readonly Change[] {
  const condition = trace.head.capture?.condition;
  if (!ghost || !condition) return [];
  const name = ghost.capture.condition === condition ? 'there' : tr`while ${conditionWords(ghost.capture)}`;
  const isAlike = ghost.capture.condition === condition;
  return compareCaptures(trace.head.search.findings, ghost.findings, { name, isAlike });
}

/** What differs between two captures beyond what is uncertain. */
function Beside({ ghost, changes }: { ghost: CaptureBehind; changes: readonly Change[] }) {
  if (changes.length === 0) return null;
  const rank = { fail: 0, attention: 1, undecided: 2, none: 3, pass: 4 } as const;
  const clear = changes.filter((c) => c.severity !== 'pass').sort((a, b) => rank[a.severity] - rank[b.severity]);
  return (
    <section className="rounded-xl bg-card p-3" aria-label="By number">
      <h3 className="text-sm font-semibold text-soft">
        Beside {ghost.unit}, {ghost.name} ({ghost.standing})
      </h3>
      {clear.length === 0 ? (
        <p>{changes.length} numbers lie beside each other; none differs by more than is uncertain.</p>
      ) : (
        <ul>
          {clear.map((c) => (
            <li key={c.reasons.join()} className={c.severity === 'attention' ? 'border-l-4 border-ochre pl-2' : 'pl-3'}>
              {c.reasons.join(' ')}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** The cam against a known good, from the edges that both captures kept. */
function Against({ cycle, ghost, known }: { cycle: Cycle; ghost: CaptureBehind; known: Cycle }) {
  if (!cycle.cam.length || !known.cam.length) return null;
  const found = shiftBetween(cycle.cam, known.cam);
  const isOut = found !== null && cycle.teeth !== null && Math.abs(found.shift_deg) > inTimeWithin(360 / cycle.teeth);
  return (
    <p className={isOut ? 'rounded-lg border-l-4 border-rust bg-card p-3' : ''}>
      Cam against {ghost.unit}, {ghost.name} ({ghost.standing}):{' '}
      {found ? (
        <b>
          {fixed(Math.abs(found.shift_deg), 1)} ± {fixed(found.uncertainty_deg, 1)} degrees of the crank{' '}
          {found.shift_deg >= 0 ? 'later' : 'earlier'}
          {cycle.teeth ? tr`, ${fixed(Math.abs((found.shift_deg * cycle.teeth) / 360), 1)} teeth of the wheel` : ''}
          {isOut ? ': out of time.' : ': in time.'}
        </b>
      ) : (
        'the patterns are not those of one family.'
      )}{' '}
      One cam sensor proves one camshaft only.
    </p>
  );
}

const TONES = {
  fail: 'bg-rust',
  attention: 'bg-ochre',
  undecided: 'bg-line',
  pass: 'bg-eelgrass',
  none: 'bg-line',
} as const;
const WORDS = { fail: 'bad', attention: 'watch', undecided: 'not decided', pass: 'good', none: 'no limit' } as const;

/** One number of each cylinder as a mark on its post, in the order of firing. */
function CylinderPosts({ row }: { row: CylinderRow }) {
  return (
    <section className="rounded-xl bg-card p-3" aria-label={row.title}>
      <h3 className="text-sm font-semibold text-soft">{row.title}, in the order of firing</h3>
      <ol className="mt-1 flex gap-1">
        {row.numbers.map((n) => (
          <li key={n.position} className="min-w-0 flex-1 text-center" title={n.reasons.join(' ')}>
            <div className="relative mx-auto h-12 w-2 rounded bg-post/30" aria-hidden="true">
              <span
                className={`absolute -left-3 h-2 w-8 rounded ${TONES[n.severity]}`}
                style={{ bottom: `${88 * n.height}%` }}
              />
            </div>
            <span className="block font-mono font-semibold">{n.text}</span>
            <span className="block text-sm">
              {n.cylinder === null ? tr`place ${n.position}` : tr`cyl. ${n.cylinder}`}
              <span className="block text-xs text-soft">{WORDS[n.severity]}</span>
              {n.before !== null && (
                <span className={`block text-xs ${n.against.length ? 'font-bold' : 'text-soft'}`}>
                  there {n.before}
                </span>
              )}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}

/** A lead says what the capture is good for: the library proposes known good ones. */
function StandingForm({ trace }: { trace: TraceView }) {
  const by = usePerson();
  const router = useRouter();
  const may = useMay('job.judge-capture');
  const { busy, problems, post } = useSend();
  const last = trace.notes.findLast((n) => n.body.kind === 'standing');
  const [standing, setStanding] = useState<Standing>(last?.body.standing ?? 'known good');
  const [why, setWhy] = useState('');
  return (
    <section className="rounded-xl bg-card p-3" aria-label="What it is good for">
      <p>
        In the library: <b>{last?.body.standing ?? 'unknown'}</b>
        {last && ` (${last.by}: ${last.body.text})`}
      </p>
      {may && (
        <form
          className="mt-2 flex flex-wrap items-end gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            void post(`/api/traces/${trace.id}/standing`, { id: v7(), by, standing, why }).then((kept) => {
              if (kept) router.refresh();
            });
          }}
        >
          <label className="text-sm">
            It is
            <select
              className={inputLook}
              value={standing}
              onChange={(e) => setStanding(e.target.value as Standing)}
              aria-label="It is"
            >
              {STANDINGS.map((s) => (
                <option key={s}>{s}</option>
              ))}
            </select>
          </label>
          <label className="min-w-48 flex-1 text-sm">
            Why
            <input
              className={inputLook}
              value={why}
              autoComplete="off"
              aria-label="Why"
              aria-invalid={problems.length > 0}
              onChange={(e) => setWhy(e.target.value)}
            />
          </label>
          <Button type="submit" disabled={busy}>
            Keep it
          </Button>
          {problems.map((p) => (
            <p key={p.path} role="alert" className="w-full font-semibold text-rust">
              {p.path === '/why' ? 'Say why, in a word at least.' : p.message}
            </p>
          ))}
        </form>
      )}
    </section>
  );
}

'use client';
import { Link } from '../kit/link';
import { type ReactNode, useState } from 'react';
import { STAGE_WORDS, STAGES, type Stage, type StageId, type StageState } from '../../core/job/progress';
import { stageLines, type StageLine } from '../../application/stage-lines';
import { MARKS, type Stroke } from '../../application/posts/shapes';
import type { JobView } from '../../application/views';
import { shownTime } from '../kit/time';

const LOOK: Readonly<Record<StageState, { strokes: readonly Stroke[]; colour: string; said: string }>> = {
  done: { strokes: MARKS.within, colour: 'eelgrass', said: 'done' },
  now: { strokes: MARKS['not-measured'], colour: 'estuary', said: 'now' },
  open: { strokes: MARKS['not-measured'], colour: 'socket', said: 'not yet' },
  failed: { strokes: MARKS.failed, colour: 'rust', said: 'still wrong' },
  'left out': { strokes: [{ d: 'M-14 0H14', width: 2.5 }], colour: 'socket', said: 'left out' },
};

/** How far a stage is, in words: what the payer did not take is not "not good". */
const saidOf = ({ id, state }: Stage): string =>
  state === 'failed' ? (id === 'agreed' ? 'not accepted' : 'still wrong') : LOOK[state].said;

/** Where a job stands: its stages as a row of posts. Each leads to its work. */
export function StageRow({ view, onOpen }: { view: JobView; onOpen: (id: StageId) => void }) {
  const { stages, now } = view.progress;
  return (
    <nav aria-label="Where it stands">
      <ol className="grid grid-cols-4 gap-1 sm:grid-cols-8">
        {stages.map((s) => (
          <li key={s.id}>
            <Link
              href={s.id === now ? '#now' : `#${s.id}`}
              aria-current={s.id === now ? 'step' : undefined}
              onClick={() => onOpen(s.id)}
              className={`flex min-h-12 flex-col items-center justify-center gap-0.5 rounded-lg border-2 px-1 text-sm ${s.id === now ? 'border-estuary font-semibold' : 'border-transparent'}`}
            >
              <StageMark state={s.state} />
              {STAGE_WORDS[s.id]}
              <span className="sr-only">, {saidOf(s)}</span>
            </Link>
          </li>
        ))}
      </ol>
    </nav>
  );
}

function StageMark({ state }: { state: StageState }) {
  const { strokes, colour } = LOOK[state];
  return (
    <svg width={36} height={14} viewBox="-40 -14 80 28" aria-hidden="true" className="shrink-0">
      <path d="M-40 0H40" stroke="var(--channel)" strokeWidth={14} />
      {strokes.map((s) => (
        <path
          key={s.d}
          d={s.d}
          fill={s.fill ? `var(--${colour})` : 'none'}
          stroke={s.fill ? 'none' : `var(--${colour})`}
          strokeWidth={s.width}
        />
      ))}
    </svg>
  );
}

/** Which stages stand open: those that were opened by hand. */
export function useOpenStages(): {
  readonly opened: ReadonlySet<StageId>;
  readonly set: (id: StageId, isOpen: boolean) => void;
} {
  const [opened, setOpened] = useState<ReadonlySet<StageId>>(new Set());
  return {
    opened,
    set: (id, isOpen) =>
      setOpened((was) =>
        was.has(id) === isOpen ? was : new Set(isOpen ? [...was, id] : [...was].filter((x) => x !== id)),
      ),
  };
}

interface StageListProps {
  readonly view: JobView;
  readonly opened: ReadonlySet<StageId>;
  readonly onToggle: (id: StageId, isOpen: boolean) => void;
  readonly work: (id: StageId) => ReactNode;
  /** Stages whose work stands elsewhere already. */
  readonly without: ReadonlySet<StageId>;
}

/** Every stage a line: what was done in it, by whom and when. It opens to its work. */
export function StageList({ view, opened, onToggle, work, without }: StageListProps) {
  const lines = stageLines(view);
  const byId = new Map(view.progress.stages.map((s) => [s.id, s]));
  return (
    <section aria-label="Stages" className="flex flex-col rounded-xl bg-card px-4 py-2">
      {STAGES.filter((id) => !without.has(id)).map((id) => {
        const stage = byId.get(id);
        return (
          stage && (
            <details
              key={id}
              id={id}
              open={opened.has(id)}
              onToggle={(e) => onToggle(id, e.currentTarget.open)}
              className="scroll-mt-4 border-b border-line last:border-0"
            >
              <summary className="flex min-h-12 cursor-pointer items-center gap-3 py-1">
                <FoldedLine stage={stage} line={lines[id]} timeZone={view.unit.timeZone} />
              </summary>
              {opened.has(id) && (
                <section aria-label={STAGE_WORDS[id]} className="pb-3">
                  {work(id)}
                </section>
              )}
            </details>
          )
        );
      })}
    </section>
  );
}

function FoldedLine({ stage, line, timeZone }: { stage: Stage; line: StageLine; timeZone: string }) {
  return (
    <>
      <StageMark state={stage.state} />
      <b className="w-24 shrink-0">{STAGE_WORDS[stage.id]}</b>
      <span className="min-w-0 flex-1 truncate">{line.what || <span className="text-soft">{saidOf(stage)}</span>}</span>
      {line.by && (
        <span className="shrink-0 text-sm text-soft max-sm:hidden">
          {line.by}
          {line.at && `, ${shownTime(line.at, timeZone)}`}
        </span>
      )}
    </>
  );
}

'use client';
import { useRouter } from '../kit/router';
import type { ReactNode } from 'react';
import type { StageId } from '../../core/job/progress';
import type { JobView } from '../../application/views';
import { Button } from '../kit/button';
import { HeldForms, useHeld } from '../kit/begun';
import { useLive } from '../kit/live';
import { Proof } from '../repair/proof';
import { AgreedWork, ReleaseWork, RepairWork } from '../repair/repair';
import { CircuitLines } from './circuit-line';
import { Codes } from './codes';
import { RecordEvidence } from './evidence';
import { Findings } from './findings';
import { Intake } from './intake';
import { Known } from './known';
import { More } from './more';
import { Instead, Now } from './now';
import { isMeasured, PlanOfJob } from './plan';
import { Seen } from './seen';
import { StageList, StageRow, useOpenStages } from './stages';
import { Strip } from './strip';

/** What is open below the sentence itself: in the other stages its button does it. */
const WORKED_BELOW: ReadonlySet<StageId> = new Set(['complaint', 'codes', 'agreed', 'repair', 'proof', 'release']);

/**
 * One job from complaint to release: what is next, with its work open; what is known; and every stage, folded
 * to a line.
 */
export function JobScreen({ view }: { view: JobView }) {
  const router = useRouter();
  useLive(view.job.id, () => router.refresh());
  const { opened, set } = useOpenStages();
  const { now } = view.progress;
  const { shown: own, isLeft, leave, count } = useHeld(now !== null && WORKED_BELOW.has(now) ? now : null);
  const measuring = isMeasured(view);
  const plan = !view.job.closed && <PlanOfJob view={view} />;
  return (
    <main className="mx-auto flex w-full max-w-7xl flex-1 flex-col gap-3 p-3 sm:p-4 lg:grid lg:content-start lg:grid-cols-[minmax(0,2fr)_minmax(0,1fr)]">
      <div className="rounded-xl bg-card px-4 py-2 lg:col-span-2">
        <Strip view={view} />
        <StageRow view={view} onOpen={(id) => set(id, true)} />
      </div>
      {/* Narrow: what is next, then plan and what is known, then the rest. Wide: two columns. */}
      <div className="contents min-w-0 lg:flex lg:flex-col lg:gap-3">
        <Now view={view}>
          {own && (
            <div key={own} className="mt-3 border-t border-line pt-3">
              {isLeft && <NotKept onLeave={leave} />}
              <HeldForms count={count}>{workOf(own, view)}</HeldForms>
            </div>
          )}
        </Now>
        <div className="order-2 flex min-w-0 flex-col gap-3">
          <StageList
            view={view}
            opened={opened}
            onToggle={set}
            work={(id) => workOf(id, view)}
            without={new Set(own ? [own] : [])}
          />
          <RecordEvidence view={view} />
          <More view={view} />
        </div>
      </div>
      <div className="order-1 flex min-w-0 flex-col gap-3 lg:order-none">
        {measuring && plan}
        <Known view={view} />
        <Instead view={view} />
        <CircuitLines view={view} />
        {!measuring && plan}
      </div>
    </main>
  );
}

/** What was typed before the job moved on. */
function NotKept({ onLeave }: { onLeave: () => void }) {
  return (
    <p role="status" className="mb-2 flex flex-wrap items-center gap-3 font-semibold text-ochre">
      The job has moved on. What you have typed here is not kept yet.
      <Button onClick={onLeave}>Leave it</Button>
    </p>
  );
}

function workOf(id: StageId, view: JobView): ReactNode {
  switch (id) {
    case 'complaint':
      return <Intake view={view} />;
    case 'codes':
      return <Codes view={view} />;
    case 'tests':
      return <Seen view={view} />;
    case 'finding':
      return <Findings view={view} />;
    case 'agreed':
      return <AgreedWork view={view} />;
    case 'repair':
      return <RepairWork view={view} />;
    case 'proof':
      return <Proof view={view} />;
    case 'release':
      return <ReleaseWork view={view} />;
  }
}

'use client';
import { useRouter } from '../kit/router';
import { v7 } from 'uuid';
import type { ProofCheck } from '../../core/repair/types';
import { joinAnd } from '../../core/quantity/print';
import type { JobView } from '../../application/views';
import { Button } from '../kit/button';
import { OtherProblems } from '../kit/form';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';
import { useStartRun } from '../kit/use-start-run';
import { useRecord } from './use-record';

/** What does an open check of the proof, at one press where one press can say it. */
export function CheckAction({ check, view, strong = false }: { check: ProofCheck; view: JobView; strong?: boolean }) {
  const tone = strong ? 'strong' : 'plain';
  switch (check.id) {
    case 'measured-again':
      return <MeasureAgain view={view} tone={tone} />;
    case 'codes-cleared':
      return <CodesCleared view={view} tone={tone} />;
    case 'road-test':
      return <RoadTest view={view} tone={tone} />;
    case 'vehicle-scan':
      return <CleanScan view={view} tone={tone} />;
    default:
      return null;
  }
}

interface ActionProps {
  readonly view: JobView;
  readonly tone: 'plain' | 'strong';
}

/** Each test that had a suspect, in a run of its own: before and after stand together. */
function MeasureAgain({ view, tone }: ActionProps) {
  const { busy, problems, start } = useStartRun(view.job);
  const left = view.repair.pairs.filter((p) => !p.after || p.after.judgement.suspects.length > 0);
  // Nothing is mended yet: there is no after.
  if (view.repair.checks.find((c) => c.id === 'repaired')?.state !== 'done') return null;
  return (
    <>
      {left.map((p) => (
        <Button key={p.test} tone={tone} disabled={busy} onClick={() => void start(p.test, true)}>
          Measure again: {p.name}
        </Button>
      ))}
      <OtherProblems problems={problems} paths={[]} />
    </>
  );
}

function CodesCleared({ view, tone }: ActionProps) {
  const router = useRouter();
  const by = usePerson();
  const { busy, problems, post } = useSend();
  async function none(): Promise<void> {
    const body = { id: v7(), by, phase: 'after-clearing', status: 'unknown', codes: [] };
    if (await post(`/api/jobs/${view.job.id}/codes`, body)) router.refresh();
  }
  return (
    <>
      <Button tone={tone} disabled={busy} onClick={() => void none()}>
        Cleared, read again: no code
      </Button>
      <OtherProblems problems={problems} paths={[]} />
    </>
  );
}

function RoadTest({ view, tone }: ActionProps) {
  const router = useRouter();
  const by = usePerson();
  const { busy, problems, post } = useSend();
  const conditions = view.intake.conditions.filter((c) => c !== 'intermittent');
  const words = conditions.length ? ` ${joinAnd(conditions)}` : '';
  async function held(): Promise<void> {
    const seen = `driven${words}, it did not show`;
    const evidence = { kind: 'drive', conditions, outcome: 'did not show', seen };
    if (await post(`/api/jobs/${view.job.id}/evidence`, { id: v7(), by, evidence })) router.refresh();
  }
  return (
    <>
      <Button tone={tone} disabled={busy} onClick={() => void held()}>
        Driven{words}: it did not show
      </Button>
      <OtherProblems problems={problems} paths={[]} />
    </>
  );
}

function CleanScan({ view, tone }: ActionProps) {
  const { busy, problems, write } = useRecord(view.job.id);
  return (
    <>
      <Button tone={tone} disabled={busy} onClick={() => void write({ kind: 'scan', outcome: 'clean', said: '' })}>
        All controllers scanned: no code
      </Button>
      <OtherProblems problems={problems} paths={[]} />
    </>
  );
}

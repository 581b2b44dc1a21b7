'use client';
import { useRouter } from './router';
import { v7 } from 'uuid';
import type { JobBrief } from '../../application/views';
import type { Problem } from '../../core/foundation/result';
import { usePerson } from './session';
import { useSend } from './use-send';

export interface RunStarter {
  readonly busy: boolean;
  readonly problems: readonly Problem[];
  /** Opens the bench with this test: what was begun goes on, unless it is to be done `anew`. */
  readonly start: (test: string, anew?: boolean) => Promise<void>;
}

/** Starts a test run in a job and goes to its bench. */
export function useStartRun(job: Pick<JobBrief, 'id' | 'runs'>): RunStarter {
  const router = useRouter();
  const by = usePerson();
  const { busy, problems, post } = useSend();
  async function start(test: string, anew = false): Promise<void> {
    const begun = anew
      ? undefined
      : job.runs.findLast((r) => r.test === test && (r.judgement === null || r.judgement.pattern === 'incomplete'));
    if (begun) {
      router.push(`/runs/${begun.id}`);
      return;
    }
    const id = v7();
    if (await post('/api/runs', { id, jobId: job.id, test, by })) router.push(`/runs/${id}`);
  }
  return { busy, problems, start };
}

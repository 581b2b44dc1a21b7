'use client';
import { useRouter } from '../kit/router';
import { v7 } from 'uuid';
import type { RepairRecord } from '../../core/repair/types';
import type { Problem } from '../../core/foundation/result';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';

export interface RecordSender {
  readonly busy: boolean;
  readonly problems: readonly Problem[];
  /** True where it was written. */
  readonly write: (record: RepairRecord) => Promise<boolean>;
}

/** Writes into the job's record and shows what came of it. */
export function useRecord(jobId: string): RecordSender {
  const router = useRouter();
  const by = usePerson();
  const { busy, problems, post } = useSend();
  async function write(record: RepairRecord): Promise<boolean> {
    const done = await post(`/api/jobs/${jobId}/records`, { id: v7(), by, record });
    if (done) router.refresh();
    return done !== null;
  }
  return { busy, problems, write };
}

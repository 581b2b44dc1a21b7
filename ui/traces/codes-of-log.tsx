'use client';
import { tr } from '../../core/locale/translate';
import { v7 } from 'uuid';
import type { ReadCode } from '../../formats/trace/types';
import { Button } from '../kit/button';
import { useRouter } from '../kit/router';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';

/** Codes that control units sent in a CAN log: the person says in which phase they were read. */
export function CodesOfLog({
  jobId,
  codes,
  onDone,
}: {
  jobId: string;
  codes: readonly ReadCode[];
  onDone: () => void;
}) {
  const by = usePerson();
  const router = useRouter();
  const { busy, problems, post } = useSend();
  async function keep(phase: string): Promise<void> {
    const kept = await post(`/api/jobs/${jobId}/codes`, {
      id: v7(),
      by,
      phase,
      status: 'active',
      codes: codes.map((c) => ({ code: `SPN ${c.spn} FMI ${c.fmi}`, ...(c.count ? { count: c.count } : {}) })),
    });
    if (!kept) return;
    onDone();
    router.refresh();
  }
  return (
    <div className="mt-4 rounded-lg border-2 border-ochre p-3">
      <p className="font-semibold">
        The log holds codes: {codes.map((c) => tr`SPN ${c.spn} FMI ${c.fmi}`).join(', ')}.
      </p>
      <p className="text-sm">When were they read?</p>
      {problems.map((p) => (
        <p key={p.path} role="alert" className="font-semibold text-rust">
          {p.message}
        </p>
      ))}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button disabled={busy} onClick={() => void keep('as-found')}>
          As found
        </Button>
        <Button disabled={busy} onClick={() => void keep('after-road-test')}>
          After the road test
        </Button>
        <Button disabled={busy} onClick={onDone}>
          Do not keep them
        </Button>
      </div>
    </div>
  );
}

'use client';
import { tr } from '../../core/locale/translate';
import { read } from '../kit/send';
import { ShieldCheck, ShieldX } from 'lucide-react';
import { useState } from 'react';
import type { JobView, Verified } from '../../application/views';
import { Button } from '../kit/button';
import { shownTime } from '../kit/time';

/** Everything that was written into the job, in order, and whether it is still as it was written. */
export function AuditTrail({ view }: { view: JobView }) {
  const { auditTrail: trail, job, unit } = view;
  const [verified, setVerified] = useState<Verified | 'asking' | 'failed' | null>(null);
  async function verify(): Promise<void> {
    setVerified('asking');
    const response = await read(`/api/jobs/${job.id}/verify`, { cache: 'no-store' }).catch(() => null);
    setVerified(response?.ok ? ((await response.json()) as Verified) : 'failed');
  }
  return (
    <details className="rounded-xl bg-card p-4">
      <summary className="min-h-8 cursor-pointer font-semibold text-soft">Trail ({trail.length})</summary>
      <Button className="my-2" disabled={verified === 'asking'} onClick={() => void verify()}>
        Is it intact?
      </Button>
      {verified === 'failed' && (
        <p role="alert" className="font-semibold text-rust">
          It could not be checked now. Try again.
        </p>
      )}
      {verified !== null && typeof verified === 'object' && (
        <div role="status" className={`mb-2 ${verified.intact ? 'text-eelgrass' : 'text-rust'}`}>
          <p className="flex items-center gap-2 font-semibold">
            {verified.intact ? <ShieldCheck size={20} aria-hidden="true" /> : <ShieldX size={20} aria-hidden="true" />}
            {verified.intact ? tr`Intact: ${verified.events} events, each bound to the one before.` : 'Not intact.'}
          </p>
          <ul>
            {verified.faults.map((f, i) => (
              <li key={i}>{f.what}</li>
            ))}
          </ul>
        </div>
      )}
      <ol className="max-h-96 overflow-y-auto text-sm">
        {trail.map((e) => (
          <li key={e.number}>
            <span className="font-mono text-soft">{e.number}</span> {e.kind}, {e.by}{' '}
            <span className="text-soft">{shownTime(e.at, unit.timeZone)}</span>
          </li>
        ))}
      </ol>
    </details>
  );
}

'use client';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import { v7 } from 'uuid';
import { changeWords, type JudgedAgain } from '../../application/judging/difference';
import type { RunView } from '../../application/views';
import { CORE_VERSION } from '../../core/foundation/version';
import { Button } from '../kit/button';
import { OtherProblems } from '../kit/form';
import { useMay, usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';

/**
 * A run that another version of the judge has judged: shown as it was judged. What this one would say is
 * asked for, and then chosen.
 */
export function OtherVersion({ view }: { view: RunView }) {
  const by = usePerson();
  const may = useMay('run.judge-again');
  const router = useRouter();
  const [id] = useState(() => v7());
  const [found, setFound] = useState<JudgedAgain | null>(null);
  const { busy, problems, setProblems, post } = useSend();
  if (view.readings.length === 0 || view.judgement.core === CORE_VERSION) return null;

  async function look(): Promise<void> {
    const answer = await fetch(`/api/runs/${view.id}/judge-again`).catch(() => null);
    if (answer?.ok) setFound((await answer.json()) as JudgedAgain);
    else setProblems([{ path: '', message: 'This cannot be looked up now. The verdicts stay as they were stored.' }]);
  }
  async function judge(): Promise<void> {
    if (await post(`/api/runs/${view.id}/judge-again`, { id, by })) router.refresh();
  }
  return (
    <section
      aria-label="Judged by another version"
      className="flex shrink-0 flex-wrap items-center gap-x-4 gap-y-2 rounded-xl border border-ochre bg-card px-3 py-2 text-sm"
    >
      <p className="min-w-60 flex-1">
        Shown as it was judged, by version {view.judgement.core || 'unknown'} of the judge. Version {CORE_VERSION}{' '}
        {found === null
          ? 'may judge otherwise.'
          : found.changes.length === 0
            ? 'gives the same verdicts.'
            : 'would judge otherwise:'}
      </p>
      {found && found.changes.length > 0 && (
        <ul className="basis-full list-disc pl-5">
          {found.changes.map((c) => (
            <li key={c.position}>{changeWords(c, view.judgement.limits)}</li>
          ))}
        </ul>
      )}
      <OtherProblems problems={problems} paths={[]} />
      <div className="flex gap-2">
        {found === null && <Button onClick={() => void look()}>What would change?</Button>}
        {found !== null && may && (
          <Button onClick={() => void judge()} disabled={busy}>
            Judge again
          </Button>
        )}
      </div>
    </section>
  );
}

'use client';
import { useState } from 'react';
import { findingWords } from '../../core/evidence/finding';
import type { FindingView, JobView } from '../../application/views';
import { Button } from '../kit/button';
import { useMay } from '../kit/session';
import { shownTime } from '../kit/time';
import { FindingDialog } from './finding-dialog';

/** What was found and signed, and the way to sign more. */
export function Findings({ view }: { view: JobView }) {
  const [writing, setWriting] = useState<FindingView | 'new' | null>(null);
  const may = useMay('job.write-finding') && !view.job.closed;
  return (
    <div>
      {view.findings.map((f) => (
        <Finding
          key={f.id}
          finding={f}
          timeZone={view.unit.timeZone}
          {...(may ? { onChange: () => setWriting(f) } : {})}
        />
      ))}
      {may && (
        <Button className="mt-2" onClick={() => setWriting('new')}>
          {view.findings.length ? 'Write another finding' : 'Write a finding'}
        </Button>
      )}
      {writing && (
        <FindingDialog view={view} replaces={writing === 'new' ? null : writing} onClose={() => setWriting(null)} />
      )}
    </div>
  );
}

function Finding({
  finding: { body: f, by, at },
  timeZone,
  onChange,
}: {
  finding: FindingView;
  timeZone: string;
  onChange?: () => void;
}) {
  return (
    <article className="mt-2 rounded-lg bg-panel p-3">
      <p className="text-lg font-bold">
        {f.kind === 'found' ? 'Finding: ' : ''}
        {findingWords(f)}
        {f.kind === 'found' && <span className="ml-2 font-normal text-soft">{f.confidence}</span>}
      </p>
      {f.kind === 'found' && f.supports.length > 0 && (
        <p>
          <b>For:</b> {f.supports.map((r) => r.label).join('; ')}
        </p>
      )}
      {f.kind === 'found' && f.against.length > 0 && (
        <p>
          <b>Against:</b> {f.against.map((r) => r.label).join('; ')}
        </p>
      )}
      {f.ruledOut.length > 0 && (
        <details>
          <summary className="cursor-pointer">Ruled out ({f.ruledOut.length})</summary>
          <ul>
            {f.ruledOut.map((r) => (
              <li key={r.what}>
                <b>{r.what}</b>: {r.by}
              </li>
            ))}
          </ul>
        </details>
      )}
      {f.kind === 'found' && f.advice && (
        <p>
          <b>Advised:</b> {f.advice}
        </p>
      )}
      {f.kind === 'not-found' && (
        <p>
          <b>If it returns:</b> {f.ifReturns}
        </p>
      )}
      <p className="flex items-center gap-3 text-sm text-soft">
        {shownTime(at, timeZone)}, {by}
        {onChange && (
          <button type="button" className="min-h-12 underline" onClick={onChange}>
            change
          </button>
        )}
      </p>
    </article>
  );
}

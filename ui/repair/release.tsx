'use client';
import { tr } from '../../core/locale/translate';
import { useState } from 'react';
import type { ProofCheckId } from '../../core/repair/types';
import type { JobView } from '../../application/views';
import { useBegun } from '../kit/begun';
import { Button } from '../kit/button';
import { errorAt } from '../kit/draft';
import { Field, inputLook, tie } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { usePerson, useMay } from '../kit/session';
import { useRecord } from './use-record';

/** Signs the job off. What is not proven yet is left only by a lead, with a reason each. */
export function Release({ view }: { view: JobView }) {
  const may = useMay('job.write-repair');
  const open = view.repair.checks.filter((c) => c.state !== 'done');
  const by = usePerson();
  const isLead = useMay('job.release-with-open-checks');
  const [said, setSaid] = useState(() => suggested(view));
  const [because, setBecause] = useState<Readonly<Partial<Record<ProofCheckId, string>>>>({});
  const [proposed] = useState(said);
  useBegun(said !== proposed || Object.values(because).some((b) => b.trim() !== ''));
  const { busy, problems, write } = useRecord(view.job.id);
  const error = errorAt(problems, '/record/said');
  const waived = open.flatMap((c) => {
    const why = because[c.id]?.trim();
    return why ? [{ check: c.id, because: why }] : [];
  });
  if (!may) return null;
  return (
    <form
      noValidate
      aria-label="Release"
      onSubmit={(e) => {
        e.preventDefault();
        void write({ kind: 'release', said: said.trim(), waived });
      }}
    >
      {open.length > 0 && (
        <p className="font-semibold text-ochre">
          {open.length === 1 ? 'One check is' : tr`${open.length} checks are`} not done.{' '}
          {isLead
            ? 'Say why it is released all the same, or do it.'
            : 'A lead can release it all the same, and says why.'}
        </p>
      )}
      {isLead &&
        open.map((c) => (
          <Field key={c.id} id={`waive-${c.id}`} label={c.label}>
            <input
              id={`waive-${c.id}`}
              className={inputLook}
              placeholder="left because"
              value={because[c.id] ?? ''}
              maxLength={2000}
              onChange={(e) => setBecause({ ...because, [c.id]: e.target.value })}
            />
          </Field>
        ))}
      <Field id="release-said" label="Release with" hint="what the next one should know" error={error}>
        <input
          className={inputLook}
          value={said}
          maxLength={2000}
          onChange={(e) => setSaid(e.target.value)}
          {...tie('release-said', error)}
        />
      </Field>
      <OtherProblems problems={problems} paths={['/record/said']} />
      <Button type="submit" tone="strong" disabled={busy || (open.length > 0 && !isLead)}>
        Release, signed {by}
      </Button>
    </form>
  );
}

/** What the next one should know, to begin with: what was found and that it is proven. */
function suggested({ findings, repair }: JobView): string {
  const found = findings.flatMap((f) => (f.body.kind === 'found' ? [f.body.text] : []));
  if (repair.checks.some((c) => c.state !== 'done')) return '';
  return found.length ? tr`${found.join('; ')}: repaired and proven` : 'Measured, all good';
}

export function Reopen({ view }: { view: JobView }) {
  const may = useMay('job.write-repair');
  const [because, setBecause] = useState('');
  useBegun(because.trim() !== '');
  const { busy, problems, write } = useRecord(view.job.id);
  const error = errorAt(problems, '/record/because');
  if (!may) return null;
  return (
    <details className="mt-3">
      <summary className="min-h-12 cursor-pointer font-semibold">The fault returned: reopen this job</summary>
      <form
        noValidate
        aria-label="Reopen"
        onSubmit={(e) => {
          e.preventDefault();
          void write({ kind: 'reopen', because: because.trim() });
        }}
      >
        <Field id="reopen-because" label="What returned" error={error}>
          <input
            className={inputLook}
            value={because}
            maxLength={2000}
            onChange={(e) => setBecause(e.target.value)}
            {...tie('reopen-because', error)}
          />
        </Field>
        <OtherProblems problems={problems} paths={['/record/because']} />
        <Button type="submit" disabled={busy}>
          Reopen
        </Button>
      </form>
    </details>
  );
}

'use client';
import { tr } from '../../core/locale/translate';
import { jobName } from '../../application/job-number';
import { Link } from '../kit/link';
import { knownCodes } from '../../application/codes';
import type { JobView } from '../../application/views';

const TONES: Readonly<Record<string, string>> = {
  'came back': 'border-rust text-rust',
  new: 'border-rust text-rust',
  gone: 'border-line text-soft line-through',
  'caused by testing': 'border-line text-soft',
};

/**
 * Of what the job is, at a glance: complaint, when it shows, codes, and whether the unit was here for it
 * before.
 */
export function Strip({ view }: { view: JobView }) {
  const { job, intake, before } = view;
  const codes = knownCodes(view.codes);
  const back = before.find((b) => b.comeback !== null) ?? before[0];
  const advised = before.flatMap((b) =>
    b.findings.flatMap((f) => (f.kind === 'found' && f.advice ? [f.advice] : [])),
  )[0];
  return (
    <section aria-label="This job" className="flex flex-wrap items-center gap-x-4 gap-y-1">
      <h2 className="text-lg leading-tight font-bold">
        <span className="font-normal text-soft">{jobName(job.number)}</span> {job.complaint}
      </h2>
      {(intake.conditions.length > 0 || intake.when) && (
        <span className="text-sm text-soft">
          {[...intake.conditions, ...(intake.when ? [intake.when] : [])].join(', ')}
        </span>
      )}
      {codes.slice(0, 6).map((c) => (
        <span
          key={c.code}
          title={c.fate}
          className={`rounded-md border px-2 font-mono text-sm font-semibold ${TONES[c.fate] ?? 'border-line'}`}
        >
          {c.code}
        </span>
      ))}
      {codes.length > 6 && <span className="text-sm text-soft">and {codes.length - 6} more codes</span>}
      {back && (
        <Link
          href={`/jobs/${back.id}`}
          className="inline-flex min-h-8 items-center text-sm font-semibold text-ochre underline"
        >
          {back.comeback ? tr`Here before: ${back.comeback}, job ${back.number}` : tr`Here before: job ${back.number}`}
        </Link>
      )}
      {advised && (
        <span className="text-sm">
          <b className="text-ochre">Advised, open:</b> {advised}
        </span>
      )}
    </section>
  );
}

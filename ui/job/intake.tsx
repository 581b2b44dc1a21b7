'use client';
import { isoDayShown } from '../../core/locale/dates';
import { tr } from '../../core/locale/translate';
import { jobName } from '../../application/job-number';
import { useBegun } from '../kit/begun';
import { useRouter } from '../kit/router';
import { Link } from '../kit/link';
import { useState } from 'react';
import { v7 } from 'uuid';
import { CONDITIONS, type DriveCondition } from '../../core/evidence/types';
import { findingWords } from '../../core/evidence/finding';
import { moneyWords } from '../../core/repair/money';
import { useRecord } from '../repair/use-record';
import type { JobView } from '../../application/views';
import { Button } from '../kit/button';
import { Chips } from '../kit/chips';
import { FormDialog } from '../kit/dialog';
import { errorAt } from '../kit/draft';
import { Field, inputLook, tie } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { usePerson, useMay } from '../kit/session';
import { shownTime } from '../kit/time';
import { useSend } from '../kit/use-send';
import type { Problem } from '../../core/foundation/result';
import { recordingWords } from '../../core/numerics/rare-events';
import { numberShown } from '../kit/draft';
import { readNumber } from '../kit/read-number';
import { PhotoField, Thumbs } from './photos';
import type { Intake as IntakeBody } from '../../formats/requests/intake';

/**
 * The complaint: who says what happens and when, what was done before, and what earlier jobs of the unit say
 * to it.
 */
export function Intake({ view }: { view: JobView }) {
  const { job, intake, unit } = view;
  const [editing, setEditing] = useState(false);
  const may = useMay('job.change-intake');
  return (
    <div className="grid gap-4">
      <div>
        <div className="flex flex-wrap items-center justify-between gap-x-4">
          <h2 className="text-sm font-semibold text-soft">
            {jobName(job.number)}, opened {shownTime(job.openedAt, unit.timeZone)} by {job.openedBy}
          </h2>
          {may && (
            <button
              type="button"
              onClick={() => setEditing(true)}
              className="min-h-12 text-sm font-semibold underline decoration-line underline-offset-4"
            >
              {intake.conditions.length || intake.replaced.length || intake.signs.length
                ? 'Change the intake'
                : 'When, and what was done before?'}
            </button>
          )}
        </div>
        <p className="text-xl">{job.complaint}</p>
        {(intake.conditions.length > 0 || intake.when) && (
          <p className="mt-1 flex flex-wrap items-center gap-2">
            {intake.conditions.map((c) => (
              <span key={c} className="rounded-full border border-line px-3 py-0.5 text-sm">
                {c}
              </span>
            ))}
            {intake.when}
          </p>
        )}
        {intake.replaced.length > 0 && (
          <p className="mt-2">
            <b>Replaced before:</b>{' '}
            {intake.replaced
              .map(
                (r) =>
                  tr`${r.what}${r.by ? ` (${r.by})` : ''}${r.helped && r.helped !== 'not known' ? tr`, helped: ${r.helped}` : ''}`,
              )
              .join('; ')}
          </p>
        )}
        {intake.signs.length > 0 && (
          <p className="mt-1">
            <b>Signs of earlier hands:</b> {intake.signs.join('; ')}
          </p>
        )}
        <Thumbs ids={intake.photos} photos={view.photos} />
      </div>
      <Before view={view} timeZone={unit.timeZone} may={may} />
      {editing && <EditIntake view={view} onClose={() => setEditing(false)} />}
    </div>
  );
}

function Before({ view, timeZone, may }: { view: JobView; timeZone: string; may: boolean }) {
  const { before, repair } = view;
  const { busy, problems, write } = useRecord(view.job.id);
  if (before.length === 0) return null;
  return (
    <div className="border-l-4 border-ochre pl-4">
      <h3 className="font-semibold text-ochre">This unit was here before</h3>
      <ul>
        {before.map((b) => (
          <li key={b.id} className="mt-1">
            <Link href={`/jobs/${b.id}`} className="underline">
              Job {b.number}
            </Link>
            , {shownTime(b.openedAt, timeZone)}
            {b.comeback && <b className="text-rust"> {b.comeback}</b>}
            {b.findings.map((f, i) => (
              <p key={i}>
                {findingWords(f)}.
                {f.kind === 'found' && f.advice && (
                  <>
                    <b> Advised, open:</b> {f.advice}
                  </>
                )}
                {f.kind === 'not-found' && (
                  <>
                    <b> If it returns:</b> {f.ifReturns}
                  </>
                )}
              </p>
            ))}
            {b.quotations.map((q) => (
              <p key={q.id}>
                <b className="text-ochre">
                  {QUOTED[q.answer]}
                  {q.until && tr` until ${isoDayShown(q.until)}`}:
                </b>{' '}
                {q.lines.map((l) => l.text).join(', ')}, {moneyWords(q.total, q.currency)}
                {q.said && ` (${q.said})`}
              </p>
            ))}
            {may && !repair.comebackOf && b.findings.length > 0 && (
              <button
                type="button"
                disabled={busy}
                className="min-h-10 underline"
                onClick={() => void write({ kind: 'comeback', of: b.id })}
              >
                This is a comeback of job {b.number}
              </button>
            )}
          </li>
        ))}
      </ul>
      <OtherProblems problems={problems} paths={[]} />
    </div>
  );
}

const QUOTED = { declined: 'Declined', deferred: 'Deferred', unanswered: 'Quoted, never answered' } as const;

const HELPED = ['not known', 'yes', 'no', 'for a while'] as const;

interface HowOftenDraft {
  readonly times: string;
  readonly hours: string;
}

/** Of a fault that comes and goes: how often it shows itself tells for how long a logger must wait for it. */
function HowOften(props: {
  shown: HowOftenDraft;
  problems: readonly Problem[];
  onChange: (shown: HowOftenDraft) => void;
}) {
  const { shown, problems, onChange } = props;
  const field = (name: 'times' | 'hours', label: string) => {
    const error = errorAt(problems, `/intake/shown/${name}`);
    return (
      <Field id={`shown-${name}`} label={label} error={error}>
        <input
          {...tie(`shown-${name}`, error)}
          className={`${inputLook} font-mono`}
          inputMode="decimal"
          autoComplete="off"
          value={shown[name]}
          onChange={(e) => onChange({ ...shown, [name]: e.target.value })}
        />
      </Field>
    );
  };
  const [times, hours] = [readNumber(shown.times), readNumber(shown.hours)];
  return (
    <fieldset className="mt-3">
      <legend className="font-semibold">How often did it show itself?</legend>
      <div className="grid grid-cols-2 gap-3">
        {field('times', 'Times')}
        {field('hours', 'In hours of running')}
      </div>
      {times !== undefined && times >= 1 && hours !== undefined && hours > 0 && (
        <p className="mb-3 text-sm text-soft">{recordingWords({ times, hours })}</p>
      )}
    </fieldset>
  );
}

/** What the customer said, as it is being changed, and how it is kept. */
function useIntake(view: JobView, onClose: () => void) {
  const router = useRouter();
  const by = usePerson();
  const [id] = useState(() => v7());
  const { shown, ...said } = view.intake;
  const [body, setBody] = useState<IntakeBody>(said);
  const [signs, setSigns] = useState(view.intake.signs.join('\n'));
  const [how, setHow] = useState<HowOftenDraft>({
    times: numberShown(shown?.times),
    hours: numberShown(shown?.hours),
  });
  const { busy, problems, post } = useSend();
  async function save(): Promise<void> {
    const intake = {
      ...body,
      // Half of it is sent too: the server says at the field what is missing.
      ...(how.times.trim() || how.hours.trim()
        ? { shown: { times: readNumber(how.times) ?? null, hours: readNumber(how.hours) ?? null } }
        : {}),
      replaced: body.replaced.filter((r) => r.what.trim()),
      signs: signs
        .split('\n')
        .map((s) => s.trim())
        .filter(Boolean),
    };
    if (!(await post(`/api/jobs/${view.job.id}/intake`, { id, by, intake }))) return;
    onClose();
    router.refresh();
  }
  return { body, setBody, signs, setSigns, how, setHow, busy, problems, save };
}

type Replaced = IntakeBody['replaced'];

/** What was replaced before, with an empty line for one more. */
function ReplacedBefore({ replaced, onChange }: { replaced: Replaced; onChange: (replaced: Replaced) => void }) {
  const lines = [...replaced, { what: '', by: '' }];
  const set = (i: number, change: Partial<Replaced[number]>): void =>
    onChange(lines.map((r, n) => (n === i ? { ...r, ...change } : r)).filter((r) => r.what.trim() || r.by.trim()));
  return (
    <fieldset className="mb-4">
      <legend className="font-semibold">Replaced before</legend>
      {lines.map((r, i) => (
        <div key={i} className="grid gap-2 sm:grid-cols-[1fr_1fr_9rem]">
          <input
            aria-label={tr`What was replaced, ${i + 1}`}
            placeholder="what"
            className={inputLook}
            value={r.what}
            maxLength={200}
            onChange={(e) => set(i, { what: e.target.value })}
          />
          <input
            aria-label={tr`By whom, ${i + 1}`}
            placeholder="by whom, when"
            className={inputLook}
            value={r.by}
            maxLength={200}
            onChange={(e) => set(i, { by: e.target.value })}
          />
          <select
            aria-label={tr`Did it help, ${i + 1}`}
            className={inputLook}
            value={r.helped ?? 'not known'}
            onChange={(e) => set(i, { helped: e.target.value as (typeof HELPED)[number] })}
          >
            {HELPED.map((h) => (
              <option key={h} value={h}>
                {h === 'not known' ? 'helped?' : tr`helped: ${h}`}
              </option>
            ))}
          </select>
        </div>
      ))}
    </fieldset>
  );
}

function EditIntake({ view, onClose }: { view: JobView; onClose: () => void }) {
  const { body, setBody, signs, setSigns, how, setHow, busy, problems, save } = useIntake(view, onClose);
  useBegun(true);
  const whenError = errorAt(problems, '/intake/when');
  return (
    <FormDialog wide onClose={onClose} title="When, and what was done before" onSubmit={() => void save()}>
      <p className="font-semibold">It shows itself</p>
      <Chips<DriveCondition>
        label="It shows itself"
        all={CONDITIONS}
        chosen={body.conditions}
        onChange={(conditions) => setBody({ ...body, conditions: [...conditions] })}
      />
      {body.conditions.includes('intermittent') && <HowOften shown={how} problems={problems} onChange={setHow} />}
      <Field id="intake-when" label="In their words" error={whenError}>
        <input
          className={inputLook}
          value={body.when ?? ''}
          maxLength={2000}
          onChange={(e) => setBody({ ...body, when: e.target.value })}
          {...tie('intake-when', whenError)}
        />
      </Field>
      <ReplacedBefore replaced={body.replaced} onChange={(replaced) => setBody({ ...body, replaced })} />
      <Field
        id="intake-signs"
        label="Signs of earlier hands"
        hint="one a line: wrong sealant, clips down, a trapped wire"
        error={errorAt(problems, '/intake/signs')}
      >
        <textarea
          id="intake-signs"
          rows={2}
          className={`${inputLook} py-2`}
          value={signs}
          onChange={(e) => setSigns(e.target.value)}
        />
      </Field>
      <PhotoField
        jobId={view.job.id}
        chosen={body.photos}
        onChange={(photos) => setBody((b) => ({ ...b, photos: [...photos] }))}
      />
      <OtherProblems
        problems={problems}
        paths={['/intake/when', '/intake/signs', '/intake/shown/times', '/intake/shown/hours']}
      />
      <Button type="submit" tone="strong" disabled={busy}>
        Save
      </Button>
    </FormDialog>
  );
}

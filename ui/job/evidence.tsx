'use client';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import { v7 } from 'uuid';
import { CONDITIONS, type DriveCondition } from '../../core/evidence/types';
import type { Problem } from '../../core/foundation/result';
import type { JobView } from '../../application/views';
import { Button } from '../kit/button';
import { Chips, Choice } from '../kit/chips';
import { FormDialog } from '../kit/dialog';
import { type Draft, errorAt } from '../kit/draft';
import { Field, inputLook, tie } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { usePerson, useMay } from '../kit/session';
import { useSend } from '../kit/use-send';
import type { EvidenceField } from '../../core/evidence/kinds/definition';
import { EVIDENCE_FORMS, type EvidenceForm, evidenceOf } from './evidence-fields';
import { PhotoField } from './photos';

const PARTS = ['plug', 'injector', 'sensor', 'module', 'coil', 'relay', 'fuse', 'actuator'] as const;

/** What is no meter reading: one button a kind. */
export function RecordEvidence({ view }: { view: JobView }) {
  const [form, setForm] = useState<EvidenceForm | null>(null);
  if (!useMay('job.record-evidence')) return null;
  return (
    <section aria-label="Other evidence" className="rounded-xl bg-card px-4 py-3">
      <h2 className="mb-2 font-semibold text-soft">Seen, swapped, driven: write it down</h2>
      <div className="flex flex-wrap gap-2">
        {EVIDENCE_FORMS.map((f) => (
          <Button key={f.kind} title={f.purpose} className="px-3" onClick={() => setForm(f)}>
            {f.name}
          </Button>
        ))}
      </div>
      {form && <EvidenceDialog key={form.kind} view={view} form={form} onClose={() => setForm(null)} />}
    </section>
  );
}

function EvidenceDialog({ view, form, onClose }: { view: JobView; form: EvidenceForm; onClose: () => void }) {
  const router = useRouter();
  const by = usePerson();
  const [id] = useState(() => v7());
  const [draft, setDraft] = useState<Draft>(() => accusedIn(view, form));
  const [conditions, setConditions] = useState<readonly DriveCondition[]>([]);
  const [photos, setPhotos] = useState<readonly string[]>([]);
  const { busy, problems, setProblems, post } = useSend();

  async function save(): Promise<void> {
    const read = evidenceOf(form, draft, conditions, photos);
    if ('problems' in read) {
      setProblems(read.problems);
      return;
    }
    if (!(await post(`/api/jobs/${view.job.id}/evidence`, { id, by, evidence: read.body }))) return;
    onClose();
    router.refresh();
  }
  return (
    <FormDialog onClose={onClose} title={form.name} description={form.purpose} onSubmit={() => void save()}>
      {form.caution && <p className="mb-3 rounded-lg border-l-4 border-ochre bg-panel p-3">{form.caution}</p>}
      {form.fields.map((f) =>
        f.kind === 'conditions' ? (
          <div key={f.field} className="mb-3">
            <p className="font-semibold">{f.label}</p>
            <Chips label={f.label} all={CONDITIONS} chosen={conditions} onChange={setConditions} />
          </div>
        ) : (
          <Asked
            key={f.field}
            field={f}
            draft={draft}
            problems={problems}
            onChange={(value) => setDraft({ ...draft, [f.field]: value })}
          />
        ),
      )}
      <PhotoField jobId={view.job.id} chosen={photos} onChange={setPhotos} />
      <OtherProblems problems={problems} paths={form.fields.map((f) => `/evidence/${f.field}`)} />
      <Button type="submit" tone="strong" disabled={busy}>
        Keep
      </Button>
      <datalist id="parts">
        {PARTS.map((p) => (
          <option key={p} value={p} />
        ))}
      </datalist>
    </FormDialog>
  );
}

/**
 * What is accused most is what a swap, a new part or a repair is about: it stands there already, to be
 * changed.
 */
function accusedIn({ known }: JobView, form: EvidenceForm): Draft {
  if (!ABOUT_A_PART.has(form.kind)) return {};
  const accused = known.statements.find(
    (s) => s.target.kind === 'part' && (s.stand === 'bad' || s.stand === 'suspect'),
  );
  if (!accused) return {};
  const { name, position } = accused.target;
  const at = position === null ? {} : { [form.kind === 'swap' ? 'from' : 'position']: String(position) };
  return { part: name, ...at };
}
const ABOUT_A_PART: ReadonlySet<string> = new Set(['swap', 'new-part']);

function Asked({
  field: f,
  draft,
  problems,
  onChange,
}: {
  field: EvidenceField;
  draft: Draft;
  problems: readonly Problem[];
  onChange: (value: string) => void;
}) {
  const error = errorAt(problems, `/evidence/${f.field}`);
  const id = `e-${f.field}`;
  if (f.options)
    return (
      <>
        <Choice label={f.label} options={f.options} value={draft[f.field] ?? null} onChange={onChange} />
        {error && (
          <p role="alert" className="-mt-2 mb-3 font-semibold text-rust">
            {error}
          </p>
        )}
      </>
    );
  const shared = { ...tie(id, error), className: inputLook, value: draft[f.field] ?? '' };
  const hint =
    f.hint ??
    (f.optional
      ? 'if it is one'
      : f.kind === 'position'
        ? 'cylinder number, or a name'
        : f.kind === 'cylinder'
          ? 'its number'
          : undefined);
  return (
    <Field id={id} label={f.label} error={error} {...(hint ? { hint } : {})}>
      {f.kind === 'long' ? (
        <textarea {...shared} rows={2} maxLength={2000} onChange={(e) => onChange(e.target.value)} />
      ) : (
        <input
          {...shared}
          maxLength={200}
          autoComplete="off"
          {...(f.kind === 'part' ? { list: 'parts' } : {})}
          {...(f.kind === 'position' || f.kind === 'cylinder' ? { inputMode: 'numeric' as const } : {})}
          onChange={(e) => onChange(e.target.value)}
        />
      )}
    </Field>
  );
}

'use client';
import { useState } from 'react';
import { v7 } from 'uuid';
import type { Clash } from '../../core/specifications/clash';
import type { SpecificationEntry } from '../../formats/specifications';
import type { SpecificationLine, SpecificationsView } from '../../application/specifications-view';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import type { Draft } from '../kit/draft';
import { DraftField, OtherProblems } from '../kit/form';
import { useSend } from '../kit/use-send';
import { draftOf, entryOfDraft, TEMPLATES } from './draft';
import { type LimitFields, LIMITS, NUMBERS, Numbers, OnlyWhen, WhatFor, WhereFrom } from './limit-fields';
import { SideBySide } from './plan-rows';
import { predictionWords } from './words';

const PATHS = [
  ...NUMBERS.map(([f]) => `${LIMITS}/${f}`),
  '/entry/test',
  '/entry/of',
  '/entry/school',
  '/entry/source',
  '/entry/documentDate',
  `${LIMITS}/unit`,
  `${LIMITS}/neighbours/maxRatio`,
  `${LIMITS}/neighbours/maxDifference`,
  '/entry/when',
];

/** Limits as a form. What they would meet on the shelf is shown side by side before they are taken. */
export function EditLimits({
  view,
  line,
  test,
  by,
  onClose,
  onDone,
}: {
  view: SpecificationsView;
  line: SpecificationLine | null;
  test: string | undefined;
  by: string;
  onClose: () => void;
  onDone: () => void;
}) {
  const first = view.tests.find((t) => t.id === test) ?? view.tests.find((t) => t.quantity === 'resistance');
  const [draft, setDraft] = useState<Draft>(() => draftOf(line ? startOf(line) : emptyEntry(first)));
  const [id] = useState(() => v7());
  const [met, setMet] = useState<{ entry: SpecificationEntry; clashes: readonly Clash[] } | null>(null);
  const { busy, problems, setProblems, post } = useSend();
  const change = (field: string, value: string): void => {
    setMet(null);
    setDraft((d) => withTest({ ...d, [field]: value }, field, view));
  };
  const fields = { draft, problems, onChange: change };

  async function look(): Promise<void> {
    const entry = entryOfDraft(draft);
    if (!entry.ok) setProblems(entry.error);
    const answer = entry.ok
      ? await post<{ clashes: readonly Clash[] }>('/api/specifications/clashes', entry.value)
      : null;
    if (entry.ok && answer) setMet({ entry: entry.value, clashes: answer.clashes });
  }

  async function take(): Promise<void> {
    if (!met) return;
    const there = met.clashes.find((c) => c.kind === 'revision' || c.kind === 'same');
    if (await post('/api/specifications', { id, by, entry: met.entry, onRevision: there?.with.revision ?? 0 }))
      onDone();
  }

  return (
    <FormDialog
      wide
      onClose={onClose}
      title={line && !line.ships ? 'Change limits' : 'Limits for the shelf'}
      description="A technician’s stay a draft: they judge at once and say that nobody has approved them."
      onSubmit={() => void (met ? take() : look())}
    >
      <WhatFor fields={fields} view={view} />
      <Numbers {...fields} />
      <More {...fields} />
      <OnlyWhen {...fields} />
      <WhereFrom {...fields} />
      <OtherProblems problems={problems} paths={PATHS} />
      {met && <Met clashes={met.clashes} />}
      <Button type="submit" tone="strong" disabled={busy || met?.clashes.some((c) => c.kind === 'same')}>
        {met ? 'Put on the shelf' : 'See what it meets on the shelf'}
      </Button>
    </FormDialog>
  );
}

function Met({ clashes }: { clashes: readonly Clash[] }) {
  if (clashes.length === 0)
    return (
      <p role="status" className="mb-3 font-semibold text-eelgrass">
        Nothing on the shelf is about the same thing.
      </p>
    );
  return (
    <div role="status" className="mb-3">
      {clashes.map((c) => (
        <SideBySide key={c.with.id} clash={c} />
      ))}
    </div>
  );
}

/**
 * What has no field of its own: transfer functions, positions, sequences, as JSON with beginnings to fill in.
 */
function More(fields: LimitFields) {
  const { draft, onChange } = fields;
  return (
    <details className="mb-4" open={Boolean(draft.more)}>
      <summary className="min-h-8 cursor-pointer font-semibold">Transfer function, by position, sequence</summary>
      <div className="my-2 flex flex-wrap gap-2">
        {Object.entries(TEMPLATES).map(([name, template]) => (
          <button
            key={name}
            type="button"
            className="min-h-10 rounded-lg border border-line px-3 text-sm"
            onClick={() => onChange('more', JSON.stringify(template, null, 1))}
          >
            {name}
          </button>
        ))}
      </div>
      <DraftField
        {...fields}
        field="more"
        path={`${LIMITS}/more`}
        label="As JSON"
        hint="replace the numbers by those of the sheet"
        rows={7}
        mono
      />
      <Predicts draft={draft} />
    </details>
  );
}

/** What the typed function would ask for at a few points: the quickest check of a slip. */
function Predicts({ draft }: { draft: Draft }) {
  const entry = entryOfDraft({ ...draft, source: draft.source || '-', lower: '', upper: '' });
  const words = entry.ok ? predictionWords(entry.value.limits) : '';
  return words && <p className="text-sm text-soft">{words}</p>;
}

/** A rule of thumb is made one's own: as a draft, for any engine. */
const startOf = (line: SpecificationLine): SpecificationEntry =>
  line.ships ? { ...line.entry, source: '', status: 'draft' } : line.entry;

const emptyEntry = (t: SpecificationsView['tests'][number] | undefined): SpecificationEntry => ({
  test: t?.id ?? '',
  scope: 'family',
  limits: { quantity: t?.quantity ?? 'resistance', unit: t?.unit ?? 'ohm' },
  source: '',
  status: 'draft',
});

/** Another test reads another quantity. */
function withTest(draft: Draft, field: string, view: SpecificationsView): Draft {
  const test = field === 'test' ? view.tests.find((t) => t.id === draft.test) : undefined;
  return test
    ? { ...draft, quantity: test.quantity, unit: test.unit }
    : field === 'scope'
      ? { ...draft, of: '' }
      : draft;
}

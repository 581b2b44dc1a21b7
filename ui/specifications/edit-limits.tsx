'use client';
import { useState } from 'react';
import { v7 } from 'uuid';
import type { Clash } from '../../core/specifications/clash';
import type { SpecificationEntry } from '../../formats/specifications';
import type { SpecificationLine, SpecificationsView } from '../../application/specifications-view';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import type { Draft } from '../kit/draft';
import { DraftField, OtherProblems, Row } from '../kit/form';
import { useSend } from '../kit/use-send';
import { draftOf, entryOfDraft, TEMPLATES } from './draft';
import { SideBySide } from './plan-rows';
import { predictionWords } from './words';

const L = '/entry/limits';
const NUMBERS = [
  ['lower', 'Lower limit', 'inclusive'],
  ['upper', 'Upper limit', 'inclusive'],
  ['steadyWithin', 'Steady within', 'a wander up to this'],
  ['watchLower', 'Not liked below', ''],
  ['watchUpper', 'Not liked above', ''],
  ['recheckMargin', 'Recheck margin', 'fraction beyond'],
  ['shortBelow', 'Short below', ''],
  ['openAbove', 'Open above', ''],
  ['referenceTemperature_degC', 'Reference, °C', 'default 20'],
] as const;
const PATHS = [
  ...NUMBERS.map(([f]) => `${L}/${f}`),
  '/entry/test',
  '/entry/of',
  '/entry/school',
  '/entry/source',
  '/entry/documentDate',
  `${L}/unit`,
  `${L}/neighbours/maxRatio`,
  `${L}/neighbours/maxDifference`,
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
    <Dialog
      open
      wide
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
      title={line && !line.ships ? 'Change limits' : 'Limits for the shelf'}
      description="A technician’s stay a draft: they judge at once and say that nobody has approved them."
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void (met ? take() : look());
        }}
      >
        <Row>
          <DraftField
            {...fields}
            field="test"
            path="/entry/test"
            label="Test"
            options={view.tests.map((t) => [t.id, t.name])}
          />
          <DraftField
            {...fields}
            field="scope"
            path="/entry/scope"
            label="For"
            options={[
              ['part', 'Exactly this part'],
              ['family', 'Engine family'],
              ['depot', 'Depot'],
              ['general', 'Any engine'],
            ]}
          />
          {draft.scope === 'family' && (
            <DraftField
              {...fields}
              field="of"
              path="/entry/of"
              label="Family"
              options={[['', 'choose'], ...view.families.map((f) => [f, f] as const)]}
            />
          )}
          {draft.scope === 'depot' && (
            <DraftField
              {...fields}
              field="of"
              path="/entry/of"
              label="Depot"
              options={[['', 'choose'], ...view.depots.map((d) => [d.name, d.name] as const)]}
            />
          )}
          {draft.scope === 'part' && <DraftField {...fields} field="of" path="/entry/of" label="Part code" />}
        </Row>
        <Row>
          <DraftField {...fields} field="unit" path={`${L}/unit`} label="Unit" />
          {NUMBERS.map(([f, label, hint]) => (
            <DraftField key={f} {...fields} field={f} path={`${L}/${f}`} label={label} hint={hint} mono />
          ))}
          <DraftField
            {...fields}
            field="maxRatio"
            path={`${L}/neighbours/maxRatio`}
            label="Neighbours, at most"
            hint="times apart"
            mono
          />
          <DraftField
            {...fields}
            field="maxDifference"
            path={`${L}/neighbours/maxDifference`}
            label="or"
            hint="units apart"
            mono
          />
          <DraftField
            {...fields}
            field="material"
            path={`${L}/material`}
            label="Conductor"
            options={[
              ['', 'no correction'],
              ['copper', 'copper'],
              ['aluminium', 'aluminium'],
              ['platinum', 'platinum'],
            ]}
          />
        </Row>
        <More {...fields} />
        <details
          className="mb-4"
          open={Boolean(
            draft['when.systemVoltage_V'] ||
            draft['when.connection'] ||
            draft['when.key'] ||
            draft['when.engine'] ||
            draft['when.fromTemperature_degC'] ||
            draft['when.toTemperature_degC'] ||
            draft.school,
          )}
        >
          <summary className="min-h-8 cursor-pointer font-semibold">Only when, and school</summary>
          <Row>
            <DraftField
              {...fields}
              field="when.systemVoltage_V"
              path="/entry/when/systemVoltage_V"
              label="System voltage"
              hint="V"
              mono
            />
            <DraftField
              {...fields}
              field="when.connection"
              path="/entry/when/connection"
              label="Connection"
              hint="at-part, through-harness …"
            />
            <DraftField {...fields} field="when.key" path="/entry/when/key" label="Key" />
            <DraftField {...fields} field="when.engine" path="/entry/when/engine" label="Engine" />
            <DraftField
              {...fields}
              field="when.fromTemperature_degC"
              path="/entry/when/fromTemperature_degC"
              label="From, °C"
              mono
            />
            <DraftField
              {...fields}
              field="when.toTemperature_degC"
              path="/entry/when/toTemperature_degC"
              label="To, °C"
              mono
            />
            <DraftField {...fields} field="school" path="/entry/school" label="School" hint="strict, tolerant …" />
          </Row>
        </details>
        <Row>
          <DraftField {...fields} field="source" path="/entry/source" label="Source" hint="as the bench names it" />
          <DraftField {...fields} field="document" path="/entry/document" label="Document" />
          <DraftField {...fields} field="page" path="/entry/page" label="Page" />
          <DraftField {...fields} field="documentRevision" path="/entry/documentRevision" label="Its revision" />
          <DraftField {...fields} field="documentDate" path="/entry/documentDate" label="Its date" hint="2026-11-23" />
          <DraftField
            {...fields}
            field="status"
            path="/entry/status"
            label="Status"
            options={[
              ['draft', 'draft'],
              ['approved', 'approved'],
              ['rule-of-thumb', 'rule of thumb'],
            ]}
          />
        </Row>
        <OtherProblems problems={problems} paths={PATHS} />
        {met && <Met clashes={met.clashes} />}
        <Button type="submit" tone="strong" disabled={busy || met?.clashes.some((c) => c.kind === 'same')}>
          {met ? 'Put on the shelf' : 'See what it meets on the shelf'}
        </Button>
      </form>
    </Dialog>
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

/** What has no field of its own: transfer functions, positions, sequences, as JSON with beginnings to fill in. */
function More(fields: {
  draft: Draft;
  problems: readonly { path: string; message: string }[];
  onChange: (field: string, value: string) => void;
}) {
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
        path={`${L}/more`}
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

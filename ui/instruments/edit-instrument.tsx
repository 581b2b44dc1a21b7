'use client';
import { tr } from '../../core/locale/translate';
import { useState } from 'react';
import { v7 } from 'uuid';
import type { InstrumentView } from '../../application/views';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import type { Draft } from '../kit/draft';
import { DraftField, OtherProblems } from '../kit/form';
import { useSend } from '../kit/use-send';
import { BAUDS } from '../../core/instrument/link';
import { PatternTry } from './pattern-try';
import { draftOfInstrument, instrumentOfDraft, KINDS } from './draft';

const PATHS = [
  '/name',
  '/instrument/kind',
  '/calibrationDue',
  '/instrument/clamp_mVperA',
  '/instrument/leadRepeatability_ohm',
  '/instrument/accuracy',
  '/link/host',
  '/link/port',
  '/link/baud',
  '/link/pattern',
];

/** An instrument as a form. A change makes a new row: what was read with the old one keeps it. */
export function EditInstrument({
  depotId,
  instrument,
  by,
  onClose,
  onDone,
}: {
  depotId: string;
  instrument: InstrumentView | null;
  by: string;
  onClose: () => void;
  onDone: () => void;
}) {
  const [draft, setDraft] = useState<Draft>(() => draftOfInstrument(instrument));
  const [id] = useState(() => v7());
  const { busy, problems, setProblems, post } = useSend();
  const fields = {
    draft,
    problems,
    onChange: (field: string, value: string) => setDraft((d) => ({ ...d, [field]: value })),
  };
  async function save(): Promise<void> {
    const read = instrumentOfDraft(draft);
    if (!read.ok) setProblems(read.error);
    else if (await post('/api/instruments', { id, depotId, by, ...read.value, replaces: instrument?.id ?? null }))
      onDone();
  }
  return (
    <FormDialog
      onClose={onClose}
      title={instrument ? tr`Change ${instrument.name}` : 'An instrument'}
      description="Accuracy as its manual states it. Without it only the typed digits limit what can be said."
      onSubmit={() => void save()}
    >
      <WhatItIs fields={fields} />
      <WayIn fields={fields} />
      <OtherProblems problems={problems} paths={PATHS} />
      <Button type="submit" tone="strong" disabled={busy}>
        Keep
      </Button>
    </FormDialog>
  );
}

type Fields = Omit<Parameters<typeof DraftField>[0], 'field' | 'path' | 'label'>;

function WhatItIs({ fields }: { fields: Fields }) {
  return (
    <>
      <div className="grid gap-x-3 sm:grid-cols-2">
        <DraftField {...fields} field="name" path="/name" label="Name" />
        <DraftField {...fields} field="kind" path="/instrument/kind" label="Kind" options={KINDS.map((k) => [k, k])} />
        <DraftField
          {...fields}
          field="calibrationDue"
          path="/calibrationDue"
          label="Calibration due"
          hint="2027-03-31"
        />
        <DraftField
          {...fields}
          field="clamp_mVperA"
          path="/instrument/clamp_mVperA"
          label="Clamp, mV per A"
          hint="1, 10, 100"
          mono
        />
        <DraftField
          {...fields}
          field="leadRepeatability_ohm"
          path="/instrument/leadRepeatability_ohm"
          label="Leads repeat within"
          hint="Ω, contact included"
          mono
        />
      </div>
      <DraftField
        {...fields}
        field="accuracy"
        path="/instrument/accuracy"
        label="Ranges, one per line"
        hint="resistance 200 0.8% 3 0.1: up to 200 Ω, 0.8 % of reading, 3 counts of 0.1 Ω"
        rows={7}
        mono
      />
    </>
  );
}

/** How its values come to the bench. */
function WayIn({ fields }: { fields: Fields }) {
  const { way, speaks, pattern } = fields.draft;
  return (
    <fieldset className="mb-3 rounded-lg border border-line p-3">
      <legend className="px-1 font-semibold">How its values come to the bench</legend>
      <DraftField
        {...fields}
        field="way"
        path="/link/kind"
        label="Way"
        options={[
          ['typed', 'typed, or it types itself like a keyboard'],
          ['network', 'in the network (SCPI over TCP)'],
          ['serial', 'serial adapter at the tablet, cable or radio'],
        ]}
      />
      {way === 'network' && (
        <div className="grid gap-x-3 sm:grid-cols-[2fr_1fr]">
          <DraftField {...fields} field="host" path="/link/host" label="Address" hint="10.0.0.31" mono />
          <DraftField {...fields} field="port" path="/link/port" label="Port" hint="mostly 5025" mono />
        </div>
      )}
      {way === 'serial' && (
        <div className="grid gap-x-3 sm:grid-cols-2">
          <DraftField
            {...fields}
            field="baud"
            path="/link/baud"
            label="Baud"
            options={BAUDS.map((b) => [String(b), String(b)])}
          />
          <DraftField
            {...fields}
            field="speaks"
            path="/link/speaks"
            label="It speaks"
            options={[
              ['unasked', 'by itself, a line for each value'],
              ['scpi', 'SCPI, when it is asked'],
              ['pattern', 'lines that a pattern of ours reads'],
            ]}
          />
        </div>
      )}
      {way === 'serial' && speaks === 'pattern' && (
        <>
          <DraftField
            {...fields}
            field="pattern"
            path="/link/pattern"
            label="Pattern"
            hint="(?P<value>[-+.0-9]+|OL) *(?P<unit>[A-Za-z]+)"
            mono
          />
          <PatternTry pattern={pattern ?? ''} />
        </>
      )}
    </fieldset>
  );
}

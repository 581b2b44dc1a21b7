'use client';
import { tr } from '../../core/locale/translate';
import { useMemo, useState } from 'react';
import { v7 } from 'uuid';
import type { Wiring } from '../../core/circuits/expand';
import type { LibraryCircuit } from '../../core/circuits/types';
import type { TestDefinition } from '../../core/catalogue/types';
import { Button } from '../kit/button';
import { DraftField, OtherProblems, Row } from '../kit/form';
import { useSend } from '../kit/use-send';
import { Schematic } from '../job/schematic';
import { circuitOf, draftOf, valueKeys } from './draft';

const NOTHING: ReadonlyMap<string, number> = new Map();

interface EditCircuitProps {
  readonly circuit: LibraryCircuit;
  readonly isCopy: boolean;
  readonly wiring: Wiring;
  readonly tests: readonly TestDefinition[];
  readonly families: readonly string[];
  readonly by: string;
  readonly onClose: () => void;
  readonly onDone: (id: string) => void;
}

/** Changes a circuit, or a copy of one; the drawing follows as long as what is typed can be drawn. */
export function EditCircuit(props: EditCircuitProps) {
  const { circuit, isCopy, wiring, families, onClose } = props;
  const { f, drawn, isRead, busy, save } = useEditCircuit(props);
  const shown = f.problems;
  return (
    <form
      className="mt-3"
      aria-label={isCopy ? 'Copy of a circuit' : 'Change a circuit'}
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      <div className="max-w-4xl" data-testid="drawn">
        <Schematic circuit={drawn} wiring={wiring} shares={NOTHING} probe={null} named />
      </div>
      {!isRead && (
        <p role="status" className="mb-2 text-ochre">
          The drawing shows the last state without errors.
        </p>
      )}
      <OtherProblems
        problems={shown}
        paths={[
          '/circuit/id',
          '/circuit/name',
          '/circuit/purpose',
          '/circuit/families',
          '/circuit/values',
          '/circuit/more',
          '/circuitId',
        ]}
      />
      <Row>
        <DraftField {...f} field="name" path="/circuit/name" label="Name" />
        <DraftField
          {...f}
          field="id"
          path="/circuit/id"
          label="Short name"
          hint="small letters and hyphens"
          disabled={!isCopy}
          mono
        />
        <DraftField
          {...f}
          field="families"
          path="/circuit/families"
          label="Engine families"
          hint={tr`empty: any; ${families.join(', ')}`}
        />
      </Row>
      <DraftField {...f} field="purpose" path="/circuit/purpose" label="Purpose" />
      <GoodParts {...f} circuit={circuit} />
      <details>
        <summary className="min-h-8 cursor-pointer font-semibold">
          Elements, faults, test points and drawing, as JSON
        </summary>
        <DraftField {...f} field="more" path="/circuit/more" label="By the schema of docs/formats" rows={18} mono />
      </details>
      <div className="mt-3 flex gap-2">
        <Button type="submit" tone="strong" disabled={busy || !isRead}>
          Keep
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </form>
  );
}

/** A circuit as it is being changed: what is typed, what of it can be drawn, and how it is kept. */
function useEditCircuit({ circuit, isCopy, tests, by, onDone }: EditCircuitProps) {
  const [draft, setDraft] = useState(() => draftOf(circuit, isCopy));
  const { busy, problems, setProblems, post } = useSend();
  const read = useMemo(() => circuitOf(draft, circuit.revision, tests), [draft, circuit.revision, tests]);
  const [drawn, setDrawn] = useState(circuit);
  if (read.ok && read.value !== drawn) setDrawn(read.value);
  const change = (field: string, value: string): void => {
    setDraft((d) => ({ ...d, [field]: value }));
    setProblems([]);
  };
  const shown = read.ok ? problems : read.error;
  const f = { draft, problems: shown, onChange: change };
  async function save(): Promise<void> {
    if (!read.ok) return;
    if (await post('/api/circuits', { id: v7(), by, circuitId: read.value.id, circuit: read.value }))
      onDone(read.value.id);
  }
  return { f, drawn, isRead: read.ok, busy, save };
}

function GoodParts({
  circuit,
  ...f
}: Omit<Parameters<typeof DraftField>[0], 'field' | 'path' | 'label'> & { circuit: LibraryCircuit }) {
  const keys = valueKeys(f.draft).filter((k) => (circuit.values[k]?.value ?? 0) < 1e9);
  return (
    <fieldset>
      <legend className="font-semibold">Good parts: value and spread in percent</legend>
      <div className="grid gap-x-4 sm:grid-cols-2 xl:grid-cols-3">
        {keys.map((k) => (
          <div key={k} className="grid grid-cols-[minmax(0,1fr)_6rem] gap-2">
            <DraftField
              {...f}
              field={`value ${k}`}
              path={`/circuit/values/${k}/value`}
              label={`${circuit.values[k]?.what ?? k}, ${circuit.values[k]?.unit === 'V' ? 'V' : 'Ω'}`}
              mono
            />
            <DraftField {...f} field={`spread ${k}`} path={`/circuit/values/${k}/spread`} label={'± %'} mono />
          </div>
        ))}
      </div>
    </fieldset>
  );
}

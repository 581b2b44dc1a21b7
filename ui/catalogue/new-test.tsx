'use client';
import { useState } from 'react';
import { v7 } from 'uuid';
import { type Asked, beginTest } from '../../core/catalogue/beginning';
import { LAYOUTS, type TestDefinition } from '../../core/catalogue/types';
import { QUANTITIES } from '../../core/quantity/units';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import type { Draft } from '../kit/draft';
import { DraftField, OtherProblems, Row } from '../kit/form';
import { useSend } from '../kit/use-send';
import { LAYOUT_WORDS, quantityWords } from './words';

const FIELDS = ['name', 'area', 'part', 'quantity', 'layout', 'positions', 'probe', 'proves'] as const;
const SHOWN = FIELDS.map((f) => `/test/${f}`);

/**
 * A test from nothing: what only a person can say is asked; the rest is usual, and can be changed before it
 * is kept.
 */
export function NewTest({
  areas,
  taken,
  by,
  onAll,
  onClose,
  onDone,
}: {
  areas: readonly string[];
  taken: ReadonlySet<string>;
  by: string;
  /** Goes on with all fields. */
  onAll: (test: TestDefinition) => void;
  onClose: () => void;
  onDone: (id: string) => void;
}) {
  const [draft, setDraft] = useState<Draft>({
    area: areas[0] ?? 'Harness',
    quantity: 'resistance',
    layout: 'cylinders',
  });
  const [id] = useState(() => v7());
  const { busy, problems, setProblems, post } = useSend();
  const at = (field: (typeof FIELDS)[number]) => ({
    draft,
    problems,
    onChange: (f: string, value: string) => setDraft((d) => ({ ...d, [f]: value })),
    field,
    path: `/test/${field}`,
  });
  const byCylinder = draft.layout === 'cylinders';
  const made = (): TestDefinition => beginTest(askedIn(draft), taken);
  async function save(): Promise<void> {
    const missing = FIELDS.filter((f) => !(f === 'positions' && byCylinder) && !draft[f]?.trim());
    if (missing.length) {
      setProblems(missing.map((f) => ({ path: `/test/${f}`, message: 'This must be said.' })));
      return;
    }
    const test = made();
    if (await post('/api/catalogue', { id, by, testId: test.id, test })) onDone(test.id);
  }
  return (
    <FormDialog
      wide
      onClose={onClose}
      title="A test of our own"
      description="Unit, tool, cautions and what must be true are those that such tests mostly have."
      onSubmit={() => void save()}
    >
      <Row>
        <DraftField {...at('name')} label="Name" />
        <DraftField {...at('part')} label="What is measured" hint="plug, driver …" />
        <DraftField {...at('area')} label="Area" options={areas.map((a) => [a, a])} />
        <DraftField {...at('quantity')} label="Reads" options={QUANTITIES.map((q) => [q, quantityWords(q)])} />
        <DraftField {...at('layout')} label="Positions are" options={LAYOUTS.map((l) => [l, LAYOUT_WORDS[l]])} />
      </Row>
      {!byCylinder && <DraftField {...at('positions')} label="Positions, one per line" rows={4} />}
      <DraftField {...at('probe')} label="Where the probes go" rows={2} />
      <DraftField {...at('proves')} label="What it proves, in a sentence" />
      <OtherProblems problems={problems} paths={SHOWN} />
      <div className="flex flex-wrap gap-2">
        <Button type="submit" tone="strong" disabled={busy}>
          Keep
        </Button>
        <Button onClick={() => onAll(made())}>All fields</Button>
      </div>
    </FormDialog>
  );
}

function askedIn(draft: Draft): Asked {
  const text = (field: string): string => (draft[field] ?? '').trim();
  return {
    name: text('name'),
    area: text('area'),
    part: text('part'),
    quantity: QUANTITIES.find((q) => q === draft.quantity) ?? 'resistance',
    layout: LAYOUTS.find((l) => l === draft.layout) ?? 'cylinders',
    positions: text('positions')
      .split('\n')
      .map((p) => p.trim())
      .filter(Boolean),
    probe: text('probe'),
    proves: text('proves'),
  };
}

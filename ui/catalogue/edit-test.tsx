'use client';
import { useState } from 'react';
import { v7 } from 'uuid';
import { LAYOUTS, type TestDefinition } from '../../core/catalogue/types';
import { QUANTITIES } from '../../core/quantity/units';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import type { Draft } from '../kit/draft';
import { DraftField, OtherProblems, Row } from '../kit/form';
import { useSend } from '../kit/use-send';
import { draftOfTest, testOfDraft } from './draft';
import { LAYOUT_WORDS, quantityWords } from './words';

const TOOLS = [
  'multimeter',
  'clamp',
  'scan tool',
  'gauge',
  'stopwatch',
  'measuring glass',
  'feeler gauge',
  'logger',
  'eye and hand',
] as const;
const SHOWN = [
  'id',
  'name',
  'purpose',
  'part',
  'area',
  'quantity',
  'unit',
  'layout',
  'positions',
  'probe',
  'steps',
  'states',
  'cautions',
  'minutes',
  'people',
  'tool/mode',
  'connection',
  'condition/key',
  'condition/engine',
  'proves',
  'cannotProve',
  'shared',
  'uses',
].map((f) => `/test/${f}`);

/** A test as a form. It is kept as the workshop's own; runs that have begun keep the test as it was. */
export function EditTest({
  test,
  isNew,
  areas,
  by,
  onClose,
  onDone,
}: {
  test: TestDefinition;
  isNew: boolean;
  areas: readonly string[];
  by: string;
  onClose: () => void;
  onDone: (id: string) => void;
}) {
  const [draft, setDraft] = useState<Draft>(() => draftOfTest(test));
  const [id] = useState(() => v7());
  const { busy, problems, setProblems, post } = useSend();
  const fields = {
    draft,
    problems,
    onChange: (field: string, value: string) => setDraft((d) => ({ ...d, [field]: value })),
  };
  const at = (field: string, path = field) => ({ ...fields, field, path: `/test/${path}` });
  async function save(): Promise<void> {
    const read = testOfDraft(draft);
    if (!read.ok) setProblems(read.error);
    else if (await post('/api/catalogue', { id, by, testId: read.value.id, test: read.value })) onDone(read.value.id);
  }
  return (
    <FormDialog
      wide
      onClose={onClose}
      title={isNew ? 'A test of our own' : 'Change our test'}
      description="Runs that have begun keep the test as it was."
      onSubmit={() => void save()}
    >
      <Row>
        <DraftField {...at('name')} label="Name" />
        <DraftField {...at('id')} label="Id" hint="lower case, hyphens" disabled={!isNew} mono />
        <DraftField {...at('area')} label="Area" options={[...new Set([...areas, test.area])].map((a) => [a, a])} />
      </Row>
      <DraftField {...at('purpose')} label="Purpose, in a sentence" />
      <HowItIsRead at={at} />
      <WhatIsDone at={at} layout={draft.layout} />
      <DraftField {...at('probe')} label="Where the probes go" rows={2} />
      <div className="grid gap-x-3 md:grid-cols-2">
        <DraftField {...at('proves')} label="Proves" />
        <DraftField {...at('cannotProve')} label="Cannot prove" />
      </div>
      <details className="mb-4">
        <summary className="min-h-8 cursor-pointer font-semibold">
          Advice, default rules, probes by position, groups
        </summary>
        <DraftField {...at('more')} label="As JSON" rows={10} mono />
      </details>
      <OtherProblems problems={problems} paths={SHOWN} />
      <Button type="submit" tone="strong" disabled={busy}>
        Keep
      </Button>
    </FormDialog>
  );
}

type At = (field: string, path?: string) => Omit<Parameters<typeof DraftField>[0], 'label'>;

function HowItIsRead({ at }: { at: At }) {
  return (
    <Row>
      <DraftField {...at('quantity')} label="Reads" options={QUANTITIES.map((q) => [q, quantityWords(q)])} />
      <DraftField {...at('unit')} label="Unit" hint="seen for pass or fail" />
      <DraftField {...at('part')} label="What is measured" hint="plug, driver …" />
      <DraftField {...at('layout')} label="Positions are" options={LAYOUTS.map((l) => [l, LAYOUT_WORDS[l]])} />
      <DraftField {...at('toolKind', 'tool/kind')} label="Read with" options={TOOLS.map((t) => [t, t])} />
      <DraftField {...at('toolMode', 'tool/mode')} label="set to" />
      <DraftField {...at('minutes')} label="Minutes" mono />
      <DraftField {...at('people')} label="People" mono />
      <DraftField {...at('connection')} label="Connection" />
      <DraftField {...at('key', 'condition/key')} label="Key" />
      <DraftField {...at('engine', 'condition/engine')} label="Engine" />
      <DraftField {...at('shared')} label="What they share" hint="if all do" />
    </Row>
  );
}

function WhatIsDone({ at, layout }: { at: At; layout: string | undefined }) {
  return (
    <div className="grid gap-x-3 md:grid-cols-2">
      <DraftField
        {...at('positions')}
        label="Positions, one per line"
        hint={layout === 'cylinders' ? 'of the engine' : 'in order'}
        rows={6}
        disabled={layout === 'cylinders'}
      />
      <DraftField {...at('steps')} label="Steps, one per line" rows={6} />
      <DraftField {...at('states')} label="What must be true" hint="id, or id: label: why" rows={4} mono />
      <DraftField {...at('cautions')} label="Cautions" hint="id, or id: text" rows={4} mono />
      <DraftField {...at('uses')} label="Uses up, one per line" hint="what; minutes of work it is worth" rows={2} />
    </div>
  );
}

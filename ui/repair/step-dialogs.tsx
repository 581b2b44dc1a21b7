'use client';
import { tr } from '../../core/locale/translate';
import { useState } from 'react';
import type { JobView } from '../../application/views';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { errorAt } from '../kit/draft';
import { Field, inputLook, tie } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { useKeepData } from './keep-data';

/** What a step is to reach, from the service information; a lead's to enter. */
export function ValueDialog({
  view,
  name,
  what,
  onClose,
}: {
  view: JobView;
  name: string;
  what: string;
  onClose: () => void;
}) {
  const [value, setValue] = useState('');
  const [source, setSource] = useState('');
  const { busy, problems, keep } = useKeepData();
  const errors = { value: errorAt(problems, '/body/value'), source: errorAt(problems, '/source') };
  async function save(): Promise<void> {
    if (
      await keep({
        family: view.unit.family,
        kind: 'fitting',
        key: name,
        body: { value: value.trim() },
        source: source.trim(),
      })
    )
      onClose();
  }
  return (
    <FormDialog
      onClose={onClose}
      title="Value from the service information"
      description={tr`${what}, for ${view.unit.family}`}
      onSubmit={() => void save()}
    >
      <Field id="asked-value" label="Value" hint="with its unit: 18 Nm, 13 lbf ft, 90°" error={errors.value}>
        <input
          className={`${inputLook} font-mono`}
          value={value}
          maxLength={60}
          onChange={(e) => setValue(e.target.value)}
          {...tie('asked-value', errors.value)}
        />
      </Field>
      <Field id="asked-source" label="Source" hint="document, page, revision" error={errors.source}>
        <input
          className={inputLook}
          value={source}
          maxLength={200}
          onChange={(e) => setSource(e.target.value)}
          {...tie('asked-source', errors.source)}
        />
      </Field>
      <OtherProblems problems={problems} paths={['/body/value', '/source']} />
      <Button type="submit" tone="strong" disabled={busy}>
        Keep
      </Button>
    </FormDialog>
  );
}

'use client';
import { useState } from 'react';
import { v7 } from 'uuid';
import type { RequiredState } from '../../core/catalogue/types';
import { Button } from '../kit/button';
import { Choice } from '../kit/chips';
import { FormDialog } from '../kit/dialog';
import { errorAt } from '../kit/draft';
import { Field, inputLook, tie } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';

/**
 * A lead signs off a state that cannot be had here: it stays unconfirmed, and the job says who answered for
 * it and why.
 */
export function Override({
  runId,
  states,
  onClose,
}: {
  runId: string;
  states: readonly RequiredState[];
  onClose: () => void;
}) {
  const by = usePerson();
  const [id] = useState(() => v7());
  const [state, setState] = useState<string | null>(states.length === 1 ? (states[0]?.id ?? null) : null);
  const [because, setBecause] = useState('');
  const { busy, problems, setProblems, post } = useSend();
  async function save(): Promise<void> {
    if (state === null) {
      setProblems([{ path: '/state', message: 'Choose one.' }]);
      return;
    }
    if (!because.trim()) {
      setProblems([{ path: '/because', message: 'Say why it is safe to go on without.' }]);
      return;
    }
    if (await post(`/api/runs/${runId}/override`, { id, by, state, because })) onClose();
  }
  const error = errorAt(problems, '/because');
  return (
    <FormDialog
      onClose={onClose}
      title="Sign off what cannot be had"
      description="The state stays unconfirmed on the result. The maker’s service information and the site’s rules go before any sign-off."
      onSubmit={() => void save()}
    >
      <Choice label="Without" value={state} onChange={setState} options={states.map((s) => [s.id, s.label] as const)} />
      <Field id="override-because" label="Why it is safe to go on" error={error}>
        <textarea
          rows={2}
          className={`${inputLook} py-2`}
          value={because}
          maxLength={2000}
          onChange={(e) => setBecause(e.target.value)}
          {...tie('override-because', error)}
        />
      </Field>
      <OtherProblems problems={problems} paths={['/because']} />
      <Button type="submit" tone="strong" disabled={busy}>
        Sign as {by}
      </Button>
    </FormDialog>
  );
}

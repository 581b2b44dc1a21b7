'use client';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import type { Problem } from '../../core/foundation/result';
import type { YardView } from '../../application/views';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import { Field, inputLook } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { sendBody } from '../kit/send';

const TIMEOUT_ms = 120_000;

/** A job that was begun elsewhere: its bundle is checked as a whole, then it goes on here. */
export function ImportJobDialog({ yard, onClose }: { yard: YardView; onClose: () => void }) {
  const router = useRouter();
  const [depot, setDepot] = useState(yard.depots[0]?.id ?? '');
  const [busy, setBusy] = useState(false);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  async function take(file: File | null): Promise<void> {
    if (!file) {
      setProblems([{ path: '', message: 'Choose the zip file of the job.' }]);
      return;
    }
    setBusy(true);
    const sent = await sendBody<{ id: string }>(`/api/bundles?depot=${depot}`, file, 'application/zip', TIMEOUT_ms);
    setBusy(false);
    if (sent.ok) router.push(`/jobs/${sent.value.id}`);
    else
      setProblems(
        sent.error.kind === 'refused'
          ? sent.error.problem.errors
          : [
              {
                path: '',
                message:
                  sent.error.kind === 'unreachable'
                    ? 'No server. Nothing was taken in; try again.'
                    : sent.error.message,
              },
            ],
      );
  }
  return (
    <FormDialog
      onClose={onClose}
      title="A job from elsewhere"
      description="The zip file that “Bundle” wrote. It is taken in whole or not at all: hashes and trail are checked first."
      onSubmit={(form) => {
        const file = new FormData(form).get('file');
        void take(file instanceof File && file.size > 0 ? file : null);
      }}
    >
      <Field id="take-depot" label="Depot that takes the unit">
        <select id="take-depot" className={inputLook} value={depot} onChange={(e) => setDepot(e.target.value)}>
          {yard.depots.map((d) => (
            <option key={d.id} value={d.id}>
              {d.name}
            </option>
          ))}
        </select>
      </Field>
      <Field id="take-file" label="Bundle">
        <input
          id="take-file"
          name="file"
          type="file"
          accept=".zip,application/zip"
          className={`${inputLook} py-2`}
          onChange={() => setProblems([])}
        />
      </Field>
      <OtherProblems problems={problems} paths={[]} />
      <Button type="submit" tone="strong" disabled={busy}>
        {busy ? 'Checking' : 'Take it in'}
      </Button>
    </FormDialog>
  );
}

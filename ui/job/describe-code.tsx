'use client';
import { tr } from '../../core/locale/translate';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import { v7 } from 'uuid';
import { Button } from '../kit/button';
import { inputLook } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { usePerson, useMay } from '../kit/session';
import { useSend } from '../kit/use-send';

/** What the depot knows of a code that its maker defined. */
export function Describe({ depotId, code, text }: { depotId: string; code: string; text: string }) {
  const router = useRouter();
  const by = usePerson();
  const may = useMay('depot.describe-codes');
  const [typed, setTyped] = useState<string | null>(null);
  const { busy, problems, post } = useSend();
  async function save(): Promise<void> {
    if (!(await post(`/api/depots/${depotId}/codes`, { id: v7(), by, code, text: typed ?? '' }))) return;
    setTyped(null);
    router.refresh();
  }
  if (typed === null)
    return (
      <p className="text-sm">
        {text && <b>{text} </b>}
        {may && (
          <button
            type="button"
            className="min-h-9 text-soft underline"
            aria-label={tr`describe ${code}`}
            onClick={() => setTyped(text)}
          >
            {text ? 'change' : 'describe it for this depot'}
          </button>
        )}
      </p>
    );
  return (
    <form
      className="flex items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      <label className="min-w-0 flex-1 text-sm">
        {code} at this depot
        <input
          autoFocus
          className={inputLook}
          value={typed}
          maxLength={500}
          onChange={(e) => setTyped(e.target.value)}
        />
      </label>
      <Button type="submit" disabled={busy}>
        Keep
      </Button>
      <OtherProblems problems={problems} paths={[]} />
    </form>
  );
}

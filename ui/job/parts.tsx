'use client';
import { tr } from '../../core/locale/translate';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import type { FleetUnitView } from '../../application/views';
import { Button } from '../kit/button';
import { inputLook } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';

const KINDS = ['plug', 'injector', 'module', 'sensor', 'coil', 'battery', 'controller'] as const;

/** Which parts are fitted, by their code: limits for exactly that part go before those of the family. */
export function Parts({ unit }: { unit: FleetUnitView }) {
  const router = useRouter();
  const by = usePerson();
  const [part, setPart] = useState<string>(KINDS[0]);
  const [code, setCode] = useState('');
  const { busy, problems, post } = useSend();
  async function save(kind: string, value: string | null): Promise<void> {
    if (!(await post(`/api/units/${unit.id}/parts`, { by, part: kind, code: value }))) return;
    setCode('');
    router.refresh();
  }
  const fitted = Object.entries(unit.parts);
  return (
    <details className="rounded-xl bg-card p-3" open={fitted.length > 0}>
      <summary className="min-h-8 cursor-pointer font-semibold text-soft">
        Parts fitted{fitted.length > 0 && ` (${fitted.length})`}
      </summary>
      <ul>
        {fitted.map(([kind, value]) => (
          <li key={kind} className="flex items-center gap-2">
            <span className="flex-1">
              {kind} <b className="font-mono">{value}</b>
            </span>
            <button
              type="button"
              className="min-h-10 px-2 text-sm underline"
              aria-label={tr`Remove ${kind} ${value}`}
              onClick={() => void save(kind, null)}
            >
              remove
            </button>
          </li>
        ))}
      </ul>
      <form
        className="mt-1 flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (code.trim()) void save(part, code.trim());
        }}
      >
        <label className="text-sm">
          Part
          <select className={inputLook} value={part} onChange={(e) => setPart(e.target.value)}>
            {KINDS.map((k) => (
              <option key={k}>{k}</option>
            ))}
          </select>
        </label>
        <label className="min-w-0 flex-1 text-sm">
          Code
          <input className={inputLook} value={code} onChange={(e) => setCode(e.target.value)} maxLength={60} />
        </label>
        <Button type="submit" disabled={busy || code.trim() === ''}>
          Note
        </Button>
      </form>
      <OtherProblems problems={problems} paths={[]} />
    </details>
  );
}

'use client';
import { tr } from '../../core/locale/translate';
import { useState } from 'react';
import { OtherProblems } from '../kit/form';
import { useMay, usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';
import type { Packed } from './items';
import { keepAll } from './outbox';

/**
 * A lead takes in what another device has saved: it is sent from here, in the names of those who typed it.
 */
export function OpenFile() {
  const may = useMay('waiting.open');
  const person = usePerson();
  const { busy, problems, setProblems, post } = useSend();
  const [taken, setTaken] = useState<number | null>(null);
  if (!may) return null;
  async function take(file: File | undefined): Promise<void> {
    if (!file) return;
    setTaken(null);
    let content: unknown;
    try {
      content = JSON.parse(await file.text());
    } catch {
      setProblems([{ path: '', message: 'This file is not one that a device has saved.' }]);
      return;
    }
    const opened = await post<{ items: readonly Packed[] }>('/api/waiting/open', content);
    if (!opened) return;
    await keepAll(opened.items, person);
    setTaken(opened.items.length);
  }
  return (
    <section className="rounded-xl bg-card p-4" aria-label="From another device">
      <h2 className="mb-1 text-lg font-bold">From another device</h2>
      <p className="mb-2 text-soft">
        A device that was wiped or given up has saved what waited on it. Only this server can read that file. What is in
        it is sent from here as yours; each reading says who typed it.
      </p>
      <label className="inline-flex min-h-12 cursor-pointer items-center rounded-lg border-2 border-line px-4 font-semibold focus-within:outline-2">
        {busy ? 'Opening' : 'Choose the file'}
        <input
          type="file"
          accept="application/json,.json"
          className="sr-only"
          disabled={busy}
          onChange={(e) => {
            void take(e.target.files?.[0]);
            e.target.value = '';
          }}
        />
      </label>
      <OtherProblems problems={problems} paths={[]} />
      {taken !== null && (
        <p role="status" className="mt-2 font-semibold">
          {taken === 1 ? '1 entry was taken in.' : tr`${taken} entries were taken in.`}
        </p>
      )}
    </section>
  );
}

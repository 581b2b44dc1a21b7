'use client';
import { tr } from '../../core/locale/translate';
import { useState } from 'react';
import { Button } from '../kit/button';
import { Choice } from '../kit/chips';
import { Field, inputLook, tie } from '../kit/field';
import { Logo } from '../kit/logo';
import type { KnownPerson } from './device-store';
import { saveFile } from './save-file';
import { QUEUE_FILE } from './save-queue';
import { unlockByPin } from './vault';

/** The device's copy is locked: the PIN of somebody who has signed in here opens it. */
export function Unlock({
  people,
  name: given,
  onOpen,
  onWiped,
}: {
  people: readonly KnownPerson[];
  name: string;
  onOpen: (person: KnownPerson) => void;
  onWiped: () => void;
}) {
  const [name, setName] = useState(people.some((p) => p.name === given) ? given : (people[0]?.name ?? ''));
  const [pin, setPin] = useState('');
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<string | null>(null);
  async function open(): Promise<void> {
    if (!pin) {
      setError('Type your PIN.');
      return;
    }
    setBusy(true);
    const outcome = await unlockByPin(name, pin);
    setBusy(false);
    setPin('');
    if (outcome.ok) onOpen(outcome.person);
    else if (outcome.left > 0)
      setError(
        tr`Name and PIN do not go together. ${outcome.left === 1 ? 'One more try: after it this device is wiped' : tr`${outcome.left} tries left`}.`,
      );
    else {
      if ('file' in outcome && outcome.file !== null) saveFile(outcome.file, QUEUE_FILE);
      onWiped();
    }
  }
  return (
    <main className="mx-auto grid min-h-dvh w-full max-w-md content-center p-6">
      <section className="rounded-xl bg-card p-6">
        <h1 className="mb-2 flex items-center gap-2 text-2xl font-bold">
          <Logo />
          Mudflat
        </h1>
        <p className="mb-4">There is no server. This device holds the day’s work: your PIN opens it.</p>
        <form
          noValidate
          onSubmit={(e) => {
            e.preventDefault();
            void open();
          }}
        >
          <Choice label="Who" options={people.map((p) => [p.name, p.name])} value={name} onChange={setName} />
          <Field id="device-pin" label="PIN or password" error={error ?? undefined}>
            <input
              className={`${inputLook} font-mono text-xl`}
              type="password"
              inputMode="numeric"
              autoComplete="current-password"
              autoFocus
              value={pin}
              onChange={(e) => setPin(e.target.value)}
              maxLength={100}
              {...tie('device-pin', error ?? undefined)}
            />
          </Field>
          <Button type="submit" tone="strong" disabled={busy}>
            {busy ? 'Unlocking' : 'Unlock'}
          </Button>
        </form>
        <p className="mt-4 text-sm text-soft">
          After five wrong PINs the device is wiped. What waits is saved as a file first, which a lead takes to the
          server.
        </p>
      </section>
    </main>
  );
}

'use client';
import { useState } from 'react';
import type { Problem } from '../../core/foundation/result';
import { Button } from './button';
import { errorAt } from './draft';
import { Field, inputLook, tie } from './field';
import { OtherProblems } from './form';
import { letPinOpenDevice } from '../offline/vault';
import { useSend } from './use-send';

/** Name and PIN. What stays wrong is said at the field. */
export function SignInForm({
  name: given,
  to = 'sign-in',
  onDone,
}: {
  name: string;
  /** `switch`: somebody who is signed in on this device already. */
  to?: 'sign-in' | 'switch';
  onDone: (name: string) => void;
}) {
  const [name, setName] = useState(given);
  const [pin, setPin] = useState('');
  const { busy, problems, setProblems, post } = useSend();

  async function submit(): Promise<void> {
    const missing: Problem[] = [
      ...(name.trim() ? [] : [{ path: '/name', message: 'Type your name.' }]),
      ...(pin ? [] : [{ path: '/pin', message: 'Type your PIN.' }]),
    ];
    if (missing.length) {
      setProblems(missing);
      return;
    }
    const done = await post<{ name: string }>(`/api/session/${to}`, { name: name.trim(), pin });
    if (!done) {
      setPin('');
      return;
    }
    await letPinOpenDevice(pin);
    onDone(done.name);
  }

  const [nameError, pinError] = [errorAt(problems, '/name'), errorAt(problems, '/pin')];
  return (
    <form
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        void submit();
      }}
    >
      <Field id="sign-in-name" label="Name" error={nameError}>
        <input
          className={inputLook}
          autoComplete="username"
          autoFocus={!given}
          value={name}
          onChange={(e) => setName(e.target.value)}
          maxLength={80}
          {...tie('sign-in-name', nameError)}
        />
      </Field>
      <Field id="sign-in-pin" label="PIN or password" error={pinError}>
        <input
          className={`${inputLook} font-mono text-xl`}
          type="password"
          inputMode="numeric"
          autoComplete="current-password"
          autoFocus={Boolean(given)}
          value={pin}
          onChange={(e) => setPin(e.target.value)}
          maxLength={100}
          {...tie('sign-in-pin', pinError)}
        />
      </Field>
      <OtherProblems problems={problems} paths={['/name', '/pin']} />
      <Button type="submit" tone="strong" disabled={busy}>
        Sign in
      </Button>
    </form>
  );
}

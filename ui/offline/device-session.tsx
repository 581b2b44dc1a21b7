'use client';
import { type ReactNode, useMemo, useState } from 'react';
import { type Session, SessionContext } from '../kit/session';
import { SignInDialog } from '../kit/sign-in-dialog';
import { currentLocale } from '../../core/locale/locale';
import type { KnownPerson } from './device-store';
import { flush } from './outbox';

/**
 * Who is at the bench while there is no server: whoever has unlocked the device; another one types their PIN.
 */
export function DeviceSession({
  person,
  others,
  onLock,
  children,
}: {
  person: KnownPerson;
  others: readonly KnownPerson[];
  /** Locks the device; who is named is asked for the PIN first. */
  onLock: (next: string) => Promise<void>;
  children: ReactNode;
}) {
  const [asking, setAsking] = useState(false);
  const session = useMemo(
    (): Session => ({
      name: person.name,
      role: person.role,
      depotId: person.depotId,
      locale: currentLocale(),
      onDevice: [person, ...others].map((p) => p.name),
      switchTo: (name) => onLock(name),
      signOut: () => onLock(''),
      askToSignIn: () => setAsking(true),
    }),
    [person, others, onLock],
  );
  return (
    <SessionContext value={session}>
      {children}
      {asking && (
        <SignInDialog
          name=""
          title="Sign in at the server"
          because="Once the server is there. Until then those who have signed in on this device can unlock it."
          onClose={() => setAsking(false)}
          onDone={() => {
            setAsking(false);
            void flush(true);
          }}
        />
      )}
    </SessionContext>
  );
}

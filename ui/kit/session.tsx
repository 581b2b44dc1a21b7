'use client';
import { tr } from '../../core/locale/translate';
import dynamic from 'next/dynamic';
import { useRouter } from './router';
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useState } from 'react';
import { type Action, roleMay } from '../../application/policy';
import { localeKey, PLAIN } from '../../core/locale/locale';
import type { SignedIn } from '../../application/views';
import { rememberLocale } from '../locale/page-reader';
import { leaveDevice } from '../offline/vault';
import { isDrawnFromDevice, onSignedOut, send } from './send';

const SignInDialog = dynamic(() => import('./sign-in-dialog').then((m) => m.SignInDialog));

export interface Session extends SignedIn {
  /** Puts somebody at the bench who is signed in on this device. Nothing that was typed is touched. */
  readonly switchTo: (name: string) => Promise<void>;
  readonly signOut: () => Promise<void>;
  /** Opens the dialog in which another person signs in. */
  readonly askToSignIn: () => void;
}

/** Why somebody is asked to sign in, and who. */
interface Asking {
  readonly name: string;
  readonly title: string;
  readonly because: string;
  readonly to?: 'switch';
}
const ANOTHER: Asking = {
  name: '',
  title: 'Another person signs in',
  because: 'Both stay signed in on this device; the name at the top switches between them.',
};

const NOBODY: SignedIn = { name: null, role: null, depotId: null, onDevice: [], locale: PLAIN };
/** Who is at the bench: told by the server, or by the device while there is none. */
export const SessionContext = createContext<Session>({
  ...NOBODY,
  switchTo: () => Promise.resolve(),
  signOut: () => Promise.resolve(),
  askToSignIn: () => undefined,
});

/** Who is at the bench, for every screen. */
export function SessionProvider({ initial, children }: { initial: SignedIn; children: ReactNode }) {
  const router = useRouter();
  // What this page has learnt since the server drew it; the server's word counts again as soon as it has
  // another one.
  const [learnt, setLearnt] = useState<{ of: SignedIn; now: SignedIn } | null>(null);
  const current = learnt?.of === initial ? learnt.now : initial;
  const [asking, setAsking] = useState<Asking | null>(null);

  const learn = useCallback(async (): Promise<void> => {
    const response = await fetch('/api/session', { cache: 'no-store' }).catch(() => null);
    if (response?.ok) {
      const now = (await response.json()) as SignedIn;
      // Whoever stands here now reads other words: the page is drawn anew.
      if (localeKey(now.locale) !== localeKey(current.locale)) window.location.reload();
      setLearnt({ of: initial, now });
    }
    router.refresh();
  }, [initial, router, current.locale]);

  const { name: own } = current;
  useEffect(() => {
    if (own !== null) rememberLocale(own);
  }, [own]);
  useEffect(
    () =>
      onSignedOut((because) => {
        if (!isDrawnFromDevice()) setAsking((before) => before ?? { name: own ?? '', title: 'Signed out', because });
      }),
    [own],
  );

  const switchTo = useCallback(
    async (name: string): Promise<void> => {
      const sent = await send('/api/session/switch', { name });
      if (sent.ok) return learn();
      const problem = sent.error.kind === 'refused' ? sent.error.problem.errors[0] : undefined;
      if (problem)
        setAsking({
          name,
          title: tr`The PIN of ${name}`,
          because: problem.message,
          ...(problem.path === '/pin' ? { to: 'switch' as const } : {}),
        });
    },
    [learn],
  );
  const signOut = useCallback(async (): Promise<void> => {
    const sent = await send<{ name: string | null }>('/api/session/sign-out', {});
    // Whoever goes leaves no key behind: the next one types a PIN, with the server or without it.
    if (sent.ok) await leaveDevice();
    // oxlint-disable-next-line next-js/no-location-assign-relative-destination -- a whole page load: nothing of them stays
    if (sent.ok && sent.value.name === null) window.location.assign('/sign-in');
    else await learn();
  }, [learn]);
  const askToSignIn = useCallback(() => setAsking(ANOTHER), []);
  const value = useMemo(
    () => ({ ...current, switchTo, signOut, askToSignIn }),
    [current, switchTo, signOut, askToSignIn],
  );
  return (
    <SessionContext value={value}>
      {children}
      {asking !== null && (
        <SignInDialog
          {...asking}
          onClose={() => setAsking(null)}
          onDone={() => {
            setAsking(null);
            void learn();
          }}
        />
      )}
    </SessionContext>
  );
}

export const useSession = (): Session => useContext(SessionContext);

/** Name of the person at the bench. */
export const usePerson = (): string => useSession().name ?? '';

/**
 * May the person at the bench do it, as far as their role goes? The policy's table answers; the server
 * decides.
 */
export const useMay = (action: Action): boolean => roleMay(useSession().role, action);

'use client';
import type { PersonView } from '../../application/views';
import { Button } from '../kit/button';
import { Logo } from '../kit/logo';
import { useOnClient } from '../kit/on-client';
import { OtherProblems } from '../kit/form';
import { SignInForm } from '../kit/sign-in-form';
import { useSend } from '../kit/use-send';
import { letPinOpenDevice } from '../offline/vault';

export interface SignInScreenProps {
  readonly next: string;
  /** The invented persons, where the invented fleet is loaded. */
  readonly demo: { readonly pin: string; readonly persons: readonly PersonView[] } | null;
}

export function SignInScreen({ next, demo }: SignInScreenProps) {
  const { busy, problems, post } = useSend();
  const onClient = useOnClient();
  // A whole page load: every part of the screen learns who is there.
  const go = (): void => window.location.assign(next);
  async function take(name: string): Promise<void> {
    if (!demo || !(await post('/api/session/sign-in', { name, pin: demo.pin }))) return;
    await letPinOpenDevice(demo.pin);
    go();
  }
  return (
    <main className="mx-auto grid min-h-dvh w-full max-w-4xl content-center gap-6 p-6 md:grid-cols-2">
      <section className="rounded-xl bg-card p-6">
        <h1 className="mb-4 flex items-center gap-2 text-2xl font-bold">
          <Logo />
          Mudflat
        </h1>
        <SignInForm name="" onDone={go} />
        <p className="mt-4 text-sm text-soft">
          Five wrong tries lock a name for a quarter of an hour. A lead sets a new PIN.
        </p>
      </section>
      {demo && (
        <section className="rounded-xl border border-dashed border-line p-6" aria-label="Demo persons">
          <h2 className="font-semibold">Demo: the invented Pellmarsh Levels Board</h2>
          <p className="mb-3 text-sm text-soft">
            Everybody here is made up. Their PIN is <b className="font-mono text-ink">{demo.pin}</b>.
          </p>
          <OtherProblems problems={problems} paths={[]} />
          <ul className="flex flex-col gap-2">
            {demo.persons.map((p) => (
              <li key={p.id}>
                <Button
                  className="w-full justify-between"
                  disabled={busy || !onClient}
                  onClick={() => void take(p.name)}
                >
                  <span>{p.name}</span>
                  <span className="text-sm font-normal text-soft">
                    {p.role}, {p.depot ?? 'all depots'}
                  </span>
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </main>
  );
}

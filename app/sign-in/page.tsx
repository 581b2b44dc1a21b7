import { titled } from '@/app/titled';
import { redirect } from 'next/navigation';
import { headers } from 'next/headers';
import { serverDb } from '@/server/db/connection';
import { hasPeople, readInstallation } from '@/server/installation/installation';
import { listPersons } from '@/server/people/people';
import { actorOf } from '@/server/people/sign-in';
import { SignInScreen } from '@/ui/people/sign-in-screen';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Sign in');

/** A path of this site, whatever the address says. */
const within = (next: unknown): string => (typeof next === 'string' && /^\/(?![/\\])/.test(next) ? next : '/');

export default async function SignInPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const next = within((await searchParams).next);
  if (await actorOf(new Headers(await headers()))) redirect(next);
  // Names and their PIN stand here only where all of it is made up.
  const { db } = serverDb();
  const installation = await readInstallation(db);
  if (installation?.kind === 'own' && !(await hasPeople(db))) redirect('/set-up');
  const pin = installation?.kind === 'own' ? undefined : process.env.MUDFLAT_DEMO_PIN;
  const demo = pin ? { pin, persons: (await listPersons(db)).filter((p) => !p.retired) } : null;
  return <SignInScreen next={next} demo={demo} />;
}

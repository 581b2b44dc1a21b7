import { cache } from 'react';
import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { serverDb } from '@/server/db/connection';
import { readInstallation } from '@/server/installation/installation';
import { answerFor } from '@/server/locale/reader';
import type { Actor } from '@/server/policy/actor';
import { type DeviceSessions, sessionsOf } from '@/server/people/sign-in';

/** Who is signed in on the device that asks: read once for a page, whoever of its parts wants to know. */
export const sessionsHere = cache(async (): Promise<DeviceSessions> => {
  const sessions = await sessionsOf(new Headers(await headers()));
  // Nobody is here yet: as the workshop has chosen.
  if (!sessions.active) answerFor((await readInstallation(serverDb().db))?.locale ?? null);
  return sessions;
});

/** Whoever is signed in; others are sent to sign in and then to `path`. */
export async function needPerson(path: string): Promise<Actor> {
  const { active } = await sessionsHere();
  if (!active) redirect(`/sign-in?next=${encodeURIComponent(path)}`);
  return active;
}

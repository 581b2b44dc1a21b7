import { cache } from 'react';
import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import type { Actor } from '@/server/policy/actor';
import { type DeviceSessions, sessionsOf } from '@/server/people/sign-in';

/** Who is signed in on the device that asks: read once for a page, whoever of its parts wants to know. */
export const sessionsHere = cache(async (): Promise<DeviceSessions> => sessionsOf(new Headers(await headers())));

/** Whoever is signed in; others are sent to sign in and then to `path`. */
export async function needPerson(path: string): Promise<Actor> {
  const { active } = await sessionsHere();
  if (!active) redirect(`/sign-in?next=${encodeURIComponent(path)}`);
  return active;
}

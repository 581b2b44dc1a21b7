import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import type { Actor } from '@/server/policy/actor';
import { actorOf } from '@/server/people/sign-in';

/** Whoever is signed in; others are sent to sign in and then to `path`. */
export async function needPerson(path: string): Promise<Actor> {
  const actor = await actorOf(new Headers(await headers()));
  if (!actor) redirect(`/sign-in?next=${encodeURIComponent(path)}`);
  return actor;
}

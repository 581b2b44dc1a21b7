import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import type { Actor } from '@/server/actor';
import { actorOf } from '@/server/sign-in';

/** Whoever is signed in; others are sent to sign in and then to `path`. */
export async function needPerson(path: string): Promise<Actor> {
  const actor = await actorOf(new Headers(await headers()));
  if (!actor) redirect(`/sign-in?next=${encodeURIComponent(path)}`);
  return actor;
}

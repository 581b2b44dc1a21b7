/**
 * Stands in for `server/people/sign-in.ts` on a device. Who is at the bench is whoever has unlocked the
 * device's copy with their PIN; the page says so with each request. The server asks again when it gets what
 * was written here.
 */
import { eq } from 'drizzle-orm';
import type { Actor } from '../server/policy/actor';
import { person } from '../server/db/schema';
import { serverDb } from './connection';

/** Name of the person at the bench, in a request to the device itself. */
export const PERSON_HEADER = 'x-device-person';

export const actorOf = (headers: Headers): Promise<Actor | null> =>
  byName(decodeURIComponent(headers.get(PERSON_HEADER) ?? ''));

export const deviceActor = (_: Headers, name: string): Promise<Actor | null> => byName(name);

async function byName(name: string): Promise<Actor | null> {
  const [found] = await serverDb().db.select().from(person).where(eq(person.name, name));
  return found && !found.retiredAt
    ? { id: found.id, name: found.name, role: found.role, depotId: found.depotId }
    : null;
}

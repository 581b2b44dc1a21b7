import type { Locale } from '../../core/locale/locale';
import { tr } from '../../core/locale/translate';
import { and, asc, eq, isNull, ne, sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import { ok } from '../../core/foundation/result';
import type { Actor } from '../policy/actor';
import { whoMay } from '../policy/authorize';
import type { PersonView } from '../../application/views';
import type { Db, Tx } from '../db/connection';
import { isLanguage } from '../locale/translations';
import { hashPin, weakPin } from './pin';
import { databaseCode, type Done, notFound, refuse, UNIQUE_VIOLATION } from '../db/refusal';
import { account, depot, person, session, signInAttempt } from '../db/schema';
import type { AddPerson, ChangePerson } from '../../formats/requests/people';

export const listPersons = async (db: Db): Promise<PersonView[]> =>
  (
    await db
      .select({
        id: person.id,
        name: person.name,
        role: person.role,
        depot: depot.name,
        depotId: person.depotId,
        retiredAt: person.retiredAt,
        sessions: sql<number>`(select count(*)::int from session s where s.user_id = "person".id and s.expires_at > now())`,
      })
      .from(person)
      .leftJoin(depot, eq(depot.id, person.depotId))
      .orderBy(asc(person.name))
  ).map(({ retiredAt, ...p }) => ({ ...p, retired: retiredAt !== null }));

/** Names are typed with gloves: case and stray blanks make no difference. */
export const usernameFor = (name: string): string => name.trim().replace(/\s+/g, ' ').toLowerCase();

/** Adds a person who can sign in with the PIN. The same id twice is the same person. */
export async function addPerson(db: Db, p: AddPerson, actor: Pick<Actor, 'depotId'> = EVERYWHERE): Promise<Done> {
  if (actor.depotId !== null && p.depotId !== actor.depotId) return onlyOwn(db, '/depotId');
  const weak = weakPin(p.pin);
  if (weak) return refuse('Choose another PIN.', [{ path: '/pin', message: weak }]);
  const [same] = await db
    .select({ id: person.id, hasPin: account.id })
    .from(person)
    .leftJoin(account, eq(account.userId, person.id))
    .where(eq(person.id, p.id));
  if (same?.hasPin) return ok({ id: p.id, duplicate: true });
  return keepPerson(db, p, await hashPin(p.pin));
}

/**
 * Adds a person whose PIN was found good; `password` is what is kept of it. The same id twice is the same
 * person.
 */
export async function keepPerson(db: Db, p: Omit<AddPerson, 'pin'>, password: string): Promise<Done> {
  const name = p.name.trim().replace(/\s+/g, ' ');
  try {
    return await db.transaction(async (tx) => {
      if (p.depotId !== null && !(await tx.select({ id: depot.id }).from(depot).where(eq(depot.id, p.depotId))).length)
        return notFound('depot', '/depotId');
      const row = {
        id: p.id,
        depotId: p.depotId,
        name,
        role: p.role,
        username: usernameFor(name),
        displayUsername: name,
        email: `${p.id}@people.invalid`,
      };
      const inserted = await tx
        .insert(person)
        .values(row)
        .onConflictDoNothing({ target: person.id })
        .returning({ id: person.id });
      // A person of before there were PINs gets theirs.
      await tx
        .insert(account)
        .values({ id: v7(), userId: p.id, accountId: p.id, providerId: 'credential', password })
        .onConflictDoNothing();
      return ok({ id: p.id, duplicate: inserted.length === 0 });
    });
  } catch (error) {
    if (databaseCode(error)?.code !== UNIQUE_VIOLATION) throw error;
    return refuse('It is there already.', [{ path: '/name', message: tr`There is a person "${name}" already.` }], 409);
  }
}

/** Changes what is given. Nobody can take the last lead away. */
export async function changePerson(
  db: Db,
  personId: string,
  c: ChangePerson,
  actor: Pick<Actor, 'depotId'> = EVERYWHERE,
): Promise<Done> {
  if (actor.depotId !== null && c.depotId !== undefined && c.depotId !== actor.depotId) return onlyOwn(db, '/depotId');
  const weak = c.pin === undefined ? null : weakPin(c.pin);
  if (weak) return refuse('Choose another PIN.', [{ path: '/pin', message: weak }]);
  const password = c.pin === undefined ? null : await hashPin(c.pin);
  return db.transaction(async (tx) => {
    const [there] = await tx.select().from(person).where(eq(person.id, personId)).for('no key update');
    if (!there) return notFound('person');
    if (actor.depotId !== null && there.depotId !== actor.depotId) return onlyOwn(db, '/by');
    const staysLead =
      (c.role ?? there.role) === 'lead' &&
      !(c.retired ?? there.retiredAt !== null) &&
      (c.depotId === undefined ? there.depotId : c.depotId) === null;
    if (
      there.role === 'lead' &&
      there.depotId === null &&
      there.retiredAt === null &&
      !staysLead &&
      !(await otherLead(tx, personId))
    ) {
      return refuse(
        'The last lead stays.',
        [{ path: '/role', message: tr`${there.name} is the only lead of all depots: make another one first.` }],
        409,
      );
    }
    if (c.depotId && !(await tx.select({ id: depot.id }).from(depot).where(eq(depot.id, c.depotId))).length)
      return notFound('depot', '/depotId');
    await tx
      .update(person)
      .set({
        role: c.role ?? there.role,
        depotId: c.depotId === undefined ? there.depotId : c.depotId,
        updatedAt: new Date(),
        retiredAt: c.retired === undefined ? there.retiredAt : c.retired ? new Date() : null,
      })
      .where(eq(person.id, personId));
    if (password !== null)
      await tx
        .update(account)
        .set({ password, updatedAt: new Date() })
        .where(and(eq(account.userId, personId), eq(account.providerId, 'credential')));
    if (password !== null || c.retired || c.signOut) await tx.delete(session).where(eq(session.userId, personId));
    if (password !== null)
      await tx
        .delete(signInAttempt)
        .where(
          sql`${signInAttempt.key} = ${attemptKey(there.name)} or starts_with(${signInAttempt.key}, ${`${attemptKey(there.name)}|`})`,
        );
    return ok({ id: personId, duplicate: false });
  });
}

/** Under which key wrong tries of a name are counted: on a known device apart from everywhere else. */
export const attemptsOf = (name: string, device: string | null): string =>
  device === null ? usernameFor(name) : `${usernameFor(name)}|${device}`;
export const attemptKey = (name: string): string => `person:${attemptsOf(name, null)}`;

async function otherLead(tx: Tx, personId: string): Promise<boolean> {
  return (
    (
      await tx
        .select({ id: person.id })
        .from(person)
        .where(and(eq(person.role, 'lead'), isNull(person.retiredAt), isNull(person.depotId), ne(person.id, personId)))
    ).length > 0
  );
}

/** Whoever acts for the whole board. */
const EVERYWHERE = { depotId: null } as const;
export const onlyOwn = async (db: Db, path: string): Promise<Done> =>
  refuse(
    'You may not do this.',
    [
      {
        path,
        message: tr`A lead of one depot changes people of that depot. For all depots: ${await whoMay(db, ['lead'], 'all')}`,
      },
    ],
    403,
  );

/** A person by their name, as whoever acts; `null` where nobody of that name is there any more. */
export async function findActor(db: Db | Tx, name: string): Promise<Actor | null> {
  const [found] = await db
    .select({ id: person.id, name: person.name, role: person.role, depotId: person.depotId })
    .from(person)
    .where(and(eq(person.username, usernameFor(name)), isNull(person.retiredAt)));
  return found ?? null;
}

/** How a person wants to be addressed; `null`: as the workshop has chosen. */
export async function chooseLocale(db: Db, personId: string, locale: Locale | null): Promise<Done> {
  if (locale !== null && !isLanguage(locale.language))
    return refuse('Some fields are wrong.', [
      { path: '/locale/language', message: tr`There is no translation "${locale.language}" here.` },
    ]);
  await db.update(person).set({ locale, updatedAt: new Date() }).where(eq(person.id, personId));
  return ok({ id: personId, duplicate: false });
}

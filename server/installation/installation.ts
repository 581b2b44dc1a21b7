import { randomInt } from 'node:crypto';
import { eq, isNull, sql } from 'drizzle-orm';
import { v5, v7 } from 'uuid';
import type { Locale } from '../../core/locale/locale';
import type { FirstStepsView } from '../../application/views';
import { fail, ok, type Result } from '../../core/foundation/result';
import type { ProblemDetails } from '../../formats/problem';
import type { SetUp } from '../../formats/requests/installation';
import { type Db, type Tx, within } from '../db/connection';
import { allOrNothing } from '../db/all-or-nothing';
import { refuse } from '../db/refusal';
import { depot, installation, person } from '../db/schema';
import { checkDepot } from '../fleet/depots';
import { addPerson } from '../people/people';
import { checkPin, hashPin } from '../people/pin';

export type Kind = 'demo' | 'own';
export interface Installation {
  readonly kind: Kind;
  readonly name: string;
  readonly hasLogo: boolean;
  /** How whoever has not chosen is addressed. */
  readonly locale: Locale | null;
}

/** What this installation is; `null` where nobody has said. */
export async function readInstallation(db: Db | Tx): Promise<Installation | null> {
  const [row] = await db
    .select({
      kind: installation.kind,
      name: installation.name,
      hasLogo: sql<boolean>`${installation.logo} is not null`,
      locale: installation.locale,
    })
    .from(installation);
  return row ?? null;
}

const kept = globalThis as { mudflatKind?: Kind };
/**
 * The demo or a workshop's own: asked once, since it never changes. A database that nobody has marked is a
 * demo.
 */
export async function kindOf(db: Db): Promise<Kind> {
  return (kept.mudflatKind ??= (await readInstallation(db))?.kind ?? 'demo');
}

/** Somebody is there who can sign in. */
export const hasPeople = async (db: Db | Tx): Promise<boolean> =>
  (await db.select({ id: person.id }).from(person).limit(1)).length > 0;

/**
 * Makes the database the demo's or a workshop's own, once. Fails with a sentence where it is the other one,
 * or holds data of which nobody has said whose they are. `demoDepots`: ids of the demo's depots, by which a
 * demo of before is known.
 */
export async function claimDatabase(
  db: Db,
  kind: Kind,
  demoDepots: readonly string[],
): Promise<Result<'new' | 'known', string>> {
  return db.transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(7210473)`);
    const there = await readInstallation(tx);
    if (there) return there.kind === kind ? ok('known' as const) : fail(OTHER[there.kind]);
    const depots = await tx.select({ id: depot.id }).from(depot);
    const isDemo = depots.length > 0 && depots.every((d) => demoDepots.includes(d.id));
    const isEmpty = depots.length === 0 && !(await hasPeople(tx));
    if (!isEmpty && isDemo !== (kind === 'demo')) return fail(isDemo ? OTHER.demo : OTHER.own);
    await tx.insert(installation).values({ kind });
    return ok('new' as const);
  });
}

/**
 * Why a database that is marked already is not for this; `null` where it is, or nobody has marked it. Needs
 * no schema.
 */
export async function otherKind(db: Db, kind: Kind): Promise<string | null> {
  const { rows } = await db.execute<{ there: boolean }>(sql`select to_regclass('installation') is not null as there`);
  // This column alone: what was added since is not there before the migration.
  const [there] = rows[0]?.there ? await db.select({ kind: installation.kind }).from(installation) : [];
  return there && there.kind !== kind ? OTHER[there.kind] : null;
}

const OTHER: Readonly<Record<Kind, string>> = {
  demo: 'This database holds the demo with its invented data. A workshop’s own data go into a database of their own: leave DATABASE_URL out, or name an empty one.',
  own: 'This database holds a workshop’s own data. The demo with its invented persons goes only into an empty database: leave DATABASE_URL out, or name an empty one.',
};

/** Letters and digits that nobody takes for one another. */
const SIGNS = 'ABCDEFGHJKMNPQRSTVWXYZ23456789';
const CODE_LENGTH = 10;
const plainCode = (code: string): string => code.toUpperCase().replace(/[^A-Z0-9]/g, '');

/**
 * A new one-time code for the first lead, as it is to be typed; `null` where somebody is there already. The
 * one before it does not work any more. About 49 bits.
 */
export async function newSetUpCode(db: Db): Promise<string | null> {
  if (await hasPeople(db)) return null;
  const code = Array.from({ length: CODE_LENGTH }, () => SIGNS[randomInt(SIGNS.length)]).join('');
  await db.update(installation).set({ setupCode: await hashPin(code) });
  return `${code.slice(0, 5)}-${code.slice(5)}`;
}

/** Whether it is the code that the command has printed. */
export async function isSetUpCode(db: Db, code: string): Promise<boolean> {
  const [row] = await db.select({ hash: installation.setupCode }).from(installation);
  return row?.hash != null && (await checkPin(row.hash, plainCode(code)));
}

/** Depots of the set-up have ids of their own that a repeat finds again. */
const depotId = (name: string): string => v5(name, '0b9f1b5e-4c0e-5d0a-9d7a-1f6f0c5a2c11');

/** The first lead, the workshop's name and its depots, all or nothing. Refused once somebody is there. */
export async function setUp(db: Db, body: SetUp): Promise<Result<{ name: string }, ProblemDetails>> {
  const problems = body.depots.flatMap((d, i) => checkDepot(d, `/depots/${i}`));
  const names = body.depots.map((d) => d.name.trim().toLowerCase());
  names.forEach((name, i) => {
    if (names.indexOf(name) !== i) problems.push({ path: `/depots/${i}/name`, message: 'This depot is there twice.' });
  });
  if (problems.length) return refuse('Some fields are wrong.', problems);
  return allOrNothing(db, async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(7210473)`);
    if (await hasPeople(tx)) return refuse('It is set up already.', [{ path: '', message: 'Sign in instead.' }], 409);
    for (const d of body.depots) await tx.insert(depot).values(depotOf(d, body.workshop));
    const lead = await addPerson(within(tx), {
      id: v7(),
      name: body.lead.name,
      pin: body.lead.password,
      role: 'lead',
      depotId: null,
    });
    if (!lead.ok)
      return refuse(
        'Some fields are wrong.',
        lead.error.errors.map((e) => ({ ...e, path: e.path === '/pin' ? '/lead/password' : `/lead${e.path}` })),
      );
    await tx.update(installation).set({ name: body.workshop.trim(), setupCode: null, locale: body.locale ?? null });
    return ok({ name: body.lead.name.trim() });
  });
}

/** A depot whose letters carry the workshop's name over its own address. */
const depotOf = (d: SetUp['depots'][number], workshop: string): typeof depot.$inferInsert => ({
  id: depotId(d.name.trim()),
  name: d.name.trim(),
  timeZone: d.timeZone,
  choices: {
    schools: {},
    decision: 'three-way',
    currency: d.currency,
    letterhead: [workshop, ...(d.address ?? '').split('\n')]
      .map((l) => l.trim())
      .filter(Boolean)
      .join('\n'),
  },
});

/** The workshop's name, as every page and letter calls it, and how whoever has not chosen is addressed. */
export async function changeWorkshop(db: Db, to: { readonly name: string; readonly locale?: Locale }): Promise<void> {
  await db
    .update(installation)
    .set({ name: to.name.trim(), ...(to.locale === undefined ? {} : { locale: to.locale }) });
}

/** The workshop's logo for letters; `null`: none. */
export async function readLogo(db: Db): Promise<{ bytes: Buffer; type: string } | null> {
  const [row] = await db.select({ logo: installation.logo, type: installation.logoType }).from(installation);
  return row?.logo && row.type ? { bytes: row.logo, type: row.type } : null;
}

export async function keepLogo(db: Db, logo: { bytes: Buffer; type: string } | null): Promise<void> {
  await db.update(installation).set({ logo: logo?.bytes ?? null, logoType: logo?.type ?? null });
}

/** What is there of what the first days ask for. */
export async function firstSteps(db: Db): Promise<FirstStepsView> {
  const {
    rows: [row],
  } = await db.execute<Record<keyof FirstStepsView, boolean>>(sql`select
    exists(select 1 from engine_family) as families,
    exists(select 1 from unit) as units,
    exists(select 1 from instrument) as instruments,
    exists(select 1 from specification) as limits,
    (select count(*) from person where retired_at is null) > 1 as people`);
  return row ?? { families: false, units: false, instruments: false, limits: false, people: false };
}

/** A person by the name as it is kept for signing in; `null`: there is nobody of that name. */
export const personNamed = async (db: Db, username: string): Promise<{ id: string; name: string } | null> =>
  (await db.select({ id: person.id, name: person.name }).from(person).where(eq(person.username, username)))[0] ?? null;

/** Leads of all depots who may sign in. */
export const leadsOf = async (db: Db): Promise<string[]> =>
  (await db.select({ name: person.name, role: person.role }).from(person).where(isNull(person.retiredAt))).flatMap(
    (p) => (p.role === 'lead' ? [p.name] : []),
  );

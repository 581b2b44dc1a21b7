import { tr } from '../../core/locale/translate';
import { and, eq, inArray, isNull, type SQL, sql } from 'drizzle-orm';
import { checkEngine } from '../../core/engine/layout';
import { ok } from '../../core/foundation/result';
import { canonical } from '../../formats/canonical';
import { allOrNothing } from '../db/all-or-nothing';
import type { Db, Tx } from '../db/connection';
import { databaseCode, type Done, notFound, refuse, UNIQUE_VIOLATION } from '../db/refusal';
import { depot, engineFamily, fleetUnit, job } from '../db/schema';
import { append } from '../journal/append';
import type {
  AddEngineFamily,
  AddUnit,
  ChangeEngineFamily,
  ChangeUnit,
  ChooseDepot,
  SetPart,
} from '../../formats/requests/fleet';

/** A fleet number without case, blanks and what nobody sees: two that look alike are one unit. */
export const numberKey = (fleetNumber: string): string =>
  fleetNumber
    .normalize('NFKC')
    .replace(/[\p{C}\p{Z}]/gu, '')
    .toLowerCase();

/** What nobody sees does not belong into a name. */
const visible = (text: string): string => text.replace(/\p{C}/gu, '').trim().replace(/\s+/g, ' ');

export async function addEngineFamily(db: Db | Tx, f: AddEngineFamily): Promise<Done> {
  const problems = checkEngine(f.engine, '/engine');
  if (problems.length) return refuse('This engine cannot be.', problems);
  const { id, engine } = f;
  const code = visible(f.code);
  return unique('/code', tr`There is an engine family "${code}" already.`, () =>
    append(db, engineFamily, { id, code, engine }),
  );
}

/** A unit, with its new engine family where it brings one: both or neither. */
export const addUnit = (db: Db, u: AddUnit): Promise<Done> =>
  allOrNothing(db, async (tx) => {
    const family = u.newFamily ? await addEngineFamily(tx, { id: u.engineFamilyId, ...u.newFamily }) : null;
    return family?.ok === false ? underNewFamily(family) : insertUnit(tx, u);
  });

const underNewFamily = (done: Done): Done =>
  done.ok
    ? done
    : refuse(
        done.error.title,
        done.error.errors.map((e) => ({ ...e, path: `/newFamily${e.path}` })),
        done.error.status,
      );

const insertUnit = async (tx: Tx, u: AddUnit): Promise<Done> => (await placesOf(tx, u)) ?? putUnit(tx, u);

/** A unit of a depot and an engine family that are there and in use. */
export function putUnit(tx: Tx, u: Omit<AddUnit, 'newFamily'>): Promise<Done> {
  const { id, depotId, engineFamilyId } = u;
  const row = {
    id,
    depotId,
    engineFamilyId,
    fleetNumber: visible(u.fleetNumber),
    numberKey: numberKey(u.fleetNumber),
    kind: visible(u.kind),
  };
  return onceByNumber(row.fleetNumber, () => append(tx, fleetUnit, row));
}

export const RETIRED = {
  depot: 'This depot is not used any more.',
  family: 'This engine family is not used any more.',
} as const;

/** What a unit is to belong to must be there and in use. */
async function placesOf(
  tx: Db | Tx,
  of: { readonly depotId?: string | undefined; readonly engineFamilyId?: string | undefined },
): Promise<Done | null> {
  if (of.depotId !== undefined) {
    const [place] = await tx.select({ retiredAt: depot.retiredAt }).from(depot).where(eq(depot.id, of.depotId));
    if (!place) return notFound('depot', '/depotId');
    if (place.retiredAt) return refuse('It is retired.', [{ path: '/depotId', message: RETIRED.depot }]);
  }
  if (of.engineFamilyId !== undefined) {
    const [family] = await tx
      .select({ retiredAt: engineFamily.retiredAt })
      .from(engineFamily)
      .where(eq(engineFamily.id, of.engineFamilyId));
    if (!family) return notFound('engine family', '/engineFamilyId');
    if (family.retiredAt) return refuse('It is retired.', [{ path: '/engineFamilyId', message: RETIRED.family }]);
  }
  return null;
}

const onceByNumber = (fleetNumber: string, write: () => Promise<Done>): Promise<Done> =>
  unique(
    '/fleetNumber',
    tr`There is a unit "${fleetNumber}" already; case, blanks and invisible signs make no difference.`,
    write,
  );

/**
 * Changes what is given. A unit with an open job is not retired, and keeps the engine on which it was
 * measured.
 */
export async function changeUnit(db: Db, id: string, c: ChangeUnit): Promise<Done> {
  const wrong = await placesOf(db, c);
  if (wrong) return wrong;
  const [there] = await db.select().from(fleetUnit).where(eq(fleetUnit.id, id));
  if (!there) return notFound('unit');
  const used = await jobsOf(db, eq(job.unitId, id));
  if (c.retired && used.open > 0)
    return refuse('It has an open job.', [{ path: '/retired', message: 'Release its open job first.' }], 409);
  if (c.engineFamilyId !== undefined && c.engineFamilyId !== there.engineFamilyId && used.all > 0)
    return refuse(
      'It was measured.',
      [
        {
          path: '/engineFamilyId',
          message: 'Its jobs were measured on this engine. With another engine it is another unit.',
        },
      ],
      409,
    );
  const fleetNumber = c.fleetNumber === undefined ? undefined : visible(c.fleetNumber);
  return onceByNumber(fleetNumber ?? there.fleetNumber, async () => {
    await db
      .update(fleetUnit)
      .set({
        ...(fleetNumber === undefined ? {} : { fleetNumber, numberKey: numberKey(fleetNumber) }),
        ...(c.kind === undefined ? {} : { kind: visible(c.kind) }),
        ...(c.depotId === undefined ? {} : { depotId: c.depotId }),
        ...(c.engineFamilyId === undefined ? {} : { engineFamilyId: c.engineFamilyId }),
        retiredAt: retiredAt(c.retired, there.retiredAt),
      })
      .where(eq(fleetUnit.id, id));
    return ok({ id, duplicate: false });
  });
}

/** Changes what is given. Once something was measured on an engine of the family, its layout stays. */
export async function changeEngineFamily(db: Db, id: string, c: ChangeEngineFamily): Promise<Done> {
  const problems = c.engine ? checkEngine(c.engine, '/engine') : [];
  if (problems.length) return refuse('This engine cannot be.', problems);
  const [there] = await db.select().from(engineFamily).where(eq(engineFamily.id, id));
  if (!there) return notFound('engine family');
  if (c.retired) {
    const [units] = await db
      .select({ n: sql<number>`count(*)::int` })
      .from(fleetUnit)
      .where(and(eq(fleetUnit.engineFamilyId, id), isNull(fleetUnit.retiredAt)));
    if (units && units.n > 0)
      return refuse(
        'It is in use.',
        [{ path: '/retired', message: tr`${units.n} of its units are in use: retire them first.` }],
        409,
      );
  }
  if (c.engine && canonical(c.engine) !== canonical(there.engine)) {
    const measured = await jobsOf(
      db,
      inArray(job.unitId, db.select({ id: fleetUnit.id }).from(fleetUnit).where(eq(fleetUnit.engineFamilyId, id))),
    );
    if (measured.all > 0)
      return refuse(
        'It was measured.',
        [
          {
            path: '/engine',
            message: 'Its units have jobs, and their readings stand by its cylinders. Add another family instead.',
          },
        ],
        409,
      );
  }
  const code = c.code === undefined ? there.code : visible(c.code);
  return unique('/code', tr`There is an engine family "${code}" already.`, async () => {
    await db
      .update(engineFamily)
      .set({ code, engine: c.engine ?? there.engine, retiredAt: retiredAt(c.retired, there.retiredAt) })
      .where(eq(engineFamily.id, id));
    return ok({ id, duplicate: false });
  });
}

const retiredAt = (wanted: boolean | undefined, was: Date | null): Date | null =>
  wanted === undefined ? was : wanted ? (was ?? new Date()) : null;

async function jobsOf(db: Db, which: SQL): Promise<{ all: number; open: number }> {
  const [row] = await db
    .select({
      all: sql<number>`count(*)::int`,
      open: sql<number>`(count(*) filter (where ${job.closedAt} is null))::int`,
    })
    .from(job)
    .where(which);
  return row ?? { all: 0, open: 0 };
}

/** Notes which part is fitted; an empty code takes the note away. */
export async function setPart(db: Db, unitId: string, p: SetPart): Promise<Done> {
  const code = p.code?.trim() ?? '';
  const parts = code
    ? sql`${fleetUnit.parts} || jsonb_build_object(${p.part}::text, ${code}::text)`
    : sql`${fleetUnit.parts} - ${p.part}::text`;
  const [done] = await db
    .update(fleetUnit)
    .set({ parts })
    .where(eq(fleetUnit.id, unitId))
    .returning({ id: fleetUnit.id });
  return done ? ok({ id: unitId, duplicate: false }) : notFound('unit');
}

/** A depot's school for a test, how it accepts, or what it reckons in. */
export async function chooseDepot(db: Db, depotId: string, c: ChooseDepot): Promise<Done> {
  return db.transaction(async (tx) => {
    const [there] = await tx.select().from(depot).where(eq(depot.id, depotId)).for('no key update');
    if (!there) return notFound('depot');
    const { schools, decision, currency, letterhead } = there.choices;
    const others = Object.fromEntries(Object.entries(schools).filter(([test]) => test !== c.school?.test));
    const chosen = c.currency ?? currency;
    const head = (c.letterhead ?? letterhead ?? '').trim();
    const next = {
      ...(chosen ? { currency: chosen } : {}),
      ...(head ? { letterhead: head } : {}),
      decision: c.decision ?? decision,
      schools: c.school
        ? { ...others, ...(c.school.name === null ? {} : { [c.school.test]: c.school.name }) }
        : schools,
    };
    await tx.update(depot).set({ choices: next }).where(eq(depot.id, depotId));
    return ok({ id: depotId, duplicate: false });
  });
}

async function unique(path: string, message: string, insert: () => Promise<Done>): Promise<Done> {
  try {
    return await insert();
  } catch (error) {
    if (databaseCode(error)?.code !== UNIQUE_VIOLATION) throw error;
    return refuse('It is there already.', [{ path, message }], 409);
  }
}

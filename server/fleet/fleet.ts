import { eq, sql } from 'drizzle-orm';
import { checkEngine } from '../../core/engine/layout';
import { ok } from '../../core/foundation/result';
import type { Db } from '../db/connection';
import { databaseCode, type Done, notFound, refuse, UNIQUE_VIOLATION } from '../db/refusal';
import { depot, engineFamily, fleetUnit } from '../db/schema';
import { append } from '../journal/append';
import type { AddEngineFamily, AddUnit, ChooseDepot, SetPart } from '../../formats/requests/fleet';

export const addDepot = (db: Db, d: { id: string; name: string; timeZone: string }): Promise<Done> =>
  append(db, depot, d);

export async function addEngineFamily(db: Db, f: AddEngineFamily): Promise<Done> {
  const problems = checkEngine(f.engine, '/engine');
  if (problems.length) return refuse('This engine cannot be.', problems);
  return unique('/code', `There is an engine family "${f.code}" already.`, () => append(db, engineFamily, { ...f }));
}

export async function addUnit(db: Db, u: AddUnit): Promise<Done> {
  const [place] = await db.select({ id: depot.id }).from(depot).where(eq(depot.id, u.depotId));
  if (!place) return notFound('depot', '/depotId');
  const [family] = await db
    .select({ id: engineFamily.id })
    .from(engineFamily)
    .where(eq(engineFamily.id, u.engineFamilyId));
  if (!family) return notFound('engine family', '/engineFamilyId');
  const row = { ...u, fleetNumber: u.fleetNumber.trim(), kind: u.kind.trim() };
  return unique('/fleetNumber', `There is a unit "${row.fleetNumber}" already.`, () => append(db, fleetUnit, row));
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
    const [there] = await tx.select().from(depot).where(eq(depot.id, depotId)).for('update');
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

import { eq } from 'drizzle-orm';
import type { Role } from '../../core/foundation/vocabulary';
import { type ProblemDetails, problemDetails } from '../../formats/problem';
import type { Db } from '../db/connection';
import { whoMay } from '../people/people';
import { depot, instrument, job, person, testRun, unit } from '../db/schema';
import type { Actor } from './actor';

/** Who may do something: a kind of person, and whether it must be one of the depot whose thing it is. */
export interface Permit {
  readonly role: 'any' | 'technician' | 'lead';
  /** As a refusal says it: "record readings". */
  readonly what: string;
  /** Of the thing that is acted on; absent where it belongs to no depot. `null` where there is no such thing: the command says so. */
  readonly place?: ((db: Db) => Promise<Place | null>) | undefined;
}

export interface Place {
  readonly depotId: string;
  readonly depot: string;
}

const ROLES_FOR: Readonly<Record<Permit['role'], readonly Role[]>> = {
  any: ['viewer', 'technician', 'lead'],
  technician: ['technician', 'lead'],
  lead: ['lead'],
};

/** `null` where the person may; otherwise a refusal that says who may. */
export async function refusalFor(db: Db, actor: Actor, permit: Permit): Promise<ProblemDetails | null> {
  const roles = ROLES_FOR[permit.role];
  const place = permit.place ? await permit.place(db) : null;
  const roleMay = roles.includes(actor.role);
  const placeMay = place === null || actor.depotId === null || actor.depotId === place.depotId;
  if (roleMay && placeMay) return null;
  const who = await whoMay(db, roles, place?.depotId ?? null);
  const why = !roleMay
    ? `A ${actor.role} may not ${permit.what}`
    : `This belongs to ${place?.depot ?? ''}; you may not ${permit.what} there`;
  return problemDetails('You may not do this.', [{ path: '/by', message: `${why}: ${who}` }], 403);
}

const first = <T>(rows: readonly T[]): T | null => rows[0] ?? null;
const PLACE = { depotId: depot.id, depot: depot.name };

export const depotPlace =
  (id: string) =>
  async (db: Db): Promise<Place | null> =>
    first(await db.select(PLACE).from(depot).where(eq(depot.id, id)));
export const unitPlace =
  (id: string) =>
  async (db: Db): Promise<Place | null> =>
    first(await db.select(PLACE).from(unit).innerJoin(depot, eq(depot.id, unit.depotId)).where(eq(unit.id, id)));
export const jobPlace =
  (id: string) =>
  async (db: Db): Promise<Place | null> =>
    first(
      await db
        .select(PLACE)
        .from(job)
        .innerJoin(unit, eq(unit.id, job.unitId))
        .innerJoin(depot, eq(depot.id, unit.depotId))
        .where(eq(job.id, id)),
    );
export const runPlace =
  (id: string) =>
  async (db: Db): Promise<Place | null> =>
    first(
      await db
        .select(PLACE)
        .from(testRun)
        .innerJoin(job, eq(job.id, testRun.jobId))
        .innerJoin(unit, eq(unit.id, job.unitId))
        .innerJoin(depot, eq(depot.id, unit.depotId))
        .where(eq(testRun.id, id)),
    );
export const instrumentPlace =
  (id: string) =>
  async (db: Db): Promise<Place | null> =>
    first(
      await db
        .select(PLACE)
        .from(instrument)
        .innerJoin(depot, eq(depot.id, instrument.depotId))
        .where(eq(instrument.id, id)),
    );
/** Of a person of one depot; a person of all depots belongs to none. */
export const personPlace =
  (id: string) =>
  async (db: Db): Promise<Place | null> =>
    first(await db.select(PLACE).from(person).innerJoin(depot, eq(depot.id, person.depotId)).where(eq(person.id, id)));

import { tr } from '../../core/locale/translate';
import { and, asc, eq, isNull, or } from 'drizzle-orm';
import { type Action, POLICY, roleMay, rolesFor, type ScopeKind } from '../../application/policy';
import { joinAnd } from '../../core/quantity/print';
import { fail, type Result } from '../../core/foundation/result';
import type { Role } from '../../core/foundation/vocabulary';
import { type ProblemDetails, problemDetails } from '../../formats/problem';
import type { Db, Tx } from '../db/connection';
import { depot, instrument, job, person, testRun, fleetUnit } from '../db/schema';
import type { Actor } from './actor';

/** The depot that a thing belongs to. */
interface Place {
  readonly depotId: string;
  readonly depot: string;
}

/**
 * `null` where the person may; otherwise a refusal (403) that says who may. `id`: of the thing to which it is
 * done; of what belongs to no depot, `null`. A thing that is not there belongs to nobody: what is then wrong
 * the command says.
 */
export async function refusalFor(
  db: Db | Tx,
  actor: Actor,
  action: Action,
  id: string | null,
): Promise<ProblemDetails | null> {
  const mayByRole = roleMay(actor.role, action);
  // Whoever works for all depots is of every place.
  if (mayByRole && (actor.depotId === null || POLICY[action].of === null)) return null;
  const place = await placeOf(db, POLICY[action].of, id);
  if (mayByRole && (place === null || actor.depotId === place.depotId)) return null;
  const who = await whoMay(db, rolesFor(action), place?.depotId ?? null);
  const { what } = POLICY[action];
  const why = mayByRole
    ? tr`This belongs to ${place?.depot ?? 'another depot'}; you may not ${what} there`
    : tr`A ${actor.role} may not ${what}`;
  return problemDetails('You may not do this.', [{ path: '/by', message: `${why}: ${who}` }], 403);
}

/** The same inside a command, where what is asked for tells only there who may. */
export async function authorize(
  db: Db | Tx,
  actor: Actor,
  action: Action,
  id: string | null = null,
): Promise<Result<never, ProblemDetails> | null> {
  const refusal = await refusalFor(db, actor, action, id);
  return refusal && fail(refusal);
}

const PLACE = { depotId: depot.id, depot: depot.name };

async function placeOf(db: Db | Tx, kind: ScopeKind | null, id: string | null): Promise<Place | null> {
  if (kind === null || id === null) return null;
  const [place] = await PLACES[kind](db, id);
  return place ?? null;
}

const PLACES: Readonly<Record<ScopeKind, (db: Db | Tx, id: string) => Promise<Place[]>>> = {
  depot: (db, id) => db.select(PLACE).from(depot).where(eq(depot.id, id)),
  unit: (db, id) =>
    db.select(PLACE).from(fleetUnit).innerJoin(depot, eq(depot.id, fleetUnit.depotId)).where(eq(fleetUnit.id, id)),
  job: (db, id) =>
    db
      .select(PLACE)
      .from(job)
      .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
      .innerJoin(depot, eq(depot.id, fleetUnit.depotId))
      .where(eq(job.id, id)),
  run: (db, id) =>
    db
      .select(PLACE)
      .from(testRun)
      .innerJoin(job, eq(job.id, testRun.jobId))
      .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
      .innerJoin(depot, eq(depot.id, fleetUnit.depotId))
      .where(eq(testRun.id, id)),
  instrument: (db, id) =>
    db.select(PLACE).from(instrument).innerJoin(depot, eq(depot.id, instrument.depotId)).where(eq(instrument.id, id)),
  // A person of all depots belongs to none.
  person: (db, id) =>
    db.select(PLACE).from(person).innerJoin(depot, eq(depot.id, person.depotId)).where(eq(person.id, id)),
};

/**
 * Names of those who may: with one of the roles, of the depot or of all; `'all'`: only those of all depots.
 * At most six, so that a refusal stays a sentence.
 */
export async function whoMay(db: Db | Tx, roles: readonly Role[], depotId: string | null): Promise<string> {
  const rows = await db
    .select({ name: person.name, role: person.role })
    .from(person)
    .where(
      and(
        isNull(person.retiredAt),
        depotId === null
          ? undefined
          : depotId === 'all'
            ? isNull(person.depotId)
            : or(isNull(person.depotId), eq(person.depotId, depotId)),
      ),
    )
    .orderBy(asc(person.name));
  const names = rows.filter((r) => roles.includes(r.role)).map((r) => r.name);
  if (names.length === 0) return 'Nobody may yet.';
  return names.length > 6
    ? tr`${names.slice(0, 6).join(', ')} and ${names.length - 6} others may.`
    : tr`${joinAnd(names)} may.`;
}

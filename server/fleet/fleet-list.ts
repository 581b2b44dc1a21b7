import { tr } from '../../core/locale/translate';
import { asc, eq, sql } from 'drizzle-orm';
import { v5 } from 'uuid';
import type { FamilyLine, UnitLine, UnitsPlan } from '../../application/views';
import { fail, type Problem, type Result } from '../../core/foundation/result';
import { type ProblemDetails, problemDetails } from '../../formats/problem';
import { namedInTable } from '../../formats/table-values';
import { type UnitEntry, unitKey } from '../../formats/units-csv';
import { type Db, within } from '../db/connection';
import { LOOK } from '../db/all-or-nothing';
import { depot, engineFamily, fleetUnit } from '../db/schema';
import { takeList } from '../db/take-list';
import { changeUnit, numberKey, putUnit, RETIRED } from './fleet';
import type { Actor } from '../policy/actor';

/** All units, those that are gone too, for the workshop's own screen. */
export const listUnits = (db: Db): Promise<UnitLine[]> =>
  db
    .select({
      id: fleetUnit.id,
      fleetNumber: fleetUnit.fleetNumber,
      kind: fleetUnit.kind,
      depotId: fleetUnit.depotId,
      depot: depot.name,
      familyId: fleetUnit.engineFamilyId,
      family: engineFamily.code,
      jobs: sql<number>`(select count(*)::int from job j where j.unit_id = "unit".id)`,
      retired: sql<boolean>`${fleetUnit.retiredAt} is not null`,
    })
    .from(fleetUnit)
    .innerJoin(depot, eq(depot.id, fleetUnit.depotId))
    .innerJoin(engineFamily, eq(engineFamily.id, fleetUnit.engineFamilyId))
    .orderBy(asc(fleetUnit.fleetNumber));

export const listFamilies = (db: Db): Promise<FamilyLine[]> =>
  db
    .select({
      id: engineFamily.id,
      code: engineFamily.code,
      engine: engineFamily.engine,
      retired: sql<boolean>`${engineFamily.retiredAt} is not null`,
      units: sql<number>`(select count(*)::int from unit u where u.engine_family_id = "engine_family".id and u.retired_at is null)`,
    })
    .from(engineFamily)
    .orderBy(asc(engineFamily.code));

/** The column of a field. */
const COLUMNS: Readonly<Record<string, string>> = {
  '/fleetNumber': '/fleet_number',
  '/depotId': '/depot',
  '/engineFamilyId': '/family',
};

/**
 * Units of a list. Without `batch`: what it would do. With it: does it, all or nothing. A number that is
 * there is changed to what the list says; a lead of one depot neither takes units of others nor gives them
 * any. Problems stand at the line.
 */
export async function importUnits(
  db: Db,
  entries: readonly UnitEntry[],
  actor: Actor,
  batch: string | null,
): Promise<Result<UnitsPlan, ProblemDetails>> {
  const [depots, families, units] = await Promise.all([
    db.select({ id: depot.id, name: depot.name, retiredAt: depot.retiredAt }).from(depot),
    db.select({ id: engineFamily.id, code: engineFamily.code, retiredAt: engineFamily.retiredAt }).from(engineFamily),
    listUnits(db),
  ]);
  const byKey = new Map(units.map((u) => [numberKey(u.fleetNumber), u]));
  const problems: Problem[] = [];
  const seen = new Map<string, number>();
  const rows = entries.flatMap((e) => {
    const at = (column: string) => `/line ${e.line}/${column}`;
    const place = namedInTable(depots, (d) => d.name, e.depot);
    const family = namedInTable(families, (f) => f.code, e.family);
    if (!place) problems.push({ path: at('depot'), message: tr`There is no depot "${e.depot}". Add it first.` });
    if (!family)
      problems.push({ path: at('family'), message: tr`There is no engine family "${e.family}". Add it first.` });
    const key = numberKey(e.fleetNumber);
    const before = seen.get(key);
    if (before !== undefined)
      problems.push({ path: at('fleet_number'), message: tr`This unit stands in line ${before} already.` });
    seen.set(key, e.line);
    const there = byKey.get(key);
    if (!place || !family) return [];
    const isSame =
      there?.kind === e.kind && there.depotId === place.id && there.familyId === family.id && !there.retired;
    if (!isSame && place.retiredAt) problems.push({ path: at('depot'), message: RETIRED.depot });
    if (!isSame && family.retiredAt) problems.push({ path: at('family'), message: RETIRED.family });
    const foreign = [place.id, there?.depotId ?? place.id].some((d) => actor.depotId !== null && d !== actor.depotId);
    if (!isSame && foreign) {
      const depots = there && there.depotId !== place.id ? tr`${there.depot} and ${place.name}` : place.name;
      problems.push({ path: at('depot'), message: tr`Units of ${depots} are not changed by a lead of another depot.` });
    }
    return [{ entry: e, place, family, there, action: there ? (isSame ? 'unchanged' : 'change') : 'new' } as const];
  });
  if (problems.length) return fail(problemDetails('This list cannot be taken.', problems));
  const plan = rows.map(({ entry, action }) => ({ fleetNumber: entry.fleetNumber, kind: entry.kind, action }));
  return takeList(db, {
    rows,
    plan,
    take: (tx, { entry, place, family, there }) => {
      const to = { by: actor.name, depotId: place.id, engineFamilyId: family.id, kind: entry.kind };
      return there
        ? changeUnit(within(tx), there.id, { ...to, retired: false })
        : putUnit(tx, { ...to, id: v5(unitKey(entry), batch ?? LOOK), fleetNumber: entry.fleetNumber });
    },
    columnOf: (path) => COLUMNS[path] ?? path,
    onlyLook: batch === null,
  });
}

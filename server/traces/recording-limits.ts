import { eq } from 'drizzle-orm';
import type { RecordingLimits } from '../../application/views';
import { CATALOGUE } from '../../core/catalogue/catalogue';
import { arrangeSpecifications, explainChoice } from '../../core/specifications/choose';
import { ownTests } from '../catalogue/tests';
import type { Db } from '../db/connection';
import { depot, engineFamily, fleetUnit, job } from '../db/schema';
import { unitView } from '../fleet/unit-view';
import { shippedRules, specificationOf, specificationRows } from '../specifications/specifications';

/** Quantities that a recorder writes. */
const RECORDED: ReadonlySet<string> = new Set(['voltage', 'current', 'pressure', 'temperature']);

/**
 * What the shelf can judge a recorded channel of a job by: limits that hold at every position of their test,
 * and transfer functions, as they would be chosen for this unit now.
 */
export async function recordingLimits(db: Db, jobId: string): Promise<RecordingLimits[]> {
  const [row] = await db
    .select({ unit: fleetUnit, family: engineFamily, depot })
    .from(job)
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .innerJoin(engineFamily, eq(engineFamily.id, fleetUnit.engineFamilyId))
    .innerJoin(depot, eq(depot.id, fleetUnit.depotId))
    .where(eq(job.id, jobId));
  if (!row) return [];
  const unit = unitView(row.unit, row.family, row.depot);
  const tests = [...(await ownTests(db)), ...CATALOGUE].filter((t) => RECORDED.has(t.quantity));
  const own = (await specificationRows(db)).filter((r) => !r.row.ships).map(specificationOf);
  const shelf = arrangeSpecifications([...own, ...tests.flatMap(shippedRules)]);
  return tests.flatMap((t) => {
    const { chosen } = explainChoice(shelf, {
      test: t.id,
      part: unit.parts[t.part] ?? null,
      family: unit.family,
      depot: unit.depot,
      school: row.depot.choices.schools[t.id] ?? null,
      systemVoltage_V: unit.engine.systemVoltage_V,
      key: t.condition.key,
      engine: t.condition.engine,
      connection: t.connection,
    });
    if (!chosen) return [];
    const { unit: symbol, lower, upper, transfer } = chosen.limits;
    if (lower === undefined && upper === undefined && transfer === undefined) return [];
    return [
      {
        id: t.id,
        unit: symbol,
        judgedBy: {
          test: t.name,
          source: chosen.source.slice(0, 400),
          ...(lower === undefined ? {} : { lower }),
          ...(upper === undefined ? {} : { upper }),
          ...(transfer === undefined ? {} : { transfer }),
        },
      },
    ];
  });
}

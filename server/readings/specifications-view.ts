import { tr } from '../../core/locale/translate';
import { asc } from 'drizzle-orm';
import { groupBy } from '../../core/foundation/collections';
import { becauseForReader } from '../../core/specifications/because';
import type { Specification } from '../../core/specifications/types';
import type { SpecificationEntry } from '../../formats/specifications';
import type { ChoiceView, SpecificationLine, SpecificationsView } from '../../application/specifications-view';
import type { Db } from '../db/connection';
import { loadRun, situationOf } from './run-view';
import { depot, engineFamily } from '../db/schema';
import {
  allShipped,
  entryOf,
  explainFor,
  type SpecificationRow,
  specificationRows,
} from '../specifications/specifications';
import { allTests } from '../catalogue/tests';

/** The shelf as its screen shows it; with a run, why that run's limits judge it. */
export async function viewSpecifications(db: Db, runId: string | null): Promise<SpecificationsView> {
  const rows = (await specificationRows(db)).filter((r) => !r.row.ships);
  const tests = await allTests(db);
  const depots = await db.select().from(depot).orderBy(asc(depot.name));
  const families = await db.select({ code: engineFamily.code }).from(engineFamily).orderBy(asc(engineFamily.code));
  return {
    lines: [...[...groupBy(rows, (r) => r.row.seriesId).values()].map(lineOf), ...allShipped(tests).map(shippedLine)],
    tests: tests.map(({ id, name, area, part, quantity, unit }) => ({ id, name, area, part, quantity, unit })),
    families: families.map((f) => f.code),
    depots: depots.map((d) => ({ id: d.id, name: d.name, ...d.choices })),
    choice: runId ? await choiceOf(db, runId) : null,
  };
}

function lineOf(series: readonly SpecificationRow[]): SpecificationLine {
  const newest = series.at(-1) as SpecificationRow;
  const told = (r: SpecificationRow) => ({
    id: r.row.id,
    revision: r.row.revision,
    status: r.row.status,
    entry: entryOf(r),
    by: r.row.recordedBy,
    at: r.row.createdAt.toISOString(),
  });
  return { ...told(newest), ships: false, earlier: series.slice(0, -1).toReversed().map(told) };
}

const entryOfShipped = (s: Specification): SpecificationEntry => ({
  test: s.test,
  scope: 'general',
  ...(Object.keys(s.when).length ? { when: s.when } : {}),
  limits: s.limits,
  source: s.source,
  status: 'rule-of-thumb',
});

const shippedLine = (s: Specification): SpecificationLine => ({
  id: s.id,
  revision: 1,
  status: 'rule-of-thumb',
  entry: entryOfShipped(s),
  by: '',
  at: null,
  ships: true,
  earlier: [],
});

async function choiceOf(db: Db, runId: string): Promise<ChoiceView | null> {
  const record = await loadRun(db, runId);
  if (!record) return null;
  const choice = await explainFor(db, record.definition, situationOf(record));
  const byId = new Map((await specificationRows(db)).map((r) => [r.row.id, entryOf(r)]));
  return {
    runId,
    title: tr`${record.unit.fleetNumber}, job ${record.job.number}: ${record.definition.name}`,
    chosen: record.specification.id,
    because: becauseForReader(record.run.because),
    passedOver: choice.passedOver.map(({ specification: s, why }) => ({
      id: s.id,
      revision: s.revision,
      why,
      entry: byId.get(s.id) ?? entryOfShipped(s),
    })),
  };
}

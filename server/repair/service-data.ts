import { tr } from '../../core/locale/translate';
import { asc, desc, eq, sql } from 'drizzle-orm';
import { v5 } from 'uuid';
import type { FittingPlan, ServiceDataView } from '../../application/repair-view';
import { fail, type Problem, type Result } from '../../core/foundation/result';
import type { FittingEntry } from '../../formats/fitting-values-csv';
import { type ProblemDetails, problemDetails } from '../../formats/problem';
import type { FittingValue } from '../../formats/requests/service-data';
import { namedInTable } from '../../formats/table-values';
import { LOOK } from '../db/all-or-nothing';
import { type Db, together } from '../db/connection';
import { engineFamily, serviceData } from '../db/schema';
import { takeList } from '../db/take-list';
import { append } from '../journal/append';

/** All service data as they stand now, with how often each was entered. */
export async function viewServiceData(db: Db): Promise<ServiceDataView> {
  const [rows, families] = await together(
    db,
    (at) =>
      at
        .selectDistinctOn([serviceData.kind, serviceData.key, serviceData.engineFamilyId], {
          kind: serviceData.kind,
          key: serviceData.key,
          body: serviceData.body,
          source: serviceData.source,
          by: serviceData.recordedBy,
          at: serviceData.createdAt,
          family: engineFamily.code,
          revision: sql<number>`(count(*) over (partition by ${serviceData.kind}, ${serviceData.key}, ${serviceData.engineFamilyId}))::int`,
        })
        .from(serviceData)
        .leftJoin(engineFamily, eq(engineFamily.id, serviceData.engineFamilyId))
        .orderBy(serviceData.kind, serviceData.key, serviceData.engineFamilyId, desc(serviceData.sequence)),
    (at) => at.select({ code: engineFamily.code }).from(engineFamily).orderBy(asc(engineFamily.code)),
  );
  return {
    families: families.map((f) => f.code),
    lines: rows.map(({ at, ...r }) => ({ ...r, at: at.toISOString() })),
  };
}

/**
 * Fitting values of a list. Without `batch`: what it would do. With it: does it, all or nothing. Problems
 * stand at the line.
 */
export async function importFittingValues(
  db: Db,
  entries: readonly FittingEntry[],
  { batch, by }: { readonly batch: string | null; readonly by: string },
): Promise<Result<FittingPlan, ProblemDetails>> {
  const [{ lines }, families] = await together(
    db,
    (at) => viewServiceData(at),
    (at) => at.select({ id: engineFamily.id, code: engineFamily.code }).from(engineFamily),
  );
  const placeOf = (family: string | null, key: string): string => `${family ?? ''}|${key}`;
  const byPlace = new Map(lines.filter((l) => l.kind === 'fitting').map((l) => [placeOf(l.family, l.key), l]));
  const problems: Problem[] = [];
  const seen = new Map<string, number>();
  const rows = entries.flatMap((entry) => {
    const at = (column: string) => `/line ${entry.line}/${column}`;
    const family = entry.family === null ? null : namedInTable(families, (f) => f.code, entry.family);
    if (family === undefined) {
      problems.push({ path: at('family'), message: tr`There is no engine family "${entry.family ?? ''}".` });
      return [];
    }
    const place = placeOf(family?.code ?? null, entry.key);
    const before = seen.get(place);
    if (before !== undefined)
      problems.push({ path: at('step'), message: tr`This value stands in line ${before} already.` });
    seen.set(place, entry.line);
    const now = byPlace.get(place);
    const isSame = now !== undefined && (now.body as FittingValue).value === entry.value && now.source === entry.source;
    return [{ entry, family, place, action: now ? (isSame ? 'unchanged' : 'change') : 'new' } as const];
  });
  if (problems.length) return fail(problemDetails('This list cannot be taken.', problems));
  return takeList(db, {
    rows,
    plan: rows.map(({ entry, family, action }) => ({
      what: tr`${family?.code ?? 'any engine'}, ${entry.key}: ${entry.value}`,
      action,
    })),
    take: (tx, { entry, family, place }) =>
      append(tx, serviceData, {
        id: v5(place, batch ?? LOOK),
        engineFamilyId: family?.id ?? null,
        kind: 'fitting',
        key: entry.key,
        body: { value: entry.value },
        source: entry.source,
        recordedBy: by,
      }),
    columnOf: () => '/step',
    onlyLook: batch === null,
  });
}

import { tr } from '../../core/locale/translate';
import { asc, desc, eq, sql } from 'drizzle-orm';
import { v5 } from 'uuid';
import type { FittingPlan, ServiceDataView } from '../../application/repair-view';
import { fail, ok, type Problem, type Result } from '../../core/foundation/result';
import type { FittingEntry } from '../../formats/fitting-values-csv';
import { type ProblemDetails, problemDetails } from '../../formats/problem';
import type { FittingValue } from '../../formats/requests/service-data';
import { type Db, together } from '../db/connection';
import { engineFamily, serviceData } from '../db/schema';
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

/** Fitting values as a list has them. Without `store`: what it would do. With it: does it, all or nothing. */
export async function importFittingValues(
  db: Db,
  entries: readonly FittingEntry[],
  store: { readonly batch: string; readonly by: string } | null,
): Promise<Result<FittingPlan, ProblemDetails>> {
  const [{ lines }, families] = await together(
    db,
    (at) => viewServiceData(at),
    (at) => at.select({ id: engineFamily.id, code: engineFamily.code }).from(engineFamily),
  );
  const problems: Problem[] = [];
  const seen = new Map<string, number>();
  const rows = entries.flatMap((e) => {
    const family = e.family === null ? null : families.find((f) => f.code.toLowerCase() === e.family?.toLowerCase());
    if (family === undefined) {
      problems.push({ path: `/line ${e.line}/family`, message: tr`There is no engine family "${e.family ?? ''}".` });
      return [];
    }
    const place = `${family?.code ?? ''}|${e.key}`;
    const before = seen.get(place);
    if (before !== undefined)
      problems.push({ path: `/line ${e.line}/step`, message: tr`This value stands in line ${before} already.` });
    seen.set(place, e.line);
    const now = lines.find((l) => l.kind === 'fitting' && l.key === e.key && l.family === (family?.code ?? null));
    const isSame = now !== undefined && (now.body as FittingValue).value === e.value && now.source === e.source;
    return [{ entry: e, family, action: now ? (isSame ? 'unchanged' : 'change') : 'new' } as const];
  });
  if (problems.length) return fail(problemDetails('This list cannot be taken.', problems));
  const plan = rows.map(({ entry, family, action }) => ({
    what: tr`${family?.code ?? 'any engine'}, ${entry.key}: ${entry.value}`,
    action,
  }));
  if (!store) return ok({ rows: plan, stored: 0 });
  await db.transaction(async (tx) => {
    for (const { entry, family, action } of rows)
      if (action !== 'unchanged')
        await append(tx, serviceData, {
          id: v5(`${family?.code ?? ''}|${entry.key}`, store.batch),
          engineFamilyId: family?.id ?? null,
          kind: 'fitting',
          key: entry.key,
          body: { value: entry.value },
          source: entry.source,
          recordedBy: store.by,
        });
  });
  return ok({ rows: plan, stored: plan.filter((r) => r.action !== 'unchanged').length });
}

import { and, desc, eq, isNull, or, sql } from 'drizzle-orm';
import type { ConnectorView } from '../../application/views';
import type { Connector } from '../../core/engine/connector';
import type { Db } from '../db/connection';
import { fleetUnit, job, serviceData } from '../db/schema';

/**
 * The connectors of an engine family: its own before those of any engine, the newest of each name. One
 * without pins was taken away.
 */
export async function connectorsOf(db: Db, familyId: string): Promise<ConnectorView[]> {
  const rows = await db
    .selectDistinctOn([serviceData.key], { key: serviceData.key, body: serviceData.body, source: serviceData.source })
    .from(serviceData)
    .where(
      and(
        eq(serviceData.kind, 'connector'),
        or(eq(serviceData.engineFamilyId, familyId), isNull(serviceData.engineFamilyId)),
      ),
    )
    .orderBy(serviceData.key, sql`${serviceData.engineFamilyId} is null`, desc(serviceData.sequence));
  return rows.flatMap(({ key, body, source }) => {
    const connector = body as Connector;
    return connector.pins.length ? [{ key, source, ...connector }] : [];
  });
}

/** The connectors of the engine that a job is about. */
export async function connectorsForJob(db: Db, jobId: string): Promise<ConnectorView[]> {
  const [row] = await db
    .select({ familyId: fleetUnit.engineFamilyId })
    .from(job)
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .where(eq(job.id, jobId));
  return row ? connectorsOf(db, row.familyId) : [];
}

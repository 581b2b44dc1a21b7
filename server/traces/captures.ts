import { and, desc, eq, sql } from 'drizzle-orm';
import type { LibraryCapture } from '../../application/views';
import type { CaptureStanding, Standing, TraceCapture } from '../../formats/requests/traces';
import type { Db } from '../db/connection';
import { type Done, notFound, refuse } from '../db/refusal';
import { engineFamily, fleetUnit, job, trace, traceNote } from '../db/schema';
import { append } from '../journal/append';

/** Keeps what a lead says of a capture; the last word counts. A recording over time has no standing. */
export async function markCapture(db: Db, traceId: string, { id, by, standing, why }: CaptureStanding): Promise<Done> {
  const [of] = await db.select({ jobId: trace.jobId, head: trace.head }).from(trace).where(eq(trace.id, traceId));
  if (!of) return notFound('recording');
  if (!of.head.capture)
    return refuse('Some fields are wrong.', [{ path: '', message: 'It is no capture over crank angle.' }]);
  const body = { kind: 'standing' as const, from_s: 0, to_s: 0, channel: null, text: why, standing };
  return append(db, traceNote, { id, jobId: of.jobId, traceId, body, recordedBy: by });
}

/** The newest standing of a capture; nobody has said anything: unknown. */
const standingOf = sql<Standing | null>`(
  select n.body->>'standing' from ${traceNote} n
  where n.trace_id = ${trace.id} and n.body->>'kind' = 'standing'
  order by n.sequence desc limit 1
)`;

const columns = {
  id: trace.id,
  name: trace.name,
  capture: sql<TraceCapture>`${trace.head}->'capture'`,
  channels: sql<LibraryCapture['channels']>`(
    select jsonb_agg(jsonb_build_object('column', c->>'column', 'role', c->>'role', 'name', c->>'name', 'unit', c->>'unit'))
    from jsonb_array_elements(${trace.head}->'channels') c
  )`,
  unit: fleetUnit.fleetNumber,
  family: engineFamily.code,
  by: trace.recordedBy,
  at: trace.createdAt,
  standing: standingOf,
};
const MOST = 300;

async function capturesWhere(
  db: Db,
  familyId: string | null,
  condition: TraceCapture['condition'] | null,
): Promise<LibraryCapture[]> {
  const rows = await db
    .select(columns)
    .from(trace)
    .innerJoin(job, eq(job.id, trace.jobId))
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .innerJoin(engineFamily, eq(engineFamily.id, fleetUnit.engineFamilyId))
    .where(
      and(
        sql`${trace.head} ? 'capture'`,
        familyId === null ? undefined : eq(engineFamily.id, familyId),
        condition === null ? undefined : sql`${trace.head}->'capture'->>'condition' = ${condition}`,
      ),
    )
    .orderBy(desc(trace.sequence))
    .limit(MOST);
  return rows.map((r) => ({ ...r, standing: r.standing ?? 'unknown', at: r.at.toISOString() }));
}

/** All captures, newest first. */
export const captureLibrary = (db: Db): Promise<LibraryCapture[]> => capturesWhere(db, null, null);

/**
 * What a capture can be laid over: known good ones of the same engine family and condition, the nearest in speed first, then
 * earlier ones of the same unit.
 */
export async function ghostsFor(db: Db, traceId: string): Promise<LibraryCapture[]> {
  const [own] = await db
    .select({ ...columns, familyId: fleetUnit.engineFamilyId })
    .from(trace)
    .innerJoin(job, eq(job.id, trace.jobId))
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .innerJoin(engineFamily, eq(engineFamily.id, fleetUnit.engineFamilyId))
    .where(eq(trace.id, traceId));
  if (!own?.capture) return [];
  const speed = own.capture.cycle?.speed_rpm ?? 0;
  const others = (await capturesWhere(db, own.familyId, own.capture.condition)).filter(
    (c) => c.id !== traceId && c.capture.cycle !== null,
  );
  const off = (c: LibraryCapture): number => Math.abs((c.capture.cycle?.speed_rpm ?? Infinity) - speed);
  const good = others.filter((c) => c.standing === 'known good').sort((a, b) => off(a) - off(b));
  return [...good, ...others.filter((c) => c.standing !== 'known good' && c.unit === own.unit)].slice(0, 8);
}

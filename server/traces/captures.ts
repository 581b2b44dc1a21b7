import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import type { CaptureBehind, LibraryCapture } from '../../application/views';
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

async function capturesWhere(db: Db, familyId: string | null): Promise<LibraryCapture[]> {
  const rows = await db
    .select(columns)
    .from(trace)
    .innerJoin(job, eq(job.id, trace.jobId))
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .innerJoin(engineFamily, eq(engineFamily.id, fleetUnit.engineFamilyId))
    .where(and(sql`${trace.head} ? 'capture'`, familyId === null ? undefined : eq(engineFamily.id, familyId)))
    .orderBy(desc(trace.sequence))
    .limit(MOST);
  return rows.map((r) => ({ ...r, standing: r.standing ?? 'unknown', at: r.at.toISOString() }));
}

/** All captures, newest first. */
export const captureLibrary = (db: Db): Promise<LibraryCapture[]> => capturesWhere(db, null);

/**
 * What a capture can be laid over. Known good ones of the same engine family and condition come first, the
 * likest first: with the same channels, as warm, at the nearest speed; then earlier ones of the same unit;
 * then what the same unit did in another condition.
 */
export async function ghostsFor(db: Db, traceId: string): Promise<CaptureBehind[]> {
  const [own] = await db
    .select({ ...columns, familyId: fleetUnit.engineFamilyId })
    .from(trace)
    .innerJoin(job, eq(job.id, trace.jobId))
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .innerJoin(engineFamily, eq(engineFamily.id, fleetUnit.engineFamilyId))
    .where(eq(trace.id, traceId));
  if (!own?.capture) return [];
  const others = (await capturesWhere(db, own.familyId)).filter((c) => c.id !== traceId && c.capture.cycle);
  const alike = others.filter((c) => c.capture.condition === own.capture.condition);
  const isOwn = (c: LibraryCapture): boolean => c.unit === own.unit;
  const good = alike.filter((c) => c.standing === 'known good').sort((a, b) => unlikeness(a, own) - unlikeness(b, own));
  const found = [
    ...good,
    ...alike.filter((c) => c.standing !== 'known good' && isOwn(c)),
    ...others.filter((c) => !alike.includes(c) && isOwn(c)),
  ].slice(0, MOST_BEHIND);
  return await withFindings(db, found);
}
const MOST_BEHIND = 8;

/** How unlike a capture is to another one of its family and condition: 0 is the same. */
function unlikeness(c: LibraryCapture, own: Pick<LibraryCapture, 'capture' | 'channels'>): number {
  const rolesOf = ({ channels }: Pick<LibraryCapture, 'channels'>): Set<string> => new Set(channels.map((h) => h.role));
  const there = rolesOf(c);
  const lacking = [...rolesOf(own)].filter((r) => !there.has(r)).length;
  const warmth = own.capture.temperature !== undefined && c.capture.temperature !== own.capture.temperature ? 1 : 0;
  const [a, b] = [c.capture.cycle?.speed_rpm ?? 0, own.capture.cycle?.speed_rpm ?? 0];
  // A channel that is not there cannot be compared at all; warmth counts like a third of the speed.
  return lacking + 0.3 * warmth + Math.min(1, Math.abs(a - b) / Math.max(a, b, 1));
}

/** With the numbers of each capture: what is said of cylinders and of how the starter turns. */
async function withFindings(db: Db, captures: readonly LibraryCapture[]): Promise<CaptureBehind[]> {
  if (captures.length === 0) return [];
  const rows = await db
    .select({ id: trace.id, findings: sql<CaptureBehind['findings']>`${trace.head}->'search'->'findings'` })
    .from(trace)
    .where(
      inArray(
        trace.id,
        captures.map((c) => c.id),
      ),
    );
  const kinds: ReadonlySet<string> = new Set(['contribution', 'compression', 'knock', 'pulse', 'cranking']);
  return captures.map((c) => ({
    ...c,
    findings: (rows.find((r) => r.id === c.id)?.findings ?? []).filter((f) => kinds.has(f.kind)),
  }));
}

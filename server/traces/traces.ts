import { grouped } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import { createHash } from 'node:crypto';
import { deflateRawSync, inflateRawSync } from 'node:zlib';
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import { ok } from '../../core/foundation/result';
import { decodeBlock, pyramidOf } from '../../core/signal/block-codec';
import { BLOCK_SAMPLES } from '../../core/signal/samples';
import { checkHead, samplesIn } from '../../application/traces/stored';
import { headForReader } from '../../application/traces/stored-words';
import type { TraceView } from '../../application/views';
import type { KeepTrace, NoteTrace, TraceHead } from '../../formats/requests/traces';
import type { Db } from '../db/connection';
import { type Done, notFound, refuse } from '../db/refusal';
import { evidence, fleetUnit, job, trace, traceBlock, traceNote } from '../db/schema';
import { alreadyThere, append } from '../journal/append';
import {
  MOST_BUNDLED_BLOCKS,
  MOST_BUNDLED_BYTES,
  MOST_DEPOT_BYTES,
  MOST_MARKS,
  MOST_TRACE_BYTES,
  MOST_TRACES,
} from './trace-limits';

const MB = (bytes: number): string => tr`${grouped(Math.round(bytes / 1e6))} MB`;

/** Keeps all of a recording but its samples. They come after it, block by block. */
export async function keepTrace(db: Db, jobId: string, body: KeepTrace): Promise<Done> {
  const row = { id: body.id, jobId, name: body.name, head: body.head, recordedBy: body.by };
  const same = await alreadyThere(db, trace, row);
  if (same) return same;
  const [of] = await db
    .select({ depotId: fleetUnit.depotId })
    .from(job)
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .where(eq(job.id, jobId));
  if (!of) return notFound('job');
  const problems = checkHead(body.head);
  if (problems.length) return refuse('Some fields are wrong.', problems);
  if (body.head.size > MOST_TRACE_BYTES)
    return refuse(
      'Too large.',
      [{ path: '/head/size', message: tr`A recording is at most ${MB(MOST_TRACE_BYTES)}: cut it into parts.` }],
      413,
    );
  const held = await heldBy(db, jobId, of.depotId);
  if (held.inJob >= MOST_TRACES)
    return refuse('Too many recordings.', [{ path: '', message: tr`A job holds at most ${MOST_TRACES} recordings.` }]);
  if (held.blocks + blocksIn(body.head) > MOST_BUNDLED_BLOCKS)
    return refuse('Too many recordings.', [
      {
        path: '/head/streams',
        message: tr`The recordings of a job are at most ${MOST_BUNDLED_BLOCKS} blocks together.`,
      },
    ]);
  if (held.bytes + body.head.size > MOST_DEPOT_BYTES)
    return refuse(
      'No room.',
      [
        {
          path: '',
          message: tr`The recordings of this depot hold ${MB(held.bytes)}; ${MB(MOST_DEPOT_BYTES)} is the most.`,
        },
      ],
      413,
    );
  return append(db, trace, row);
}

async function heldBy(
  db: Db,
  jobId: string,
  depotId: string,
): Promise<{ inJob: number; bytes: number; blocks: number }> {
  const [row] = await db
    .select({
      inJob: sql<number>`count(*) filter (where ${trace.jobId} = ${jobId})::int`,
      bytes: sql<number>`coalesce(sum((${trace.head}->>'size')::float8), 0)::float8`,
    })
    .from(trace)
    .innerJoin(job, eq(job.id, trace.jobId))
    .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
    .where(eq(fleetUnit.depotId, depotId));
  const own = await db.select({ head: trace.head }).from(trace).where(eq(trace.jobId, jobId));
  return { ...(row ?? { inJob: 0, bytes: 0 }), blocks: own.reduce((n, t) => n + blocksIn(t.head), 0) };
}

const blocksIn = ({ streams }: TraceHead): number => streams.reduce((n, s) => n + s.blocks.length, 0);

/** To which job a recording belongs; `null`: there is none. */
export async function jobOfTrace(db: Db, traceId: string): Promise<string | null> {
  const [row] = await db.select({ jobId: trace.jobId }).from(trace).where(eq(trace.id, traceId));
  return row?.jobId ?? null;
}

/**
 * Keeps one block of a recording, as it was sent: deflated. Its content must have the hash that the head
 * states, and hold so many samples. The same block again is a duplicate.
 */
export async function keepBlock(db: Db, traceId: string, stream: number, number: number, bytes: Buffer): Promise<Done> {
  const [row] = await db.select({ head: trace.head, jobId: trace.jobId }).from(trace).where(eq(trace.id, traceId));
  if (!row) return notFound('recording');
  const declared = row.head.streams[stream];
  const hash = declared?.blocks[number];
  const wrong = (message: string): Done =>
    refuse('This block is wrong.', [{ path: `/streams/${stream}/blocks/${number}`, message }]);
  if (!declared || hash === undefined) return wrong(tr`The recording has no block ${number} in stream ${stream}.`);
  let content: Buffer;
  try {
    content = inflateRawSync(bytes, { maxOutputLength: 9 * BLOCK_SAMPLES });
  } catch {
    return wrong(tr`Block ${number} cannot be inflated: it was damaged on its way.`);
  }
  if (createHash('sha256').update(content).digest('hex') !== hash)
    return wrong(tr`Block ${number} is not the one that the recording states: its hash is another.`);
  const samples = decodeBlock(content, samplesIn(declared, number));
  if (!samples || samples instanceof Float64Array !== declared.wide)
    return wrong(tr`Block ${number} holds no ${samplesIn(declared, number)} samples.`);
  if ((await bytesOf(db, row.jobId)) + bytes.length > MOST_BUNDLED_BYTES)
    return refuse('No room.', [
      { path: '', message: tr`The recordings of a job hold at most ${MB(MOST_BUNDLED_BYTES)} as they are kept.` },
    ]);
  const inserted = await db
    .insert(traceBlock)
    .values({ traceId, stream, number, content: bytes, pyramid: pyramidBytes(samples) })
    .onConflictDoNothing()
    .returning({ number: traceBlock.number });
  return ok({ id: traceId, duplicate: inserted.length === 0 });
}

/** What the recordings of a job hold, as they are kept: no more than its bundle can carry. */
async function bytesOf(db: Db, jobId: string): Promise<number> {
  const [row] = await db
    .select({ bytes: sql<number>`coalesce(sum(octet_length(${traceBlock.content})), 0)::float8` })
    .from(traceBlock)
    .innerJoin(trace, eq(trace.id, traceBlock.traceId))
    .where(eq(trace.jobId, jobId));
  return row?.bytes ?? 0;
}

const pyramidBytes = (samples: Int32Array | Float64Array): Buffer => {
  const pairs = Float32Array.from(pyramidOf(samples));
  return deflateRawSync(Buffer.from(pairs.buffer), { level: 6 });
};

/** The recordings of a job, each with what is still missing of its blocks. */
export async function tracesOf(db: Db, jobId: string): Promise<TraceView[]> {
  const rows = await db.select().from(trace).where(eq(trace.jobId, jobId)).orderBy(asc(trace.sequence));
  if (rows.length === 0) return [];
  const ids = rows.map((r) => r.id);
  const held = await db
    .select({ traceId: traceBlock.traceId, stream: traceBlock.stream, number: traceBlock.number })
    .from(traceBlock)
    .where(inArray(traceBlock.traceId, ids));
  const notes = await db
    .select()
    .from(traceNote)
    .where(inArray(traceNote.traceId, ids))
    .orderBy(asc(traceNote.sequence));
  return rows.map((r) => ({
    id: r.id,
    jobId: r.jobId,
    name: r.name,
    head: headForReader(r.head),
    by: r.recordedBy,
    at: r.createdAt.toISOString(),
    missing: missingOf(
      r.head,
      held.filter((b) => b.traceId === r.id),
    ),
    notes: notes
      .filter((n) => n.traceId === r.id)
      .map((n) => ({ id: n.id, body: n.body, by: n.recordedBy, at: n.createdAt.toISOString() })),
  }));
}

export async function viewTrace(db: Db, traceId: string): Promise<TraceView | null> {
  const jobId = await jobOfTrace(db, traceId);
  return jobId === null ? null : ((await tracesOf(db, jobId)).find((t) => t.id === traceId) ?? null);
}

function missingOf(
  head: TraceHead,
  held: readonly { readonly stream: number; readonly number: number }[],
): { stream: number; number: number }[] {
  const there = new Set(held.map((b) => `${b.stream} ${b.number}`));
  return head.streams.flatMap((s, stream) =>
    s.blocks.flatMap((_, number) => (there.has(`${stream} ${number}`) ? [] : [{ stream, number }])),
  );
}

/** One block as it was sent; `null`: it is not there. */
export async function blockBytes(db: Db, traceId: string, stream: number, number: number): Promise<Buffer | null> {
  const [row] = await db
    .select({ content: traceBlock.content })
    .from(traceBlock)
    .where(and(eq(traceBlock.traceId, traceId), eq(traceBlock.stream, stream), eq(traceBlock.number, number)));
  return row?.content ?? null;
}

/** Lowest and highest of every 64 samples of a stream, block after block: 32-bit floats, little-endian. */
export async function pyramidOfStream(db: Db, traceId: string, stream: number): Promise<Buffer> {
  const rows = await db
    .select({ pyramid: traceBlock.pyramid })
    .from(traceBlock)
    .where(and(eq(traceBlock.traceId, traceId), eq(traceBlock.stream, stream)))
    .orderBy(asc(traceBlock.number));
  return Buffer.concat(rows.map((r) => inflateRawSync(r.pyramid, { maxOutputLength: 16 * BLOCK_SAMPLES })));
}

/** A mark, or what was decided about a finding. */
export async function noteTrace(db: Db, traceId: string, { id, by, ...body }: NoteTrace): Promise<Done> {
  const [of] = await db.select({ jobId: trace.jobId, head: trace.head }).from(trace).where(eq(trace.id, traceId));
  if (!of) return notFound('recording');
  if (body.to_s < body.from_s)
    return refuse('Some fields are wrong.', [{ path: '/to_s', message: 'It ends before it begins.' }]);
  if (body.channel !== null && !of.head.channels.some((c) => c.column === body.channel))
    return refuse('Some fields are wrong.', [{ path: '/channel', message: 'The recording has no such channel.' }]);
  if (body.evidence !== undefined) {
    const [named] = await db.select({ jobId: evidence.jobId }).from(evidence).where(eq(evidence.id, body.evidence));
    if (named?.jobId !== of.jobId)
      return refuse('Some fields are wrong.', [
        { path: '/evidence', message: 'There is no such evidence in this job.' },
      ]);
  }
  const held = await db.$count(traceNote, eq(traceNote.traceId, traceId));
  const row = { id, jobId: of.jobId, traceId, body, recordedBy: by };
  if (held >= MOST_MARKS)
    return (
      (await alreadyThere(db, traceNote, row)) ??
      refuse('Too many marks.', [{ path: '', message: tr`A recording holds at most ${MOST_MARKS} notes.` }])
    );
  return append(db, traceNote, row);
}

/** The whole recording as it was read: a table that reads back unchanged. `null`: a block is missing. */
export async function traceSamples(
  db: Db,
  view: TraceView,
): Promise<ReadonlyMap<number, readonly (Int32Array | Float64Array)[]> | null> {
  if (view.missing.length) return null;
  const out = new Map<number, (Int32Array | Float64Array)[]>();
  for (const [stream, declared] of view.head.streams.entries()) {
    const blocks: (Int32Array | Float64Array)[] = [];
    for (const number of declared.blocks.keys()) {
      const bytes = await blockBytes(db, view.id, stream, number);
      const samples =
        bytes &&
        decodeBlock(inflateRawSync(bytes, { maxOutputLength: 9 * BLOCK_SAMPLES }), samplesIn(declared, number));
      if (!samples) return null;
      blocks.push(samples);
    }
    out.set(stream, blocks);
  }
  return out;
}

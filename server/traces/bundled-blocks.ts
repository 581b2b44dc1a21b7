import { asc, eq } from 'drizzle-orm';
import type { Db } from '../db/connection';
import { trace, traceBlock } from '../db/schema';
import { keepBlock } from './traces';

const fileOf = (traceId: string, stream: number, number: number): string => `traces/${traceId}/${stream}-${number}.bin`;
const NAME = /^traces\/([0-9a-f-]{36})\/(\d+)-(\d+)\.bin$/;

/** The blocks of all recordings of a job as files of its bundle, as they were sent. */
export async function blockFiles(db: Db, jobId: string): Promise<Map<string, Buffer>> {
  const rows = await db
    .select({ id: trace.id, stream: traceBlock.stream, number: traceBlock.number, content: traceBlock.content })
    .from(traceBlock)
    .innerJoin(trace, eq(trace.id, traceBlock.traceId))
    .where(eq(trace.jobId, jobId))
    .orderBy(asc(trace.sequence), asc(traceBlock.stream), asc(traceBlock.number));
  return new Map(rows.map((r) => [fileOf(r.id, r.stream, r.number), r.content]));
}

/** Takes the blocks of a bundle in, each checked as if it were sent; returns what is wrong, or `null`. */
export async function bringBlocks(db: Db, files: ReadonlyMap<string, Buffer>): Promise<string | null> {
  for (const [name, bytes] of files) {
    const [, id = '', stream, number] = NAME.exec(name) ?? [];
    const kept = await keepBlock(db, id, Number(stream), Number(number), bytes);
    if (!kept.ok) return `${name}: ${kept.error.errors[0]?.message ?? kept.error.title}`;
  }
  return null;
}

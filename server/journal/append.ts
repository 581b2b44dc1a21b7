import { eq, getTableColumns, getTableName } from 'drizzle-orm';
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core';
import { ok } from '../../core/foundation/result';
import { canonical } from '../../formats/canonical';
import type { Db, Tx } from '../db/connection';
import { databaseCode, type Done, refuseTakenId, UNIQUE_VIOLATION } from '../db/refusal';
import { madeAt } from './made-at';
import { RECORD_KINDS, type RecordKind } from './record-kinds';

/** A table whose rows bring their own id. */
type WithId = PgTable & { readonly id: PgColumn };
/** What is written: columns by their names in the schema. */
export type Row = Readonly<Record<string, unknown>> & { readonly id: string };

/**
 * Writes a row once, whoever sends it how often. The one rule for ids: the same row again (a lost answer, a
 * repeat) is a `duplicate` and writes nothing; another row under an id that is taken, of this job or of any
 * other, is refused with 409. Other unique indexes fail as PostgreSQL says.
 */
export async function append<T extends WithId>(db: Db | Tx, table: T, row: Row & T['$inferInsert']): Promise<Done> {
  const inserted = await insertNew(db, table, row);
  if (inserted) return ok({ id: row.id, duplicate: false });
  return (await alreadyThere(db, table, row)) ?? ok({ id: row.id, duplicate: true });
}

/**
 * Whether it was written before: `null` where the id is free. For commands that refuse what a repeat would no
 * longer be allowed.
 */
export async function alreadyThere(db: Db | Tx, table: WithId, row: Row): Promise<Done | null> {
  const [there] = await db.select().from(table).where(eq(table.id, row.id));
  if (!there) return null;
  return sameRow(table, there, row) ? ok({ id: row.id, duplicate: true }) : refuseTaken(table);
}

async function insertNew(db: Db | Tx, table: WithId, row: Row): Promise<boolean> {
  const inserted = await db
    .insert(table as PgTable)
    .values({ ...madeThen(table), ...row })
    .onConflictDoNothing({ target: table.id })
    .returning({ id: table.id });
  return inserted.length > 0;
}

/** Of what was made before it is sent, when that was; its place in the trail says when it came. */
function madeThen(table: PgTable): { createdAt?: Date } {
  const at = madeAt();
  return at && 'createdAt' in getTableColumns(table) ? { createdAt: at } : {};
}

const kindOf = (table: PgTable): RecordKind | undefined =>
  Object.values<RecordKind>(RECORD_KINDS).find((k) => k.table === table);

/** An id is taken: 409 at `/id`. */
export const refuseTaken = (table: PgTable) =>
  refuseTakenId(kindOf(table)?.words ?? getTableName(table).replaceAll('_', ' '));

/**
 * Does the row that is there say what is sent? Columns that are not sent, and those that follow from others,
 * are not asked.
 */
function sameRow(table: PgTable, there: Record<string, unknown>, sent: Row): boolean {
  const derived = new Set(kindOf(table)?.derived);
  return Object.keys(getTableColumns(table)).every(
    (c) => sent[c] === undefined || derived.has(c) || plain(there[c]) === plain(sent[c]),
  );
}

const plain = (value: unknown): string => (value instanceof Date ? value.toISOString() : canonical(value ?? null));

/** A row that takes another back. Whoever comes second finds it done: a slip is taken back once. */
export async function appendTakeBack<T extends WithId>(db: Db, table: T, row: Row & T['$inferInsert']): Promise<Done> {
  try {
    return await append(db, table, row);
  } catch (error) {
    if (databaseCode(error)?.code !== UNIQUE_VIOLATION) throw error;
    return ok({ id: row.id, duplicate: true });
  }
}

/**
 * Several rows that are one thing under one id: all of them are written, or none. A repeat of all is a
 * duplicate.
 */
export async function appendAll<T extends WithId>(
  db: Db | Tx,
  table: T,
  id: string,
  rows: readonly (Row & T['$inferInsert'])[],
): Promise<Done> {
  class Refused extends Error {
    constructor(readonly refusal: Done) {
      super('refused');
    }
  }
  try {
    return await db.transaction(async (tx) => {
      let written = 0;
      for (const row of rows) {
        const done = await append(tx, table, row);
        if (!done.ok) throw new Refused(done);
        if (!done.value.duplicate) written++;
      }
      return ok({ id, duplicate: written === 0 });
    });
  } catch (error) {
    if (error instanceof Refused) return error.refusal;
    throw error;
  }
}

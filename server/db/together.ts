import type { NodePgDatabase } from 'drizzle-orm/node-postgres';
import { PgTransaction } from 'drizzle-orm/pg-core';
import type * as schema from './schema';

export type Db = NodePgDatabase<typeof schema>;
/** The database or a transaction in it. */
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0];

/** A transaction reads as the database does: the same queries, another session. */
export const within = (tx: Tx): Db => tx;

/**
 * Databases whose questions can be folded, each with what makes a folding one of it (`connection.ts`). On
 * `globalThis`: pages and routes are bundled apart and share the connection.
 */
const kept = globalThis as { mudflatFolding?: WeakMap<Db, () => Db> };

export const foldsWith = (db: Db, fold: () => Db): void =>
  void (kept.mudflatFolding ??= new WeakMap<Db, () => Db>()).set(db, fold);

/**
 * Has `read` done for each: beside each other, or one by one in a transaction, whose one connection answers
 * one question at a time. Each is to ask the database that it is given: what is asked in the same moment goes
 * to the server as one statement (`fold.ts`).
 */
export async function eachOf<T, U>(db: Db, all: readonly T[], read: (one: T, db: Db) => Promise<U>): Promise<U[]> {
  const at = kept.mudflatFolding?.get(db)?.() ?? db;
  if (!(at instanceof PgTransaction)) return Promise.all(all.map((one) => read(one, at)));
  const done: U[] = [];
  for (const one of all) done.push(await read(one, at));
  return done;
}

/** The same for questions of different kinds. */
export async function together<T extends readonly unknown[]>(
  db: Db,
  ...reads: { readonly [K in keyof T]: (db: Db) => Promise<T[K]> }
): Promise<T> {
  // The answers stand in the order of the questions.
  const all = await eachOf(db, reads as readonly ((db: Db) => Promise<unknown>)[], (read, at) => read(at));
  return all as unknown as T;
}

import type { NodePgDatabase } from 'drizzle-orm/node-postgres';
import { PgTransaction } from 'drizzle-orm/pg-core';
import type * as schema from './schema';

export type Db = NodePgDatabase<typeof schema>;
/** The database or a transaction in it. */
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0];

/** A transaction reads as the database does. */
// eslint-disable-next-line @typescript-eslint/no-unsafe-class-instance-assignment -- the same queries; only the session is another
export const within = (tx: Tx): Db => tx;

/**
 * Has `read` done for each: beside each other, or one by one in a transaction, whose one connection answers
 * one question at a time.
 */
export async function eachOf<T, U>(db: Db, all: readonly T[], read: (one: T) => Promise<U>): Promise<U[]> {
  if (!(db instanceof PgTransaction)) return Promise.all(all.map(read));
  const done: U[] = [];
  for (const one of all) done.push(await read(one));
  return done;
}

/** The same for questions of different kinds. */
export async function together<T extends readonly unknown[]>(
  db: Db,
  ...reads: { readonly [K in keyof T]: () => Promise<T[K]> }
): Promise<T> {
  // The answers stand in the order of the questions.
  return (await eachOf(db, reads as readonly (() => Promise<unknown>)[], (read) => read())) as unknown as T;
}

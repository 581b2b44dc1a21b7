/**
 * Stands in for `server/db/connection.ts` on a device: the same Drizzle over the PostgreSQL that runs in the
 * browser.
 */
import { PGlite, type PGliteOptions } from '@electric-sql/pglite';
import { drizzle } from 'drizzle-orm/pglite';
import * as schema from '../server/db/schema';
import type { Db } from '../server/db/together';

export * from '../server/db/together';

let kept: { readonly db: Db; readonly pg: PGlite } | null = null;

/** Opens the device's database from what was built beside the application. */
export async function openDatabase(options: PGliteOptions): Promise<PGlite> {
  const pg = await PGlite.create(options);
  kept = { pg, db: overDevice(pg) };
  return pg;
}

/** The queries are the same; only what carries them is another. */
export const overDevice = (pg: PGlite): Db => drizzle(pg, { schema }) as unknown as Db;

export function serverDb(): { readonly db: Db } {
  if (!kept) throw new Error('the database of this device is not open');
  return kept;
}

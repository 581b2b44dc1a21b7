import path from 'node:path';
import { sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import { again } from './again';
import { Fold } from './fold';
import { FrequentStatements } from './frequent';
import * as schema from './schema';
import { type Db, foldsWith } from './together';

export * from './together';

export interface Connection {
  readonly db: Db;
  readonly pool: pg.Pool;
}

/**
 * Longer than this process should compute without a pause, on a slow machine that has just started: it cannot
 * notice meanwhile that a connection was made. With 5 s pages failed there. Where no database listens, that
 * is said at once.
 */
const CONNECT_ms = 30_000;

/**
 * Connects to `url`; nothing is sent until the first query. The caller ends the pool. `wait_ms`: how long a
 * connection may take to be made before the query fails.
 */
export function connect(url: string, wait_ms = CONNECT_ms): Connection {
  const pool = new pg.Pool({ connectionString: url, max: 10, connectionTimeoutMillis: wait_ms });
  // An idle connection that breaks (server stopped) must not end the process; the next query reconnects.
  pool.on('error', (error) => process.stderr.write(`database connection lost: ${error.message}\n`));
  const frequent = new FrequentStatements();
  pool.on('connect', (client) => frequent.preparedBy(client));
  const db = drizzle(pool, { schema });
  const transaction = db.transaction.bind(db);
  db.transaction = (work, config) => again(() => transaction(work, config));
  // What drizzle asks of a connection is only this one thing, as long as nothing is written.
  foldsWith(
    db,
    () =>
      drizzle(
        new Fold((config, values) => pool.query(config as pg.QueryArrayConfig, values)) as unknown as pg.Pool,
      ) as unknown as Db,
  );
  return { db, pool };
}

/** Kept on `globalThis` so that reloading modules in development does not open a pool each time. */
const kept = globalThis as { mudflatConnection?: Connection };

/** The connection of the running server, from `DATABASE_URL`. */
export function serverDb(): Connection {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set; start with ./mudflat demo or ./mudflat dev');
  return (kept.mudflatConnection ??= connect(url));
}

/** Rows of the heartbeat: whether anything is taken, and when a backup was proven. */
const ALIVE = 1;
const BACKUP = 2;

/** Writes one row: fails where the database is not there, only reads, or is full. */
export async function beat(db: Db): Promise<void> {
  await db.execute(
    sql`insert into heartbeat (id, beat_at) values (${ALIVE}, now()) on conflict (id) do update set beat_at = now()`,
  );
}

/** A backup was written, restored and found to be the same. */
export const markBackup = (db: Db) =>
  db.execute(
    sql`insert into heartbeat (id, beat_at) values (${BACKUP}, now()) on conflict (id) do update set beat_at = now()`,
  );

/** When the last backup was proven, ISO 8601; `null`: never. */
export async function lastBackup(db: Db): Promise<string | null> {
  const { rows } = await db.execute<{ at: Date | string }>(
    sql`select beat_at as at from heartbeat where id = ${BACKUP}`,
  );
  return rows[0] ? new Date(rows[0].at).toISOString() : null;
}

const MIGRATION_LOCK = 7_210_471;

/** Brings the database to the newest schema; two processes at once wait for each other. */
export async function migrateDatabase(
  { pool }: Connection,
  folder = path.resolve('server/db/migrations'),
): Promise<void> {
  const client = await pool.connect();
  try {
    await client.query('select pg_advisory_lock($1)', [MIGRATION_LOCK]);
    await migrate(drizzle(client), { migrationsFolder: folder });
    // Concluded by whatever program ran before: this one concludes anew.
    await client.query('delete from job_standing');
  } finally {
    await client.query('select pg_advisory_unlock($1)', [MIGRATION_LOCK]);
    client.release();
  }
}

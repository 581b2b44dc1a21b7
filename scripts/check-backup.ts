import pg from 'pg';
import { connect, markBackup } from '../server/db/connection';

/** Rows of each table, and the newest event of every trail as one hash. */
async function contents(url: string): Promise<Map<string, string>> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    const { rows: tables } = await client.query<{ name: string }>(
      `select table_name as name from information_schema.tables where table_schema = 'public' order by 1`,
    );
    const found = new Map<string, string>();
    for (const { name } of tables) {
      const { rows } = await client.query<{ n: string }>(`select count(*) as n from "${name}"`);
      found.set(name, rows[0]?.n ?? '');
    }
    const { rows } = await client.query<{ heads: string | null }>(
      `select md5(string_agg(h::text, '|' order by h.job_id)) as heads from job_head h`,
    );
    found.set('heads of the trails', rows[0]?.heads ?? 'none');
    return found;
  } finally {
    await client.end();
  }
}

/** What changes by itself, whether anybody works or not. */
const RESTLESS = new Set(['session', 'sign_in_attempt', 'heartbeat', 'job_standing', 'verification']);

/**
 * Compares the restored copy with the database in use. What was written between the backup and now is more
 * there, never less: a copy that has more, or heads of its own while nothing was written, is no copy.
 */
async function main(copy: string): Promise<void> {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set.');
  const [here, there] = [await contents(url), await contents(copy)];
  const wrong: string[] = [];
  let isWritten = false;
  for (const [name, n] of here) {
    const copied = there.get(name);
    if (name === 'heads of the trails' || RESTLESS.has(name) || copied === n) continue;
    if (copied !== undefined && Number(copied) < Number(n)) isWritten = true;
    else wrong.push(`${name}: ${n} here, ${copied ?? 'no such table'} in the backup`);
  }
  if (!isWritten && here.get('heads of the trails') !== there.get('heads of the trails'))
    wrong.push('the heads of the trails are others');
  if (wrong.length) {
    process.stderr.write(`The backup is no copy of the database:\n${wrong.join('\n')}\n`);
    process.exitCode = 1;
    return;
  }
  const { db, pool } = connect(url);
  await markBackup(db);
  await pool.end();
}

main(process.argv[2] ?? '').catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exitCode = 1;
});

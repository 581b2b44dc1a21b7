import { loadDemo } from '../demo/load';
import { connect, migrateDatabase } from '../server/db/connection';

/**
 * Migrates the database of DATABASE_URL; with `--demo` loads the demo fleet too. Both may run again and
 * again.
 */
async function main(): Promise<void> {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set.');
  const connection = connect(url);
  try {
    await migrateDatabase(connection);
    if (process.argv.includes('--demo')) await loadDemo(connection.db);
  } finally {
    await connection.pool.end();
  }
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`);
  process.exitCode = 1;
});

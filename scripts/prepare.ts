import { BOARD, DEPOTS } from '../demo/fleet';
import { demoId, loadDemo } from '../demo/load';
import { connect, migrateDatabase } from '../server/db/connection';
import { changeWorkshop, claimDatabase, type Kind, newSetUpCode, otherKind } from '../server/installation/installation';

/**
 * Migrates the database of DATABASE_URL, and makes it what it is to be, once: `--demo` loads the invented
 * fleet into a database that is empty or was made for it; `--own` makes a workshop's own, and prints the
 * one-time code of its set-up while nobody is there. All of it may run again and again.
 */
async function main(): Promise<void> {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set.');
  const kind: Kind | null = process.argv.includes('--demo') ? 'demo' : process.argv.includes('--own') ? 'own' : null;
  const connection = connect(url);
  try {
    // Somebody else's database is not even migrated.
    const other = kind === null ? null : await otherKind(connection.db, kind);
    if (other !== null) {
      refuse(other);
      return;
    }
    await migrateDatabase(connection);
    if (kind === null) return;
    const claimed = await claimDatabase(
      connection.db,
      kind,
      DEPOTS.map((name) => demoId('depot', name)),
    );
    if (!claimed.ok) {
      refuse(claimed.error);
      return;
    }
    if (kind === 'demo') {
      await loadDemo(connection.db);
      if (claimed.value === 'new') await changeWorkshop(connection.db, { name: BOARD });
    }
    if (kind === 'own') {
      const code = await newSetUpCode(connection.db);
      if (code !== null) process.stdout.write(`set-up code ${code}\n`);
    }
  } finally {
    await connection.pool.end();
  }
}

function refuse(why: string): void {
  process.stderr.write(`${why}\n`);
  process.exitCode = 3;
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`);
  process.exitCode = 1;
});

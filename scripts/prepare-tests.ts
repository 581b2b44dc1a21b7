import pg from 'pg';
import { DEMO } from '../demo/testing';
import { templateOf } from '../server/testing/database';

/**
 * Loads the demo once for all tests, on the cluster of DATABASE_URL: unit tests copy it, and the database
 * `interface` for the tests through the interface is a copy too.
 */
async function main(): Promise<void> {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set.');
  const template = await templateOf(url, DEMO);
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    // The same lock as for every other copy: PostgreSQL copies only what nobody else reads.
    await client.query('select pg_advisory_lock(7210473)');
    await client.query(`create database interface template ${template}`);
  } finally {
    await client.end();
  }
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`);
  process.exitCode = 1;
});

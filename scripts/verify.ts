import { connect, migrateDatabase } from '../server/db/connection';
import { findJob, verifyJob } from '../server/audit/audit-trail';

const EXIT_INPUT_WRONG = 2;

/**
 * Checks the trail of a job, by its number or id, in the database of DATABASE_URL; prints one JSON document.
 */
async function main(text: string): Promise<number> {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set.');
  const connection = connect(url);
  try {
    await migrateDatabase(connection);
    const id = await findJob(connection.db, text);
    const verified = id === null ? null : await verifyJob(connection.db, id);
    if (!verified) {
      process.stderr.write(`There is no job "${text}". Give its number or its id.\n`);
      return EXIT_INPUT_WRONG;
    }
    process.stdout.write(`${JSON.stringify(verified, null, 2)}\n`);
    for (const fault of verified.faults) process.stderr.write(`${fault.what}\n`);
    process.stderr.write(
      verified.intact
        ? `Job ${verified.job}: intact, ${verified.events} events.\n`
        : `Job ${verified.job}: NOT intact.\n`,
    );
    return 0;
  } finally {
    await connection.pool.end();
  }
}

main(process.argv[2] ?? '').then(
  (code) => {
    process.exitCode = code;
  },
  (error: unknown) => {
    process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`);
    process.exitCode = 1;
  },
);

import { readFileSync, writeFileSync } from 'node:fs';
import { connect } from '../server/db/connection';
import { changesSince, type ReleasedFacts, releasedFacts } from '../server/upgrade/released-facts';

/**
 * `before FILE`: notes what released jobs show. `after FILE`: says what is other than it was; ends with 1
 * where anything is.
 */
async function main(when: string, file: string): Promise<void> {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set.');
  const { db, pool } = connect(url);
  try {
    if (when === 'before') {
      const facts = await releasedFacts(db);
      writeFileSync(file, JSON.stringify(facts), { mode: 0o600 });
      process.stdout.write(`${Object.keys(facts.jobs).length} released jobs noted\n`);
      return;
    }
    const before = JSON.parse(readFileSync(file, 'utf8')) as ReleasedFacts;
    const wrong = await changesSince(db, before);
    if (wrong.length === 0) {
      process.stdout.write(`${Object.keys(before.jobs).length} released jobs show what they showed\n`);
      return;
    }
    process.stderr.write(`${wrong.join('\n')}\n`);
    process.exitCode = 1;
  } finally {
    await pool.end();
  }
}

main(process.argv[2] ?? '', process.argv[3] ?? '').catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exitCode = 1;
});

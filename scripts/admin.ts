import { randomInt } from 'node:crypto';
import { connect } from '../server/db/connection';
import { leadsOf, personNamed } from '../server/installation/installation';
import { changePerson, usernameFor } from '../server/people/people';
import { weakPin } from '../server/people/pin';

/** A PIN that nobody tries first. */
function newPin(): string {
  for (;;) {
    const pin = String(randomInt(100_000_000)).padStart(8, '0');
    if (weakPin(pin) === null) return pin;
  }
}

/** Gives a person a new PIN, prints it, and ends their sessions. */
async function main(name: string): Promise<void> {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set.');
  const { db, pool } = connect(url);
  try {
    const person = await personNamed(db, usernameFor(name));
    if (!person) {
      process.stderr.write(`There is nobody called "${name}". Leads: ${(await leadsOf(db)).join(', ') || 'none'}.\n`);
      process.exitCode = 1;
      return;
    }
    const pin = newPin();
    const done = await changePerson(db, person.id, { by: 'the machine', pin, retired: false });
    if (!done.ok) throw new Error(done.error.detail);
    process.stdout.write(`${person.name} signs in with ${pin} now. Their sessions have ended.\n`);
  } finally {
    await pool.end();
  }
}

main(process.argv[2] ?? '').catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exitCode = 1;
});

import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import pg from 'pg';
import { v7 } from 'uuid';
import { UNITS } from '../demo/fleet';
import { demoId } from '../demo/load';
import { signIn } from './writes';

/**
 * In the machine whose power goes: says what is stored and whether trails are intact, sends again what was
 * not answered before, then writes as benches do until the power goes. Each line on the console is one fact
 * for `bench/power.ts`, written after it has become true.
 */

const WRITERS = 4;
const POSITIONS = ['at rest', 'cranking', 'after'] as const;
const COMPLAINT = 'power';

const say = (...words: readonly string[]): void => {
  process.stdout.write(`#${words.join(' ')}\n`);
};
const need = (name: string): string => {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set`);
  return value;
};
const base = `http://127.0.0.1:${need('PORT')}`;
const sleep = (ms: number): Promise<void> => new Promise((r) => setTimeout(r, ms));

async function untilItAnswers(): Promise<void> {
  for (let i = 0; i < 600; i++) {
    const answer = await fetch(`${base}/api/health`).catch(() => null);
    if (answer?.ok) return;
    await sleep(200);
  }
  throw new Error('the server does not answer');
}

async function send(cookie: string, route: string, body: object): Promise<void> {
  for (let i = 0; i < 50; i++) {
    const answer = await fetch(`${base}${route}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', cookie },
      body: JSON.stringify(body),
    }).catch(() => null);
    if (answer?.ok) return;
    if (answer && answer.status < 500) throw new Error(`${route}: ${answer.status} ${await answer.text()}`);
    await sleep(100);
  }
  throw new Error(`${route} is not answered`);
}

async function tellWhatIsStored(cookie: string): Promise<void> {
  for (const { id, place } of await ask<{ id: string; place: string }>(
    `select r.id, concat_ws('/', r.run_id, r.position) as place
      from reading r join test_run t on t.id = r.run_id join job j on j.id = t.job_id where j.complaint = $1`,
  ))
    say('stored', id, place.replaceAll(' ', '_'));
  for (const { id } of await ask<{ id: string }>('select id from job where complaint = $1')) {
    const answer = await fetch(`${base}/api/jobs/${id}/verify`, { headers: { cookie } });
    const { intact } = (await answer.json()) as { intact: boolean };
    say('trail', id, intact ? 'intact' : 'broken');
  }
  say('told');
}

/** Rows about the jobs of these writers. */
async function ask<T extends pg.QueryResultRow>(query: string): Promise<T[]> {
  const client = new pg.Client({ connectionString: need('DATABASE_URL') });
  await client.connect();
  try {
    return (await client.query<T>(query, [COMPLAINT])).rows;
  } finally {
    await client.end();
  }
}

async function sendAgain(cookie: string): Promise<void> {
  const file = path.join(need('MUDFLAT_MACHINE'), 'waiting.json');
  if (!existsSync(file)) return;
  for (const { id, route, body } of JSON.parse(readFileSync(file, 'utf8')) as Waiting[]) {
    await send(cookie, route, body);
    say('accepted', id);
  }
}
/** What was sent and not answered, as the lines of `write` say it. */
interface Waiting {
  readonly id: string;
  readonly route: string;
  readonly body: object;
}

async function write(cookie: string, writer: number): Promise<never> {
  const jobId = v7();
  const unitId = demoId('unit', UNITS[writer]?.fleetNumber ?? '');
  await send(cookie, '/api/jobs', { id: jobId, unitId, complaint: COMPLAINT });
  for (let n = 0, run = ''; ; n++) {
    const position = POSITIONS[n % POSITIONS.length];
    if (position === POSITIONS[0])
      await send(cookie, '/api/runs', { id: (run = v7()), jobId, test: 'battery-cranking' });
    const body = { id: v7(), position, entry: '12.4', takenAt: new Date().toISOString() };
    const route = `/api/runs/${run}/readings`;
    say('sent', JSON.stringify({ id: body.id, route, body } satisfies Waiting));
    await send(cookie, route, body);
    say('accepted', body.id);
  }
}

async function main(): Promise<void> {
  await untilItAnswers();
  const cookie = await signIn(base);
  await tellWhatIsStored(cookie);
  await sendAgain(cookie);
  await Promise.all(Array.from({ length: WRITERS }, (_, i) => write(cookie, i)));
}

main().catch((error: unknown) => {
  process.stderr.write(`${String(error)}\n`);
  process.exitCode = 1;
});

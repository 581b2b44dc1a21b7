import pg from 'pg';
import { v7 } from 'uuid';
import { DEMO_PIN, PERSONS } from '../demo/fleet';
import { demoId } from '../demo/load';
import type { RecordReading } from '../formats/requests/runs';
import type { Db } from '../server/db/connection';
import { recordReading } from '../server/readings/record-reading';
import { percentile, report } from './measure';

const WRITES = 200;
const TARGET_P95_MS = 30;

/**
 * Posting readings over loopback, beside what the command alone takes in this process (reading the run,
 * judging and storing, without the web server), and beside a bare INSERT of a row of the same size through
 * the same driver.
 */
export async function benchWrites(base: string, url: string, db: Db): Promise<void> {
  cookie = await signIn(base);
  const bare = await bareInserts(url);
  const alone = await commands(base, db);
  const posted = await posts(base);
  report('reading POST, median', percentile(posted, 0.5), 'ms', null);
  report('reading POST, p95', percentile(posted, 0.95), 'ms', TARGET_P95_MS);
  report('the command alone, median', percentile(alone, 0.5), 'ms', null);
  report('the command alone, p95', percentile(alone, 0.95), 'ms', null);
  report('bare INSERT, median', percentile(bare, 0.5), 'ms', null);
  report('bare INSERT, p95', percentile(bare, 0.95), 'ms', null);
  report('POST over bare INSERT, medians', percentile(posted, 0.5) / percentile(bare, 0.5), 'times', null);
  report('the command alone over bare INSERT, medians', percentile(alone, 0.5) / percentile(bare, 0.5), 'times', null);
}

let cookie = '';

/** The cookies of a technician of all depots. */
export const signIn = (base: string): Promise<string> => signInAs(base, PERSONS[0].name);

/** The cookies of a person of the demo. */
export async function signInAs(base: string, name: string): Promise<string> {
  const response = await fetch(`${base}/api/session/sign-in`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name, pin: DEMO_PIN }),
  });
  if (!response.ok) throw new Error(await response.text());
  return response.headers
    .getSetCookie()
    .map((c) => c.split(';')[0])
    .join('; ');
}

async function post(url: string, body: unknown): Promise<void> {
  const response = await fetch(url, {
    method: 'POST',
    headers: { 'content-type': 'application/json', cookie },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw new Error(`${url}: ${response.status} ${await response.text()}`);
  await response.arrayBuffer();
}

const posts = (base: string): Promise<number[]> =>
  readings(base, (runId, body) => post(`${base}/api/runs/${runId}/readings`, body));

const commands = (base: string, db: Db): Promise<number[]> =>
  readings(base, async (runId, body) => {
    const done = await recordReading(db, runId, { ...body, by: PERSONS[0].name });
    if (!done.ok) throw new Error(JSON.stringify(done.error));
  });

type Write = (runId: string, body: Omit<RecordReading, 'by'>) => Promise<void>;

/** Eight cylinders to a run, as on a real bench. How long each took, in ms. */
async function readings(base: string, write: Write): Promise<number[]> {
  const times: number[] = [];
  const jobId = v7();
  await post(`${base}/api/jobs`, { id: jobId, unitId: demoId('unit', 'PL-07'), complaint: 'benchmark' });
  for (let i = 0, runId = ''; i < WRITES; i++) {
    if (i % 8 === 0) await post(`${base}/api/runs`, { id: (runId = v7()), jobId, test: 'glow-plug-resistance' });
    const body = { id: v7(), position: (i % 8) + 1, entry: '0.6', takenAt: new Date().toISOString() };
    const start = performance.now();
    await write(runId, body);
    times.push(performance.now() - start);
  }
  return times;
}

async function bareInserts(url: string): Promise<number[]> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query('create table if not exists bench_row (id uuid primary key, payload jsonb)');
  const payload = JSON.stringify({ text: 'x'.repeat(600) });
  const times: number[] = [];
  for (let i = 0; i < WRITES; i++) {
    const start = performance.now();
    await client.query('insert into bench_row values ($1, $2)', [v7(), payload]);
    times.push(performance.now() - start);
  }
  await client.query('drop table bench_row');
  await client.end();
  return times;
}

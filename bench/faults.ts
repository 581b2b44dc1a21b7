import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import pg from 'pg';
import { v7 } from 'uuid';
import type { OwnServer } from '../e2e/server';
import { UNITS } from '../demo/fleet';
import { demoId } from '../demo/load';
import { percentile, report } from './measure';
import { signIn } from './writes';

/** So many times something is killed while readings are written; a thousand take hours. */
const KILLS = Number(process.env.MUDFLAT_KILLS ?? 20);
const WRITERS = 6;
/** A writer waits so long before the same reading is sent again. */
const AGAIN_ms = 100;

const sleep = (ms: number): Promise<void> => new Promise((r) => setTimeout(r, ms));
const KINDS = ['server', 'backend', 'postmaster', 'all'] as const;
type Kind = (typeof KINDS)[number];

interface Sent {
  readonly run: string;
  readonly id: string;
  isAccepted: boolean;
}

/**
 * Writers send readings as the bench does: the same id again until it is answered. Meanwhile the server, a
 * database process, or all of them are killed without warning. In the end every accepted reading is there
 * once, and every trail is intact.
 */
export async function benchFaults(server: OwnServer, url: string): Promise<void> {
  const { base } = server;
  const cookie = await signIn(base);
  const sent: Sent[] = [];
  const jobs: string[] = [];
  let isOver = false;

  async function accepted(path: string, body: object): Promise<boolean> {
    for (;;) {
      const status = await tryPost(`${base}${path}`, cookie, body);
      if (status >= 200 && status < 300) return true;
      if (status >= 400 && status < 500) throw new Error(`${path} was refused with ${status}`);
      if (isOver && status === 0) return false;
      await sleep(AGAIN_ms);
    }
  }
  async function writer(i: number): Promise<void> {
    const jobId = v7();
    await accepted('/api/jobs', {
      id: jobId,
      unitId: demoId('unit', UNITS[i]?.fleetNumber ?? ''),
      complaint: 'faults',
    });
    jobs.push(jobId);
    for (let n = 0, run = ''; !isOver; n++) {
      if (n % POSITIONS.length === 0)
        await accepted('/api/runs', { id: (run = v7()), jobId, test: 'battery-cranking' });
      const one: Sent = { run, id: v7(), isAccepted: false };
      sent.push(one);
      const position = POSITIONS[n % POSITIONS.length];
      one.isAccepted = await accepted(`/api/runs/${run}/readings`, {
        id: one.id,
        position,
        entry: '12.4',
        takenAt: new Date().toISOString(),
      });
    }
  }

  const writing = Promise.all(Array.from({ length: WRITERS }, (_, i) => writer(i)));
  const back: number[] = [];
  for (let k = 0; k < KILLS; k++) {
    await sleep(200 + Math.random() * 1500);
    const kind = KINDS[k % KINDS.length] ?? 'server';
    await kill(kind, server, url);
    const started = performance.now();
    while ((await tryPost(`${base}/api/session/switch`, cookie, { name: 'nobody' })) === 0 || !(await answers(base)))
      await sleep(50);
    back.push(performance.now() - started);
  }
  isOver = true;
  await writing;
  await tell(url, base, cookie, sent, jobs, back);
}

const POSITIONS = ['at rest', 'cranking', 'after'] as const;

async function tryPost(url: string, cookie: string, body: object): Promise<number> {
  try {
    const response = await fetch(url, {
      method: 'POST',
      headers: { 'content-type': 'application/json', cookie },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(10_000),
    });
    await response.arrayBuffer();
    return response.status;
  } catch {
    return 0;
  }
}

async function answers(base: string): Promise<boolean> {
  try {
    return (await fetch(`${base}/api/health`, { signal: AbortSignal.timeout(5000) })).ok;
  } catch {
    return false;
  }
}

/**
 * Kills without warning, and starts again what a machine would start by itself: the server, the database
 * cluster.
 */
async function kill(kind: Kind, server: OwnServer, url: string): Promise<void> {
  if (kind === 'server') {
    await server.stop();
    await server.start(false);
    return;
  }
  const client = new pg.Client({ connectionString: url });
  client.on('error', () => undefined);
  await client.connect();
  const {
    rows: [row],
  } = await client.query<{ pid: number; home: string }>(
    `select coalesce((select pid from pg_stat_activity where pid <> pg_backend_pid() and backend_type = 'client backend'
      order by random() limit 1), pg_backend_pid()) as pid, current_setting('data_directory') as home`,
  );
  if (!row) throw new Error('the database says nothing of itself');
  const postmaster = Number(readFileSync(`${row.home}/postmaster.pid`, 'utf8').split('\n')[0]);
  if (kind === 'all') await server.stop();
  process.kill(kind === 'backend' ? row.pid : postmaster, 'SIGKILL');
  await client.end().catch(() => undefined);
  if (kind !== 'backend') startCluster();
  if (kind === 'all') await server.start(false);
}

function startCluster(): void {
  for (let i = 0; i < 20; i++) {
    const done = spawnSync('bash', ['-euc', '. scripts/lib.sh; . scripts/pg.sh; pg_name=bench; pg_start'], {
      encoding: 'utf8',
    });
    if (done.status === 0) return;
    // What the killed postmaster left is still going away.
    spawnSync('sleep', ['0.3']);
  }
  throw new Error('the database does not start again');
}

async function tell(
  url: string,
  base: string,
  cookie: string,
  sent: readonly Sent[],
  jobs: readonly string[],
  back: readonly number[],
): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  const { rows } = await client.query<{ id: string; n: string }>(
    'select id, count(*) as n from reading where id = any($1::uuid[]) group by id',
    [sent.map((s) => s.id)],
  );
  await client.end();
  const stored = new Map(rows.map((r) => [r.id, Number(r.n)]));
  const took = sent.filter((s) => s.isAccepted);
  let broken = 0;
  for (const job of jobs) {
    const verified = (await (await fetch(`${base}/api/jobs/${job}/verify`, { headers: { cookie } })).json()) as {
      intact: boolean;
    };
    if (!verified.intact) broken += 1;
  }
  report(`kills (${KINDS.join(', ')} in turn)`, back.length, '', null);
  report('readings accepted meanwhile', took.length, '', null);
  report('accepted and lost', took.filter((s) => !stored.has(s.id)).length, '', null);
  report('stored twice', [...stored.values()].filter((n) => n > 1).length, '', null);
  report('trails that are not intact', broken, '', null);
  report('answering again, p95', percentile(back, 0.95), 'ms', 10_000);
}

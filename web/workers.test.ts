import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { Agent, get } from 'node:http';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { wantedWorkers } from './workers.mjs';

test.each([
  [{}, 1],
  [{ MUDFLAT_WORKERS: '1' }, 1],
  [{ MUDFLAT_WORKERS: '3' }, 3],
  [{ MUDFLAT_WORKERS: '900' }, 32],
  [{ MUDFLAT_WORKERS: 'many' }, 1],
  [{ MUDFLAT_WORKERS: '-2' }, 1],
])('%j: %i processes', (env, n) => expect(wantedWorkers(env as NodeJS.ProcessEnv)).toBe(n));

/** Two processes on one port that say who they are, supervised as the web server is. */
const PROGRAM = `
import cluster from 'node:cluster';
import { createServer } from 'node:http';
import { SharedMetrics, supervise, untilAllAreReady } from '${path.resolve('web/workers.mjs')}';
const log = { info: (x) => console.log(JSON.stringify(x)), error: (x) => console.log(JSON.stringify(x)) };
if (cluster.isPrimary) supervise(2, log, { listening: 'here' });
else {
  const metrics = new SharedMetrics();
  // The second one of the first two takes longer to get ready.
  if (cluster.worker.id === 2) await new Promise((r) => setTimeout(r, 400));
  await untilAllAreReady();
  createServer(async (q, a) => {
    if (q.url === '/die') process.kill(process.pid, 'SIGKILL');
    metrics.count(200, 0.01);
    if (q.url !== '/kept') a.setHeader('connection', 'close');
    a.end(q.url === '/metrics' ? await metrics.text() : String(process.pid));
  }).listen(4197, '127.0.0.1');
}
`;
const ask = async (path: string): Promise<string> =>
  (await fetch(`http://127.0.0.1:4197${path}`).catch(() => null))?.text() ?? '';
/** The same over a connection that is kept. */
const kept = (agent: Agent): Promise<string> =>
  new Promise((done) => {
    get('http://127.0.0.1:4197/kept', { agent }, (answer) => {
      let said = '';
      answer.on('data', (part) => (said += String(part)));
      answer.on('end', () => done(said));
    }).on('error', () => done(''));
  });
async function until(what: () => Promise<boolean>): Promise<void> {
  for (let i = 0; i < 200 && !(await what()); i++) await new Promise((r) => setTimeout(r, 50));
  expect(await what()).toBe(true);
}

test('what dies is started again, all count together, and with the first all of them end', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'mudflat-workers-'));
  writeFileSync(path.join(folder, 'program.mjs'), PROGRAM);
  const first = spawn('node', [path.join(folder, 'program.mjs')], { stdio: 'ignore' });
  try {
    const seen = new Set<string>();
    // Connections that are opened at the first moment are shared too.
    const agent = new Agent({ keepAlive: true, maxSockets: 4 });
    await until(async () => (await Promise.all(Array.from({ length: 4 }, () => kept(agent)))).every((p) => p !== ''));
    expect(new Set(await Promise.all(Array.from({ length: 4 }, () => kept(agent)))).size).toBe(2);
    agent.destroy();
    await until(async () => {
      seen.add(await ask('/'));
      seen.delete('');
      return seen.size === 2;
    });
    await ask('/die');
    await until(async () => {
      seen.add(await ask('/'));
      seen.delete('');
      return seen.size === 3;
    });
    await until(async () => Number(/requests_total\{status="2xx"\} (\d+)/.exec(await ask('/metrics'))?.[1]) >= 3);
    first.kill('SIGKILL');
    await until(async () => (await ask('/')) === '');
  } finally {
    first.kill('SIGKILL');
    rmSync(folder, { recursive: true });
  }
});

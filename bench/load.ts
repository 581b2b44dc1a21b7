import { v7 } from 'uuid';
import { UNITS } from '../demo/fleet';
import { demoId } from '../demo/load';
import { percentile, report } from './measure';
import { signIn } from './writes';

/** So many technicians post a reading, and so many look at jobs and the yard, each after such a pause. */
const WRITERS = Number(process.env.MUDFLAT_WRITERS ?? 40);
const READERS = Number(process.env.MUDFLAT_READERS ?? 40);
const WRITE_PAUSE_ms = 2000;
const READ_PAUSE_ms = 3000;
/** Ten minutes are asked for; a minute tells most of it. */
const LASTS_s = Number(process.env.MUDFLAT_LOAD_s ?? 60);
/** Of the time at first the server is still getting warm: it is not counted. */
const WARM_UP = 0.15;

interface Seen {
  readonly at: number;
  readonly took_ms: number;
  readonly ok: boolean;
}

const sleep = (ms: number): Promise<void> => new Promise((r) => setTimeout(r, ms));

/** A workshop's busiest minute over loopback, with the one that asks on the same processors. */
export async function benchLoad(base: string): Promise<void> {
  const cookie = await signIn(base);
  const seen = { write: [] as Seen[], yard: [] as Seen[], job: [] as Seen[] };
  const started = performance.now();
  const isOver = (): boolean => performance.now() - started > LASTS_s * 1000;
  const timed = async (into: Seen[], path: string, body?: unknown): Promise<void> => {
    const start = performance.now();
    const ok = await ask(base, cookie, path, body);
    into.push({ at: start - started, took_ms: performance.now() - start, ok });
  };
  const jobs: string[] = [];

  async function writer(i: number): Promise<void> {
    const unit = UNITS[i % UNITS.length]?.fleetNumber ?? '';
    const jobId = v7();
    await ask(base, cookie, '/api/jobs', { id: jobId, unitId: demoId('unit', unit), complaint: 'load' });
    jobs.push(jobId);
    await sleep((i / WRITERS) * WRITE_PAUSE_ms);
    for (let n = 0, run = ''; !isOver(); n++) {
      if (n % POSITIONS.length === 0)
        await ask(base, cookie, '/api/runs', { id: (run = v7()), jobId, test: 'battery-cranking' });
      const body = {
        id: v7(),
        position: POSITIONS[n % POSITIONS.length],
        entry: '12.4',
        takenAt: new Date().toISOString(),
      };
      await timed(seen.write, `/api/runs/${run}/readings`, body);
      await sleep(WRITE_PAUSE_ms);
    }
  }
  async function reader(i: number): Promise<void> {
    await sleep((i / READERS) * READ_PAUSE_ms);
    for (let n = i; !isOver(); n++) {
      const job = jobs[n % jobs.length];
      if (n % 3 === 0 || job === undefined) await timed(seen.yard, '/');
      else await timed(seen.job, `/jobs/${job}`);
      await sleep(READ_PAUSE_ms);
    }
  }

  const memory: number[] = [];
  const watch = setInterval(() => {
    void residentOf(base).then((m) => memory.push(m));
  }, 5000);
  await Promise.all([
    ...Array.from({ length: WRITERS }, (_, i) => writer(i)),
    ...Array.from({ length: READERS }, (_, i) => reader(i)),
  ]);
  clearInterval(watch);
  tell('reading POST under load', seen.write, [
    [0.5, null],
    [0.95, 150],
    [0.99, 400],
  ]);
  tell('yard under load', seen.yard, [
    [0.5, null],
    [0.95, 500],
  ]);
  tell('job under load', seen.job, [
    [0.5, null],
    [0.95, 500],
  ]);
  const [first = NaN, last = NaN] = [memory.at(Math.floor(memory.length / 3)), memory.at(-1)];
  report('memory of the server, last over the first third', last / first, 'times', null);
  report('memory of the server at the end', last / 1e6, 'MB', null);
}

const POSITIONS = ['at rest', 'cranking', 'after'] as const;

function tell(what: string, all: readonly Seen[], shares: readonly (readonly [number, number | null])[]): void {
  const counted = all.filter((s) => s.at > WARM_UP * LASTS_s * 1000);
  for (const [share, target] of shares)
    report(
      `${what}, ${share === 0.5 ? 'median' : `p${share * 100}`}`,
      percentile(
        counted.map((s) => s.took_ms),
        share,
      ),
      'ms',
      target,
    );
  report(`${what}, failed of ${all.length}`, all.filter((s) => !s.ok).length, '', null);
}

async function ask(base: string, cookie: string, path: string, body?: unknown): Promise<boolean> {
  try {
    const response = await fetch(`${base}${path}`, {
      headers: { cookie, ...(body ? { 'content-type': 'application/json' } : {}) },
      ...(body ? { method: 'POST', body: JSON.stringify(body) } : {}),
    });
    await response.arrayBuffer();
    return response.ok;
  } catch {
    return false;
  }
}

async function residentOf(base: string): Promise<number> {
  const text = await (await fetch(`${base}/api/metrics`)).text();
  return Number(/resident"\} (\d+)/.exec(text)?.[1] ?? NaN);
}

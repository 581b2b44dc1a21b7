import { eq } from 'drizzle-orm';
import { v7 } from 'uuid';
import { demoId } from '../demo/load';
import type { Db } from '../server/db/connection';
import { fleetUnit } from '../server/db/schema';
import { percentile, report } from './measure';
import { signIn } from './writes';

/** So many technicians post a reading, and so many look at jobs and the yard, each after such a pause. */
const WRITERS = Number(process.env.MUDFLAT_WRITERS ?? 40);
const READERS = Number(process.env.MUDFLAT_READERS ?? 40);
const WRITE_PAUSE_ms = 2000;
const READ_PAUSE_ms = 3000;
/** Ten minutes are asked for; a minute tells most of it. */
const LASTS_s = Number(process.env.MUDFLAT_LOAD_s ?? 60);
/** A technician goes on to the next vehicle after so many tests. */
const RUNS_OF_A_JOB = 10;
/** Of the time at first the server is still getting warm: it is not counted. */
const WARM_UP = 0.15;

interface Seen {
  readonly at: number;
  readonly took_ms: number;
  readonly ok: boolean;
}

const sleep = (ms: number): Promise<void> => new Promise((r) => setTimeout(r, ms));

/** A workshop's busiest minute over loopback, with the one that asks on the same processors. */
export async function benchLoad(base: string, db: Db): Promise<void> {
  const cookie = await signIn(base);
  const [like] = await db
    .select()
    .from(fleetUnit)
    .where(eq(fleetUnit.id, demoId('unit', 'PL-07')));
  if (!like) throw new Error('the demo has no unit PL-07');
  const seen = { write: [] as Seen[], yard: [] as Seen[], job: [] as Seen[] };
  const started = performance.now();
  const isOver = (): boolean => performance.now() - started > LASTS_s * 1000;
  const timed = async (into: Seen[], path: string, body?: unknown): Promise<void> => {
    const start = performance.now();
    const ok = await ask(base, cookie, path, body);
    into.push({ at: start - started, took_ms: performance.now() - start, ok });
  };
  /** What each writer is at. */
  const jobs: string[] = [];

  async function openJob(i: number, nth: number): Promise<string> {
    const [unitId, jobId] = [v7(), v7()];
    const { depotId, engineFamilyId, kind } = like as typeof fleetUnit.$inferSelect;
    await ask(base, cookie, '/api/units', { id: unitId, depotId, engineFamilyId, kind, fleetNumber: `W${i}-${nth}` });
    await ask(base, cookie, '/api/jobs', { id: jobId, unitId, complaint: 'load' });
    return (jobs[i] = jobId);
  }
  async function writer(i: number): Promise<void> {
    await sleep((i / WRITERS) * WRITE_PAUSE_ms);
    for (let n = 0, run = '', jobId = ''; !isOver(); n++) {
      const isNewRun = n % POSITIONS.length === 0;
      if (isNewRun && (n / POSITIONS.length) % RUNS_OF_A_JOB === 0) jobId = await openJob(i, n);
      if (isNewRun) await ask(base, cookie, '/api/runs', { id: (run = v7()), jobId, test: 'battery-cranking' });
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

  const tellMemory = watchMemory(base);
  await Promise.all([
    ...Array.from({ length: WRITERS }, (_, i) => writer(i)),
    ...Array.from({ length: READERS }, (_, i) => reader(i)),
  ]);
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
  tellMemory();
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

/** Looks at the memory of the server until it is asked to tell of it. */
function watchMemory(base: string): () => void {
  const memory: Memory[] = [];
  const watch = setInterval(() => {
    void memoryOf(base).then((m) => memory.push(m));
  }, 2000);
  return () => {
    clearInterval(watch);
    // What is used rises until it is collected: how low it falls says whether it grows.
    const lowest = (from: number, to: number): number =>
      Math.min(...memory.slice(from * memory.length, to * memory.length).map((m) => m.heap));
    report(
      'memory in use, lowest of the last third over the middle one',
      lowest(2 / 3, 1) / lowest(1 / 3, 2 / 3),
      'times',
      1,
    );
    report('memory of the server, most', Math.max(...memory.map((m) => m.resident)) / 1e6, 'MB', null);
  };
}

interface Memory {
  readonly resident: number;
  readonly heap: number;
}

async function memoryOf(base: string): Promise<Memory> {
  const text = await (await fetch(`${base}/api/metrics`)).text();
  const bytes = (kind: string): number => Number(new RegExp(`${kind}"\\} (\\d+)`).exec(text)?.[1] ?? NaN);
  return { resident: bytes('resident'), heap: bytes('heap') };
}

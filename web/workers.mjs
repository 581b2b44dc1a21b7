/**
 * Several web servers on one port, one process each: they keep nothing that the database does not have. The
 * first process serves nothing; it starts the others, starts again what dies, and counts for all of them.
 */
import cluster from 'node:cluster';
import { Metrics } from './metrics.mjs';

/** What dies at once again is not started without a rest. */
const REST_ms = 500;
/** Longer than this a process does not take to finish what is under way. */
const LAST_ms = 4_000;
const TELL_ms = 2_000;
const PATIENCE_ms = 1_000;
/**
 * So long the first that is ready waits for the others: alone it would get every connection that is opened
 * meanwhile.
 */
const TOGETHER_ms = 2_000;

/** How many are wanted: MUDFLAT_WORKERS; default one, which needs nobody over it. */
export const wantedWorkers = (env = process.env) => {
  const n = Number(env.MUDFLAT_WORKERS ?? 1);
  return Number.isInteger(n) && n > 1 ? Math.min(n, 32) : 1;
};

export function supervise(count, log, { listening }) {
  const metrics = new Metrics();
  const memory = new Map();
  let isStopping = false;
  const ready = new Set();
  let isServing = false;
  const letServe = () => {
    isServing = true;
    for (const worker of ready) tell(worker, { serve: true });
    ready.clear();
  };
  const isReady = (worker) => {
    ready.add(worker);
    if (isServing || ready.size === count) letServe();
    else if (ready.size === 1) setTimeout(letServe, TOGETHER_ms);
  };
  const start = () => {
    const worker = cluster.fork();
    worker.on('message', (said) => {
      if (said?.count) for (const [status, took_s] of said.count) metrics.count(status, took_s);
      if (said?.ready) isReady(worker);
      if (said?.memory) memory.set(worker.id, said.memory);
      if (said?.ask === 'metrics') tell(worker, { metrics: metrics.text(sumOf(memory)) });
    });
  };
  cluster.on('exit', (worker, code, signal) => {
    memory.delete(worker.id);
    ready.delete(worker);
    if (isStopping) {
      if (Object.keys(cluster.workers ?? {}).length === 0) process.exit(0);
      return;
    }
    log.error({ worker: worker.process.pid, ended: signal ?? code });
    setTimeout(start, REST_ms);
  });
  let open = 0;
  cluster.on('listening', () => {
    open += 1;
    if (open === count) log.info({ listening, pid: process.pid, workers: count });
  });
  for (const signal of ['SIGTERM', 'SIGINT'])
    process.once(signal, () => {
      isStopping = true;
      for (const worker of Object.values(cluster.workers ?? {})) worker?.kill('SIGTERM');
      setTimeout(() => process.exit(0), LAST_ms).unref();
    });
  for (let i = 0; i < count; i++) start();
}

/** One that is just ending is told nothing. */
const tell = (worker, what) => worker.send(what, () => undefined);

const sumOf = (memory) => ({
  rss: [...memory.values()].reduce((sum, m) => sum + m.rss, 0),
  heapUsed: [...memory.values()].reduce((sum, m) => sum + m.heapUsed, 0),
});

/**
 * In a process under supervision: tells that it could serve, and waits until all could, or the first does not
 * wait any more.
 */
export const untilAllAreReady = () =>
  new Promise((done) => {
    process.on('message', (said) => {
      if (said?.serve) done();
    });
    process.send?.({ ready: true });
  });

/** The metrics of a process under supervision: told to the first, and asked from it. */
export class SharedMetrics {
  #untold = [];
  #asked = [];

  constructor() {
    setInterval(() => this.#tell(), TELL_ms).unref();
    process.on('message', (said) => {
      if (said?.metrics === undefined) return;
      for (const answer of this.#asked.splice(0)) answer(said.metrics);
    });
  }

  count(status, took_s) {
    this.#untold.push([status, took_s]);
  }

  #tell() {
    const { rss, heapUsed } = process.memoryUsage();
    process.send?.({ count: this.#untold.splice(0), memory: { rss, heapUsed } });
  }

  text() {
    this.#tell();
    return new Promise((done) => {
      this.#asked.push(done);
      process.send?.({ ask: 'metrics' });
      setTimeout(() => done('# the first process does not answer\n'), PATIENCE_ms).unref();
    });
  }
}

import pg from 'pg';

/** What is told of a write: which job, which run it belongs to, what kind of row. */
export interface JobSignal {
  readonly job: string;
  readonly number: number;
  readonly kind: string;
  readonly row: string;
  readonly run: string | null;
  readonly by: string;
}

type Listener = (signal: JobSignal) => void;

/**
 * One connection of this server that listens for all jobs, and hands each signal to those who follow the job.
 */
class JobSignals {
  private readonly listeners = new Map<string, Set<Listener>>();
  private client: pg.Client | null = null;
  private connecting = false;

  constructor(private readonly url: string) {}

  follow(jobId: string, listener: Listener): () => void {
    const own = this.listeners.get(jobId) ?? new Set();
    this.listeners.set(jobId, own.add(listener));
    void this.connect();
    return () => {
      own.delete(listener);
      if (own.size === 0) this.listeners.delete(jobId);
    };
  }

  private async connect(): Promise<void> {
    if (this.client || this.connecting) return;
    this.connecting = true;
    const client = new pg.Client({ connectionString: this.url, keepAlive: true });
    const lost = (): void => {
      if (this.client === client) this.client = null;
      if (this.listeners.size) setTimeout(() => void this.connect(), 1000);
    };
    try {
      client.on('notification', ({ payload }) => this.tell(payload));
      client.on('error', () => void client.end().catch(() => undefined));
      client.on('end', lost);
      await client.connect();
      await client.query('listen mudflat_job');
      this.client = client;
      // What was written before it listened nobody was told: whoever follows already looks once more.
      this.tellAll();
    } catch {
      await client.end().catch(() => undefined);
    } finally {
      this.connecting = false;
    }
  }

  private tell(payload: string | undefined): void {
    if (!payload) return;
    const signal = JSON.parse(payload) as JobSignal;
    for (const listener of this.listeners.get(signal.job) ?? []) listener(signal);
  }

  private tellAll(): void {
    for (const [job, own] of this.listeners)
      for (const listener of own) listener({ job, number: 0, kind: 'reconnected', row: '', run: null, by: '' });
  }
}

const kept = globalThis as { mudflatSignals?: JobSignals };

const KEEP_ALIVE_ms = 20_000;

/** A stream of server-sent events for one job; ends when the request does. */
export function followJob(jobId: string, ended: AbortSignal): ReadableStream<Uint8Array> {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set');
  const signals = (kept.mudflatSignals ??= new JobSignals(url));
  const encoder = new TextEncoder();
  let stop = (): void => undefined;
  return new ReadableStream({
    start(controller) {
      const write = (text: string): void => {
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          stop();
        }
      };
      const unfollow = signals.follow(jobId, (signal) => write(`data: ${JSON.stringify(signal)}\n\n`));
      const timer = setInterval(() => write(': still here\n\n'), KEEP_ALIVE_ms);
      stop = () => {
        unfollow();
        clearInterval(timer);
        try {
          controller.close();
        } catch {
          /* closed by the other side */
        }
      };
      ended.addEventListener('abort', () => stop());
      write('retry: 1000\n: following\n\n');
    },
    cancel: () => stop(),
  });
}

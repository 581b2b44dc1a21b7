import { type ChildProcess, spawn } from 'node:child_process';
import { openSync } from 'node:fs';
import { createServer } from 'node:net';

/**
 * Where each of them listens: tests run beside each other, and one that comes back is looked for where it
 * was.
 */
export const PORTS = {
  outage: 4182,
  bench: 4183,
  proxied: 4187,
  workshop: 4188,
  'offline: a day': 4191,
  'offline: wiped': 4192,
  'offline: signed out': 4193,
  'two servers: one': 4195,
  'two servers: other': 4196,
  'two servers: proxy': 4197,
} as const;

/** A server of the test's own, that can be stopped and started in the middle. */
export class OwnServer {
  private child: ChildProcess | null = null;
  readonly port: number;
  readonly base: string;

  constructor(
    name: keyof typeof PORTS,
    private readonly env: Readonly<Record<string, string>> = {},
  ) {
    this.port = PORTS[name];
    this.base = `http://127.0.0.1:${this.port}`;
  }

  /** `waits`: until it answers. */
  async start(waits = true): Promise<void> {
    await isFree(this.port);
    // What it writes, where somebody wants to see it.
    const log = process.env.MUDFLAT_SERVER_LOG ? openSync(process.env.MUDFLAT_SERVER_LOG, 'a') : 'ignore';
    this.child = spawn('node', ['web/server.mjs'], {
      stdio: ['ignore', log, log],
      env: { ...process.env, NODE_ENV: 'production', PORT: String(this.port), ...this.env },
    });
    if (!waits) return;
    for (let i = 0; i < 120; i++) {
      if (await this.answers()) return;
      await new Promise((r) => setTimeout(r, 250));
    }
    throw new Error(`no answer from ${this.base}`);
  }

  /** Kills it as a power cut would. */
  async stop(): Promise<void> {
    const child = this.child;
    if (!child) return;
    this.child = null;
    const gone = new Promise((r) => child.once('exit', r));
    child.kill('SIGKILL');
    await gone;
  }

  private async answers(): Promise<boolean> {
    try {
      return (await fetch(`${this.base}/api/health`)).ok;
    } catch {
      return false;
    }
  }
}

/** Throws where somebody else listens there: asking them instead would measure or test the wrong thing. */
function isFree(port: number): Promise<void> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', () =>
      reject(new Error(`Port ${port} is taken: another test or benchmark runs on this machine.`)),
    );
    probe.listen(port, '127.0.0.1', () => probe.close(() => resolve()));
  });
}

import { type ChildProcess, spawn } from 'node:child_process';
import { openSync } from 'node:fs';

/** A server of the test's own, that can be stopped and started in the middle. */
export class OwnServer {
  private child: ChildProcess | null = null;
  readonly base: string;

  constructor(
    private readonly port: number,
    private readonly env: Readonly<Record<string, string>> = {},
  ) {
    this.base = `http://127.0.0.1:${port}`;
  }

  /** `waits`: until it answers. */
  async start(waits = true): Promise<void> {
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

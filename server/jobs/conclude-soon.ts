/** After the last write so long: who types eight readings is weighed once. */
const SETTLED_ms = 2_500;
/** A job that is written into all the time is weighed so long after the first write at the latest. */
const LAGS_ms = 20_000;
/** What is concluded before anybody asks takes so much of the time at most: whoever asks goes before. */
const SHARE = 0.25;

type Conclude = () => Promise<unknown>;

/**
 * Concludes jobs before somebody opens them, in the background. It answers nobody: what fails here is
 * concluded when it is asked for.
 */
export class ConcludeSoon {
  /** By job: when it is due, and when it must be, milliseconds since 1970. */
  private readonly settling = new Map<string, { readonly timer: NodeJS.Timeout | number; readonly latest: number }>();
  /** Due and not concluded yet, by job, in the order in which they became due. */
  private readonly waiting = new Map<string, Conclude>();
  private isConcluding = false;

  /** Something was written into the job: it is concluded when nothing more is. */
  written(jobId: string, conclude: Conclude): void {
    const before = this.settling.get(jobId);
    if (before) clearTimeout(before.timer);
    const now = Date.now();
    const latest = before?.latest ?? now + LAGS_ms;
    this.due(jobId, conclude, Math.min(SETTLED_ms, Math.max(0, latest - now)), latest);
  }

  /**
   * A list showed the job as it was some time ago. Whoever writes into it concludes it when it has settled,
   * in whichever process that is; only where nobody does it is concluded for the list.
   */
  seenBehind(jobId: string, conclude: Conclude): void {
    if (!this.settling.has(jobId) && !this.waiting.has(jobId)) this.due(jobId, conclude, LAGS_ms, Date.now() + LAGS_ms);
  }

  private due(jobId: string, conclude: Conclude, after_ms: number, latest: number): void {
    const timer = setTimeout(() => {
      this.settling.delete(jobId);
      this.waiting.set(jobId, conclude);
      void this.concludeWaiting();
    }, after_ms);
    doNotWaitFor(timer);
    this.settling.set(jobId, { timer, latest });
  }

  /** One after the other, with rests between them. */
  private async concludeWaiting(): Promise<void> {
    if (this.isConcluding) return;
    this.isConcluding = true;
    try {
      for (let next = this.waiting.entries().next(); !next.done; next = this.waiting.entries().next()) {
        const [jobId, conclude] = next.value;
        this.waiting.delete(jobId);
        const started = performance.now();
        await conclude().catch(() => undefined);
        await rest((performance.now() - started) * (1 / SHARE - 1));
      }
    } finally {
      this.isConcluding = false;
    }
  }
}

const rest = (ms: number): Promise<void> =>
  new Promise((done) => {
    doNotWaitFor(setTimeout(done, ms));
  });

/** A process may end before it is done; in a browser timers are numbers, and nothing waits for them. */
function doNotWaitFor(timer: NodeJS.Timeout | number): void {
  if (typeof timer === 'object') timer.unref();
}

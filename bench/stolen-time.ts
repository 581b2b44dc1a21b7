import { readFileSync } from 'node:fs';

/**
 * What the machine's processors have done since it started: all of it, and what was done for other machines
 * meanwhile.
 */
interface Ticks {
  readonly at_ms: number;
  readonly all: number;
  readonly stolen: number;
}

/** The first line of /proc/stat (proc_stat(5)): user nice system idle iowait irq softirq steal, in ticks. */
export function ticksOf(stat: string, at_ms: number): Ticks | null {
  const [name, ...numbers] = (stat.split('\n')[0] ?? '').trim().split(/\s+/);
  const own = numbers.slice(0, 8).map(Number);
  if (name !== 'cpu' || own.length < 8 || !own.every(Number.isFinite)) return null;
  return { at_ms, all: own.reduce((a, b) => a + b, 0), stolen: own[7] as number };
}

const OFTEN_ms = 100;
/** Longer than anything that is asked about. */
const REMEMBERED = 600;

/**
 * How much of the processors other machines on the same host had, where this one is a virtual one: what was
 * late then says nothing of the program.
 */
export class StolenTime {
  private readonly seen: Ticks[] = [];
  private readonly timer: NodeJS.Timeout;

  constructor() {
    this.note();
    this.timer = setInterval(() => this.note(), OFTEN_ms);
  }

  /** Share of the processors' time, 0 to 1, from then until now; 0 where the machine does not say. */
  since(from_ms: number): number {
    this.note();
    return stolenShare(this.seen, from_ms);
  }

  stop(): void {
    clearInterval(this.timer);
  }

  private note(): void {
    try {
      const ticks = ticksOf(readFileSync('/proc/stat', 'utf8'), performance.now());
      if (ticks) this.seen.push(ticks);
      if (this.seen.length > REMEMBERED) this.seen.shift();
    } catch {
      // Not Linux: nothing is known.
    }
  }
}

/** From the last sample before `from_ms`, or the first there is, to the newest. */
export function stolenShare(seen: readonly Ticks[], from_ms: number): number {
  const [first, last] = [seen.findLast((t) => t.at_ms <= from_ms) ?? seen[0], seen.at(-1)];
  if (!first || !last || last.all <= first.all) return 0;
  return (last.stolen - first.stolen) / (last.all - first.all);
}

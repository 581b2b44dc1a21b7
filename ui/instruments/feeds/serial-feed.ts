import { LineCutter } from '../../../core/instrument/lines';
import type { MeterLink } from '../../../core/instrument/link';
import { CONFIGURE, READ } from '../../../core/instrument/scpi';
import type { Quantity } from '../../../core/quantity/units';
import { type CloseFeed, lineTaker, type Tell } from './feed';

/** As much of the browser's Web Serial as is used here. */
interface SerialPort {
  readonly readable: ReadableStream<Uint8Array> | null;
  readonly writable: WritableStream<Uint8Array> | null;
  open(options: { baudRate: number }): Promise<void>;
  close(): Promise<void>;
}
interface Serial {
  getPorts(): Promise<SerialPort[]>;
  requestPort(): Promise<SerialPort>;
}

const serial = (): Serial | null => (navigator as { serial?: Serial }).serial ?? null;
const CHOOSE = 'Choose the adapter of the meter once: the browser asks for it.';
const AGAIN_ms = 1500;
/** Of the lines of one of these times, the newest few are read: however fast it sends, the page goes on. */
const PACE_ms = 50;
const MOST_A_TIME = 4;
const ANSWER_ms = 4000;

/** Why this browser reads no serial adapter; `null`: it does. */
export const serialProblem = (): string | null =>
  serial()
    ? null
    : window.isSecureContext
      ? 'This browser reads no serial adapters.'
      : 'A browser reads serial adapters over HTTPS only.';

/** Asks the person for the adapter. Call it from a click. `false`: none was chosen. */
export async function chooseAdapter(): Promise<boolean> {
  try {
    return (await serial()?.requestPort()) !== undefined;
  } catch {
    return false;
  }
}

/** A meter at a serial adapter that was chosen before. */
export function openSerialFeed(
  link: Extract<MeterLink, { kind: 'serial' }>,
  quantity: Quantity,
  tell: Tell,
): CloseFeed {
  const stop = new AbortController();
  const take = lineTaker(link, quantity, tell);
  void keepReading(link, quantity, tell, take, stop.signal);
  return () => stop.abort();
}

async function keepReading(
  link: Extract<MeterLink, { kind: 'serial' }>,
  quantity: Quantity,
  tell: Tell,
  take: (line: string) => void,
  signal: AbortSignal,
): Promise<void> {
  const isOver = (): boolean => signal.aborted;
  while (!isOver()) {
    const problem = serialProblem();
    const [port] = problem === null ? ((await serial()?.getPorts()) ?? []) : [];
    if (!port) tell({ kind: 'lost', why: problem ?? CHOOSE });
    else
      try {
        tell({ kind: 'connecting' });
        await port.open({ baudRate: link.baud });
        tell({ kind: 'connected', name: null });
        await readFrom(port, link, quantity, take, signal);
        if (!isOver()) tell({ kind: 'lost', why: 'The adapter was pulled out, or its radio is gone.' });
      } catch {
        if (!isOver())
          tell({ kind: 'lost', why: 'The adapter cannot be opened: is another page or program using it?' });
      } finally {
        await port.close().catch(() => undefined);
      }
    await pause(AGAIN_ms, signal);
  }
}

async function readFrom(
  port: SerialPort,
  link: Extract<MeterLink, { kind: 'serial' }>,
  quantity: Quantity,
  take: (line: string) => void,
  signal: AbortSignal,
): Promise<void> {
  const reader = port.readable?.getReader();
  if (!reader) return;
  const cutter = new LineCutter();
  let waiting: string[] = [];
  let heard_ms = performance.now();
  const pace = setInterval(() => {
    const newest = waiting.slice(-MOST_A_TIME);
    waiting = [];
    newest.forEach(take);
  }, PACE_ms);
  const ask = link.speaks === 'scpi' ? asking(port, quantity) : null;
  const cancel = (): void => void reader.cancel().catch(() => undefined);
  signal.addEventListener('abort', cancel);
  // One that is asked and does not answer is asked anew.
  const patience = setInterval(() => {
    if (performance.now() - heard_ms > ANSWER_ms) void ask?.(true);
  }, ANSWER_ms);
  try {
    await ask?.(true);
    for (;;) {
      const { value, done } = await reader.read();
      if (done || signal.aborted) return;
      const { lines } = cutter.push(value);
      if (lines.length === 0) continue;
      heard_ms = performance.now();
      waiting = [...waiting, ...lines].slice(-MOST_A_TIME);
      if (ask) setTimeout(() => void ask(false), PACE_ms);
    }
  } finally {
    clearInterval(pace);
    clearInterval(patience);
    signal.removeEventListener('abort', cancel);
    reader.releaseLock();
  }
}

/** Sends the question for the next value; at first, or anew, with what is to be measured. */
function asking(port: SerialPort, quantity: Quantity): (anew: boolean) => Promise<void> {
  const text = new TextEncoder();
  return async (anew) => {
    const writer = port.writable?.getWriter();
    try {
      await writer?.write(text.encode(`${anew ? `${CONFIGURE[quantity] ?? ''}\n` : ''}${READ}\n`));
    } catch {
      // The reader finds out.
    } finally {
      writer?.releaseLock();
    }
  };
}

const pause = (ms: number, signal: AbortSignal): Promise<void> =>
  new Promise((resolve) => {
    const timer = setTimeout(done, ms);
    function done(): void {
      clearTimeout(timer);
      signal.removeEventListener('abort', done);
      resolve();
    }
    signal.addEventListener('abort', done);
  });

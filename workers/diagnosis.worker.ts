import { expose } from 'comlink';
import type { Wiring } from '../core/circuits/expand';
import type { LibraryCircuit } from '../core/circuits/types';
import {
  type Case,
  circuitsInQuestion,
  contextOf,
  PredictionCache,
  weighOne,
  type WeighedCircuit,
} from '../core/diagnosis/case';
import { shownWithFault, type ShownFault } from '../core/diagnosis/predicted-readings';
import { type Reader, readFor } from '../core/locale/locale';
import type { Hypothesis, DiagnosticReading } from '../core/diagnosis/types';

/**
 * Circuits are weighed beside the page, so that typing never waits. A newer question cancels an older one
 * between two circuits.
 */
const kept = new PredictionCache(12, 12);
let newest = 0;
let known: Case | null = null;

/** Lets messages in: a newer question, or none. */
const breathe = (): Promise<void> =>
  new Promise((resolve) => {
    setTimeout(resolve, 0);
  });

const api = {
  /** Whose words are used from now on. */
  read(reader: Reader): void {
    readFor(() => reader);
  },
  /** What stays the same while readings go in: it is sent over once. */
  know(c: Case): void {
    known = c;
  },
  /**
   * The case with these readings. `null`: cancelled by a newer question. `onDone` says how many circuits of
   * how many are weighed.
   */
  async weigh(
    read: readonly DiagnosticReading[],
    onDone?: (done: number, of: number) => void,
  ): Promise<readonly WeighedCircuit[] | null> {
    newest += 1;
    const own = newest;
    if (!known) return null;
    const c: Case = { ...known, measured: [...known.measured, ...read] };
    const those = circuitsInQuestion(c);
    const weighed: WeighedCircuit[] = [];
    for (const [i, q] of those.entries()) {
      await breathe();
      if (own !== newest) return null;
      weighed.push(weighOne(q, contextOf(c), kept));
      onDone?.(i + 1, those.length);
    }
    return weighed;
  },
  /** Nobody waits any more. */
  cancel(): void {
    newest += 1;
  },
  whatIf(circuit: LibraryCircuit, wiring: Wiring, fault: Hypothesis | null): ShownFault[] {
    return shownWithFault(circuit, wiring, fault);
  },
};
export type DiagnosisWorker = typeof api;

expose(api);

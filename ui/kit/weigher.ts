'use client';
import { proxy, type Remote, wrap } from 'comlink';
import type { Case, WeighedCircuit } from '../../core/diagnosis/case';
import { currentReader } from '../../core/locale/locale';
import type { DiagnosticReading } from '../../core/diagnosis/types';
import type { DiagnosisWorker } from '../../workers/diagnosis.worker';

let worker: Remote<DiagnosisWorker> | null = null;

/** The worker that weighs circuits, made when it is first wanted. */
export function weigher(): Remote<DiagnosisWorker> {
  if (!worker) {
    worker = wrap<DiagnosisWorker>(
      new Worker(new URL('../../workers/diagnosis.worker.ts', import.meta.url), { type: 'module' }),
    );
    void worker.read(currentReader());
  }
  return worker;
}

let sent: Case | null = null;

/**
 * A case with the readings of this bench, weighed beside the page; `null`: a newer question came. The worker
 * is started by the first reading, and the case is sent over once.
 */
export function weighBeside(
  known: Case,
  read: readonly DiagnosticReading[],
  onDone: (done: number, of: number) => void,
): Promise<readonly WeighedCircuit[] | null> {
  // Messages arrive in the order in which they are sent: nobody waits for this one.
  if (sent !== known) void weigher().know(known);
  sent = known;
  return weigher().weigh(read, proxy(onDone));
}

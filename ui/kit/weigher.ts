'use client';
import { proxy, type Remote, wrap } from 'comlink';
import type { DiagnosisWorker } from '../../workers/diagnosis.worker';

let worker: Remote<DiagnosisWorker> | null = null;

/** The worker that weighs circuits, made when it is first wanted. */
export function weigher(): Remote<DiagnosisWorker> {
  worker ??= wrap<DiagnosisWorker>(
    new Worker(new URL('../../workers/diagnosis.worker.ts', import.meta.url), { type: 'module' }),
  );
  return worker;
}

export { proxy };

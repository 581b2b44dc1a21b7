'use client';
import { proxy, type Remote, wrap } from 'comlink';
import { v7 } from 'uuid';
import { sayerOf } from '../../core/locale/said';
import { word } from '../../core/locale/translate';
import type { AskedCapture, ColumnChoice } from '../../application/traces/stored';
import type { Dialect } from '../../formats/trace/dialect';
import { placeIn, type ReadCode } from '../../formats/trace/types';
import type { Answer, FurtherFile, Joined, TraceWorker, Understood } from '../../workers/trace.worker';
import { problemsOf, send, sendBlock } from '../kit/send';

let worker: Remote<TraceWorker> | null = null;
/** Rejected when the worker does not start, or dies: what was asked of it is never answered then. */
let broken: Promise<never> | null = null;

/** The worker that reads and searches recordings, made when it is first wanted. */
function reader(): Remote<TraceWorker> {
  if (worker) return worker;
  const thread = new Worker(new URL('../../workers/trace.worker.ts', import.meta.url), { type: 'module' });
  broken = new Promise((_, reject) => {
    thread.addEventListener('error', (e) => {
      worker = null;
      reject(new Error(e.message));
    });
  });
  broken.catch(() => undefined);
  worker = wrap<TraceWorker>(thread);
  return worker;
}

/** What was read, or why not and where in the file (`''`: all of it), in the reader's words. */
export type Reading<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly place: string; readonly message: string };

/** What the worker answers; where there is none, that. */
async function asked<T>(ask: (worker: Remote<TraceWorker>) => Promise<Answer<T>>): Promise<Reading<T>> {
  const asking = ask(reader());
  try {
    const answer = await Promise.race([asking, broken ?? asking]);
    if (answer.ok) return answer;
    return { ok: false, place: placeIn(answer.path), message: sayerOf(answer.said)(answer.message) };
  } catch {
    return { ok: false, place: '', message: word('Recordings cannot be read here at the moment. Reload the page.') };
  }
}

export const lookAt = (file: File): Promise<Reading<Understood>> => asked((w) => w.look(file));
export const joinFile = (first: File, dialect: Partial<Dialect> | null, further: File): Promise<Reading<Joined>> =>
  asked((w) => w.join(first, dialect, further));
export const cancelReading = (): void => void reader().cancel();

export type Stage = 'reading' | 'sending';
export type Uploaded =
  | { readonly ok: true; readonly id: string; readonly codes: readonly ReadCode[] }
  | { readonly ok: false; readonly message: string };

/** How often a block is sent again where no server answers; the pause grows. */
const TRIES = 6;

/**
 * Reads a file, searches it, and sends it block by block into a job. What the server has already is not sent
 * again: a recording of the same file that stopped half-way goes on.
 */
export async function uploadRecording(
  jobId: string,
  file: File,
  dialect: Partial<Dialect> | null,
  further: readonly FurtherFile[],
  choices: readonly ColumnChoice[],
  capture: AskedCapture | null,
  name: string,
  by: string,
  half: {
    readonly id: string;
    readonly sha256: string;
    readonly missing: readonly { stream: number; number: number }[];
  } | null,
  onProgress: (stage: Stage, share: number) => void,
): Promise<Uploaded> {
  const onShare = proxy((s: number) => onProgress('reading', s));
  const taken = await asked((w) => w.take(file, dialect, further, choices, capture, onShare));
  if (!taken.ok) return { ok: false, message: [taken.place, taken.message].filter(Boolean).join(': ') };
  const { head, codes } = taken.value;
  const goesOn = half !== null && half.sha256 === head.sha256;
  const id = goesOn ? half.id : v7();
  if (!goesOn) {
    const kept = await send(`/api/jobs/${jobId}/traces`, { id, by, name, head });
    if (!kept.ok)
      return {
        ok: false,
        message: problemsOf(kept.error)
          .map((p) => p.message)
          .join(' '),
      };
  }
  const wanted = goesOn
    ? half.missing
    : head.streams.flatMap((s, stream) => s.blocks.map((_, number) => ({ stream, number })));
  for (const [i, { stream, number }] of wanted.entries()) {
    const failed = await sendOne(id, stream, number);
    if (failed !== null) return { ok: false, message: failed };
    onProgress('sending', (i + 1) / wanted.length);
  }
  return { ok: true, id, codes };
}

/** Sends one block, and again where the server does not answer; returns why it did not go, or `null`. */
async function sendOne(id: string, stream: number, number: number): Promise<string | null> {
  const bytes = await reader().block(stream, number);
  for (let attempt = 0; attempt < TRIES; attempt++) {
    const sent = await sendBlock(`/api/traces/${id}/blocks?stream=${stream}&number=${number}`, bytes);
    if (sent.ok) return null;
    if (sent.error.kind === 'refused' || sent.error.kind === 'signed-out')
      return problemsOf(sent.error)
        .map((p) => p.message)
        .join(' ');
    await new Promise((resolve) => setTimeout(resolve, 500 * 2 ** attempt));
  }
  return 'The server does not answer. What has arrived is kept: choose the same file again, and it goes on from there.';
}

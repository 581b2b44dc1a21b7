/** Reads one file in a thread of the web server: web/reading.mjs starts it with the question, and ends it. */
import { parentPort, workerData } from 'node:worker_threads';
import { asFor, type Reader } from '../core/locale/locale';
import { type FileKind, FILES } from '../formats/files';

interface Question {
  readonly kind: FileKind;
  readonly given: readonly unknown[];
  readonly reader: Reader;
}

const { kind, given, reader } = workerData as Question;
const read = FILES[kind] as (...given: readonly unknown[]) => unknown;
parentPort?.postMessage(asFor(reader, () => read(...given)));

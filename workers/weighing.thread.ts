/**
 * Weighs circuits in a thread of the web server: web/weighing.mjs starts it and asks. One question after the
 * other, each answered with its number, or with what went wrong.
 */
import { parentPort } from 'node:worker_threads';
import { type CaseContext, type InQuestion, PredictionCache, weighOne } from '../core/diagnosis/case';
import { asFor, type Reader } from '../core/locale/locale';

interface Question {
  readonly number: number;
  readonly asked: InQuestion;
  readonly context: CaseContext;
  readonly reader: Reader;
}

const kept = new PredictionCache();

parentPort?.on('message', ({ number, asked, context, reader }: Question) => {
  try {
    parentPort?.postMessage({ number, weighed: asFor(reader, () => weighOne(asked, context, kept)) });
  } catch (error) {
    parentPort?.postMessage({ number, error });
  }
});

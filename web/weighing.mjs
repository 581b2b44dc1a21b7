/**
 * A thread that weighs circuits beside the thread that answers: a circuit takes up to a second of the
 * processor, and nobody's reading waits for it. Started by the first question; when it dies, whoever waits
 * for it is told, and the next question starts another.
 */
import { Worker } from 'node:worker_threads';

export class WeighingThread {
  #file;
  #thread = null;
  #asked = 0;
  /** By number of the question. */
  #waiting = new Map();

  /** `file`: workers/weighing.thread.ts, built. */
  constructor(file) {
    this.#file = file;
  }

  /**
   * Rejects with what went wrong where it was weighed.
   *
   * @param {import('../server/jobs/weighing').WeighingQuestion} question
   * @returns {Promise<import('../core/diagnosis/case').WeighedCircuit>}
   */
  ask(question) {
    this.#thread ??= this.#start();
    this.#asked += 1;
    const number = this.#asked;
    return new Promise((resolve, reject) => {
      // What cannot be sent waits for nothing.
      this.#thread.postMessage({ ...question, number });
      this.#waiting.set(number, { resolve, reject });
    });
  }

  /** Ends the thread; whoever waits for it is told. */
  async close() {
    await this.#thread?.terminate();
  }

  #start() {
    const thread = new Worker(this.#file);
    let reason = null;
    thread.on('message', ({ number, weighed, error }) => {
      const asker = this.#waiting.get(number);
      this.#waiting.delete(number);
      if (error) asker?.reject(error);
      else asker?.resolve(weighed);
    });
    thread.on('error', (error) => (reason = error));
    thread.on('exit', (code) => {
      this.#thread = null;
      for (const { reject } of this.#waiting.values())
        reject(reason ?? new Error(`the thread that weighs circuits ended with ${code}`));
      this.#waiting.clear();
    });
    // The process may end while it is idle.
    thread.unref();
    return thread;
  }
}

/**
 * Threads that read large files beside the thread that answers: one for each file, ended with it. So a file
 * can take neither the time nor the memory of others.
 */
import { Worker } from 'node:worker_threads';
import { Gate } from './gate.mjs';

const AT_ONCE = 2;
/** A good file of eight megabytes is read in two seconds, on a slow machine. */
const MOST_ms = 15_000;
const MOST_MB = 512;

export class ReadingThreads {
  #file;
  #limits;
  #gate;

  /**
   * `file`: workers/reading.thread.ts, built.
   *
   * @param {string} file
   * @param {{ most_ms?: number; most_MB?: number }} limits
   */
  constructor(file, { most_ms = MOST_ms, most_MB = MOST_MB } = {}) {
    this.#file = file;
    this.#limits = { most_ms, most_MB };
    this.#gate = new Gate(AT_ONCE, 2 * most_ms);
  }

  /**
   * Rejects with what went wrong where it was read; what was read is whatever the reader says of the file.
   *
   * @param {import('../server/files/read-beside').ReadingQuestion} question
   * @returns {Promise<import('../server/files/read-beside').ReadingAnswer>}
   */
  async read(question) {
    const leave = await this.#gate.enter();
    try {
      return await this.#inThread(question);
    } finally {
      leave?.();
    }
  }

  async #inThread(question) {
    const { most_ms, most_MB } = this.#limits;
    const thread = new Worker(this.#file, {
      workerData: question,
      resourceLimits: { maxOldGenerationSizeMb: most_MB },
    });
    let timer;
    try {
      return await new Promise((resolve, reject) => {
        timer = setTimeout(() => resolve({ ended: 'time' }), most_ms);
        thread.once('message', (read) => resolve({ read }));
        thread.once('error', (error) =>
          error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? resolve({ ended: 'memory' }) : reject(error),
        );
        thread.once('exit', (code) => reject(new Error(`the thread that reads files ended with ${code}`)));
      });
    } finally {
      clearTimeout(timer);
      await thread.terminate();
    }
  }
}

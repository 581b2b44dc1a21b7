/** What the bundled modules of the server expect to be there. */
import { Buffer } from 'buffer';

const process = {
  env: {},
  stderr: { write: (text: string) => console.error(text) },
  nextTick: (work: () => void) => queueMicrotask(work),
};

export { Buffer, process };

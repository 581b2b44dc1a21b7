import { AsyncLocalStorage } from 'node:async_hooks';

/**
 * When what is being written was made, where that was earlier: a device without the server sends it later.
 */
const moment = new AsyncLocalStorage<Date>();

export const madeAt = (): Date | undefined => moment.getStore();
export const withMadeAt = <T>(at: Date | null, work: () => Promise<T>): Promise<T> =>
  at ? moment.run(at, work) : work();

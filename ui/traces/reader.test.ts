/** @jest-environment jsdom */
import { lookAt } from './reader';

const threads: EventTarget[] = [];
beforeAll(() => {
  Object.assign(globalThis, {
    Worker: class extends EventTarget {
      constructor() {
        super();
        threads.push(this);
      }
      postMessage = () => undefined;
    },
  });
});

const FILE = new File(['1'], 'road.csv');

test('a thread that does not start is said, and another one is tried for the next file', async () => {
  const first = lookAt(FILE);
  threads[0]?.dispatchEvent(new ErrorEvent('error', { message: 'no such script' }));
  expect(await first).toMatchObject({ ok: false, message: expect.stringContaining('Reload the page') as string });
  void lookAt(FILE);
  expect(threads).toHaveLength(2);
});

import { ConcludeSoon } from './conclude-soon';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

const counted = () => jest.fn(() => Promise.resolve());

test('who types eight readings, one every two seconds, is concluded once, after the last', async () => {
  const soon = new ConcludeSoon();
  const conclude = counted();
  for (let n = 0; n < 8; n++) {
    soon.written('a', conclude);
    await jest.advanceTimersByTimeAsync(2_000);
  }
  expect(conclude).toHaveBeenCalledTimes(0);
  await jest.advanceTimersByTimeAsync(600);
  expect(conclude).toHaveBeenCalledTimes(1);
});

test('a job that is written into all the time is concluded now and then all the same', async () => {
  const soon = new ConcludeSoon();
  const conclude = counted();
  for (let s = 0; s < 60; s++) {
    soon.written('a', conclude);
    await jest.advanceTimersByTimeAsync(1_000);
  }
  expect(conclude).toHaveBeenCalledTimes(3);
});

test('a list that looks again and again neither hurries nor puts off what is due', async () => {
  const soon = new ConcludeSoon();
  const [ofWriter, ofList] = [counted(), counted()];
  soon.written('a', ofWriter);
  soon.seenBehind('a', ofList);
  soon.seenBehind('b', ofList);
  for (let s = 0; s < 19; s++) {
    await jest.advanceTimersByTimeAsync(1_000);
    soon.seenBehind('b', ofList);
  }
  expect([ofWriter.mock.calls.length, ofList.mock.calls.length]).toEqual([1, 0]);
  await jest.advanceTimersByTimeAsync(1_100);
  expect(ofList).toHaveBeenCalledTimes(1);
});

test('one at a time, with rests of three times as long, and one that fails does not stop the next', async () => {
  const soon = new ConcludeSoon();
  const running: string[] = [];
  const takes =
    (name: string, ms: number, fails = false) =>
    async () => {
      running.push(`${name} begins`);
      await new Promise((done) => setTimeout(done, ms));
      running.push(`${name} ends`);
      if (fails) throw new Error('no database');
    };
  soon.written('a', takes('a', 100, true));
  soon.written('b', takes('b', 100));
  await jest.advanceTimersByTimeAsync(2_500 + 150);
  expect(running).toEqual(['a begins', 'a ends']);
  await jest.advanceTimersByTimeAsync(300);
  expect(running).toEqual(['a begins', 'a ends', 'b begins']);
  await jest.advanceTimersByTimeAsync(100);
  expect(running.at(-1)).toBe('b ends');
});

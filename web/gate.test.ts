import { Gate } from './gate.mjs';

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

/** Asks for so many turns; tells who was let through, and how each leaves. */
function queue(gate: Gate, many: number) {
  const inside: number[] = [];
  const leave: (() => void)[] = [];
  for (let i = 0; i < many; i++)
    void gate.enter().then((done) => {
      inside.push(i);
      if (done) leave[i] = done;
    });
  return { inside, leave };
}
const settle = () => jest.advanceTimersByTimeAsync(0);

test('so many at a time, the others in the order in which they came', async () => {
  const { inside, leave } = queue(new Gate(2, 1000), 4);
  await settle();
  expect(inside).toEqual([0, 1]);
  leave[1]?.();
  await settle();
  expect(inside).toEqual([0, 1, 2]);
  leave[0]?.();
  leave[2]?.();
  await settle();
  expect(inside).toEqual([0, 1, 2, 3]);
});

test('leaving twice lets one through, not two', async () => {
  const { inside, leave } = queue(new Gate(1, 1000), 3);
  await settle();
  leave[0]?.();
  leave[0]?.();
  await settle();
  expect(inside).toEqual([0, 1]);
});

test('who takes too long no longer keeps the others, and lets nobody through when it leaves at last', async () => {
  const { inside, leave } = queue(new Gate(1, 250), 4);
  await jest.advanceTimersByTimeAsync(249);
  expect(inside).toEqual([0]);
  await jest.advanceTimersByTimeAsync(1);
  expect(inside).toEqual([0, 1]);
  leave[0]?.();
  await settle();
  expect(inside).toEqual([0, 1]);
});

test('whoever comes when nobody is inside is let through at once', async () => {
  const gate = new Gate(1, 1000);
  (await gate.enter())?.();
  const { inside } = queue(gate, 1);
  await settle();
  expect(inside).toEqual([0]);
});

test('who is gone when its turn comes takes nobody’s place', async () => {
  const gate = new Gate(1, 1000);
  const { inside, leave } = queue(gate, 1);
  let isGone = false;
  const gone = Array.from({ length: 3 }, () => gate.enter(() => isGone));
  const next = gate.enter();
  await settle();
  expect(inside).toEqual([0]);
  isGone = true;
  leave[0]?.();
  expect(await Promise.all(gone)).toEqual([null, null, null]);
  expect(await next).toBeInstanceOf(Function);
});

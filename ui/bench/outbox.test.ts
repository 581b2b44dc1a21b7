/** @jest-environment jsdom */
import 'fake-indexeddb/auto';
import type { OutboxEvent, OutboxItem } from './outbox';

type Answer = number | 'nobody';

/** A server that answers in the given order, the last answer for ever. */
class FakeServer {
  readonly bodies: { id: string }[] = [];
  constructor(public answers: Answer[]) {}
  readonly fetch = (_: string, init: { body: string }): Promise<unknown> => {
    const answer = this.answers.length > 1 ? (this.answers.shift() as Answer) : (this.answers[0] as Answer);
    if (answer === 'nobody') return Promise.reject(new TypeError('failed to fetch'));
    this.bodies.push(JSON.parse(init.body) as { id: string });
    return Promise.resolve({
      ok: answer < 300,
      status: answer,
      json: () => Promise.resolve({ title: 'no', status: answer, errors: [] }),
    });
  };
}

const item = (id: string): OutboxItem => ({
  runId: 'run',
  kind: 'reading',
  body: { id, position: 1, entry: '0.6', by: 'T', takenAt: '2026-11-20T10:00:00Z' },
});

/** A fresh outbox, as after loading the page; the database stays what it was. */
async function open(server: FakeServer) {
  jest.resetModules();
  Object.assign(globalThis, {
    fetch: server.fetch,
    structuredClone: (x: unknown) => JSON.parse(JSON.stringify(x)) as unknown,
  });
  Object.assign(AbortSignal, { timeout: () => new AbortController().signal });
  let held = false;
  const request = async (_: string, __: unknown, work: (lock: object | null) => Promise<boolean>): Promise<boolean> => {
    if (held) return work(null);
    held = true;
    try {
      return await work({});
    } finally {
      held = false;
    }
  };
  Object.defineProperty(navigator, 'locks', { value: { request }, configurable: true });
  const outbox = await import('./outbox');
  const events: OutboxEvent[] = [];
  outbox.onOutbox((e) => events.push(e));
  const until = async (what: () => boolean | Promise<boolean>): Promise<void> => {
    for (let i = 0; i < 400 && !(await what()); i++) await new Promise((r) => setTimeout(r, 10));
    expect(await what()).toBe(true);
  };
  return { ...outbox, events, until, empty: async () => (await outbox.kept()).length === 0 };
}

test('kept first, then sent, then taken out', async () => {
  const server = new FakeServer([201]);
  const box = await open(server);
  await box.keep(item('a'));
  expect(box.events[0]).toEqual({ type: 'kept', id: 'a' });
  await box.until(box.empty);
  expect(box.events).toContainEqual({ type: 'stored', id: 'a' });
  expect(server.bodies.map((b) => b.id)).toEqual(['a']);
});

test('while nobody answers everything stays, in order; later all of it goes', async () => {
  const server = new FakeServer(['nobody']);
  const box = await open(server);
  for (const id of ['a', 'b', 'c']) await box.keep(item(id));
  await box.until(() => box.events.some((e) => e.type === 'unreachable'));
  expect((await box.kept()).map((i) => i.body.id)).toEqual(['a', 'b', 'c']);
  server.answers = [201];
  await box.until(box.empty);
  expect(server.bodies.map((b) => b.id)).toEqual(['a', 'b', 'c']);
});

test('a failing server is no refusal: it is tried again', async () => {
  const server = new FakeServer([503, 500, 201]);
  const box = await open(server);
  await box.keep(item('a'));
  await box.until(box.empty);
  expect(server.bodies.map((b) => b.id)).toEqual(['a', 'a', 'a']);
});

test('a refusal stays until the person decides, and holds up nobody else', async () => {
  const server = new FakeServer([409, 201]);
  const box = await open(server);
  await box.keep(item('a'));
  await box.keep(item('b'));
  await box.until(() => box.events.some((e) => e.type === 'stored' && e.id === 'b'));
  expect((await box.kept()).map((i) => [i.body.id, i.refused?.status])).toEqual([['a', 409]]);
  await box.drop('a');
  expect(await box.empty()).toBe(true);
});

test('what waited is still there for the next page', async () => {
  const first = await open(new FakeServer(['nobody']));
  await first.keep(item('left'));
  const server = new FakeServer([201]);
  const second = await open(server);
  await second.flush();
  await second.until(second.empty);
  expect(server.bodies.map((b) => b.id)).toContain('left');
});

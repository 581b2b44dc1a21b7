/** @jest-environment jsdom */
import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { idOf } from './items';
import type { OutboxEvent, OutboxItem } from './outbox';

type Answer = number | 'nobody';

/**
 * A server that answers in the given order, the last answer for ever; `answerTo` decides by who sends what.
 */
class FakeServer {
  readonly bodies: { id: string; by: string }[] = [];
  answerTo: ((body: { id: string; by: string }) => Answer | undefined) | null = null;
  constructor(public answers: Answer[]) {}
  readonly fetch = (_: string, init: { body: string }): Promise<unknown> => {
    const body = JSON.parse(init.body) as { id: string; by: string };
    const answer =
      this.answerTo?.(body) ?? (this.answers.length > 1 ? this.answers.shift() : this.answers[0]) ?? 'nobody';
    if (answer === 'nobody') return Promise.reject(new TypeError('failed to fetch'));
    this.bodies.push(body);
    return Promise.resolve({
      ok: answer < 300,
      status: answer,
      json: () => Promise.resolve({ title: 'no', status: answer, errors: [] }),
    });
  };
}

const item = (id: string, by = 'T', runId = 'run'): OutboxItem => ({
  runId,
  kind: 'reading',
  body: { id, position: 1, entry: '0.6', by, takenAt: '2026-11-20T10:00:00Z' },
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
  return { ...outbox, events, until, empty: async () => (await outbox.queuedItems()).length === 0 };
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

test('safe at once, sent when the verdict has been painted', async () => {
  const server = new FakeServer([201]);
  const box = await open(server);
  await box.keep(item('a'));
  expect([await box.empty(), server.bodies]).toEqual([false, []]);
  await box.until(box.empty);
  expect(server.bodies.map((b) => b.id)).toEqual(['a']);
});

test('while nobody answers everything stays, in order; later all of it goes', async () => {
  const server = new FakeServer(['nobody']);
  const box = await open(server);
  for (const id of ['a', 'b', 'c']) await box.keep(item(id));
  await box.until(() => box.events.some((e) => e.type === 'unreachable'));
  expect((await box.queuedItems()).map((i) => idOf(i))).toEqual(['a', 'b', 'c']);
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
  expect((await box.queuedItems()).map((i) => [idOf(i), i.refused?.status])).toEqual([['a', 409]]);
  await box.drop('a');
  expect(await box.empty()).toBe(true);
});

test('what waited is still there for the next page', async () => {
  const first = await open(new FakeServer(['nobody']));
  await first.keep(item('left'));
  await first.until(() => first.events.some((e) => e.type === 'unreachable'));
  const server = new FakeServer([201]);
  const second = await open(server);
  await second.flush();
  await second.until(second.empty);
  expect(server.bodies.map((b) => b.id)).toContain('left');
});

test('somebody who is not signed in here holds up nobody else, and what waits of theirs is said', async () => {
  const server = new FakeServer([201]);
  server.answerTo = ({ by }) => (by === 'Gone' ? 401 : undefined);
  const box = await open(server);
  for (const [id, by] of [
    ['a', 'Gone'],
    ['b', 'Gone'],
    ['c', 'Here'],
  ] as const)
    await box.keep(item(id, by));
  await box.until(() => box.events.some((e) => e.type === 'stored' && e.id === 'c'));
  expect((await box.queuedItems()).map((i) => idOf(i))).toEqual(['a', 'b']);
  await box.until(() =>
    box.events.some((e) => e.type === 'waiting' && e.lanes.some((l) => l.by === 'Gone' && l.entries === 2)),
  );
  const said = box.events.findLast((e) => e.type === 'waiting');
  expect(said).toMatchObject({
    lanes: [{ by: 'Gone', since: '2026-11-20T10:00:00Z', trouble: { kind: 'signed-out' } }],
  });
  expect(box.events.some((e) => e.type === 'unreachable')).toBe(false);
  // Signed in again: both go, in their order.
  server.answerTo = null;
  await box.flush(true);
  await box.until(box.empty);
  expect(
    server.bodies
      .filter((b) => b.by === 'Gone')
      .slice(-2)
      .map((b) => b.id),
  ).toEqual(['a', 'b']);
});

test('a lead takes over what somebody left who cannot sign in any more; each reading says who typed it', async () => {
  const server = new FakeServer([201]);
  server.answerTo = ({ by }) => (by === 'Gone' ? 401 : 201);
  const box = await open(server);
  await box.keep(item('a', 'Gone'));
  await box.keep(item('b', 'Gone', 'another run'));
  await box.until(() => server.bodies.length >= 2);
  await box.takeOver('Gone|run', 'Lead');
  await box.until(async () => (await box.queuedItems()).length === 1);
  expect(server.bodies).toContainEqual(expect.objectContaining({ id: 'a', by: 'Lead', why: 'typed by Gone' }));
  expect((await box.queuedItems()).map((i) => idOf(i))).toEqual(['b']);
  await box.takeOver('Gone|another run', 'Lead');
  await box.until(box.empty);
});

test('what the server fails at for one run holds up neither another run nor another person', async () => {
  const server = new FakeServer([201]);
  server.answerTo = ({ id }) => (id === 'poison' ? 500 : undefined);
  const box = await open(server);
  await box.keep(item('poison', 'T', 'one'));
  await box.keep(item('behind', 'T', 'one'));
  await box.keep(item('other', 'T', 'two'));
  await box.keep(item('colleague', 'U', 'one'));
  await box.until(() =>
    ['other', 'colleague'].every((id) => box.events.some((e) => e.type === 'stored' && e.id === id)),
  );
  expect((await box.queuedItems()).map((i) => idOf(i))).toEqual(['poison', 'behind']);
  for (const id of ['poison', 'behind']) await box.drop(id);
  await box.flush(true);
});

test('without locks between tabs, as on a page that came over plain HTTP, it is sent all the same', async () => {
  const server = new FakeServer([503, 201]);
  const box = await open(server);
  Reflect.deleteProperty(navigator, 'locks');
  expect('locks' in navigator).toBe(false);
  for (const id of ['a', 'b']) await box.keep(item(id));
  await box.until(box.empty);
  expect(server.bodies.map((b) => b.id)).toEqual(['a', 'a', 'b']);
});

test('an outbox that an older version left is sent', async () => {
  globalThis.indexedDB = new IDBFactory();
  const { openDB } = await import('idb');
  const db = await openDB('mudflat', 1, {
    upgrade: (d) => void d.createObjectStore('outbox', { keyPath: 'seq', autoIncrement: true }),
  });
  await db.add('outbox', {
    runId: 'run',
    kind: 'reading',
    body: { id: 'older', position: 2, entry: '0.7', by: 'T', takenAt: '2026-10-01T08:00:00Z' },
  });
  db.close();
  const server = new FakeServer([201]);
  const box = await open(server);
  await box.flush();
  await box.until(box.empty);
  expect(server.bodies.map((b) => b.id)).toEqual(['older']);
});

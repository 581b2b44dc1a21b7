/** @jest-environment node */
import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import type { QueuedItem } from './items';

const RAW = Buffer.alloc(32, 7);
const PIN = '837465';
const reading = {
  kind: 'reading',
  runId: 'run',
  body: { id: 'r', position: 1, entry: 'secret 0.61', by: 'Tobin', takenAt: '2026-11-20T10:00:00Z' },
} as const;

// A browser without a service worker: the key is in the page alone.
Object.defineProperty(globalThis, 'navigator', { value: {}, configurable: true });

/** A device on which Tobin has just signed in. */
async function device() {
  jest.resetModules();
  globalThis.indexedDB = new IDBFactory();
  Object.assign(globalThis, {
    fetch: () =>
      Promise.resolve({
        ok: true,
        json: () =>
          Promise.resolve({
            device: 'd'.repeat(32),
            ticket: 'ticket of d',
            key: RAW.toString('base64'),
            person: { name: 'Tobin', role: 'technician', depotId: null },
          }),
      }),
  });
  const vault = await import('./vault');
  const store = await import('./outbox-store');
  const own = await import('./device-store');
  await vault.rememberPin(PIN);
  return { ...vault, store, own };
}

test('the PIN opens the device, a wrong one does not, and a right one forgets the wrong ones', async () => {
  const d = await device();
  await d.lock();
  expect(await d.unlockByPin('Tobin', '000000')).toEqual({ ok: false, left: 4 });
  expect(await d.unlockByPin('Nobody', PIN)).toEqual({ ok: false, left: 3 });
  expect(await d.unlockByPin('Tobin', PIN)).toMatchObject({ ok: true, person: { name: 'Tobin' } });
  expect(await d.own.wrongTries()).toBe(0);
});

test('a browser that has lost its cookies is the same device: it shows its ticket', async () => {
  const d = await device();
  const asked: unknown[] = [];
  const answer = fetch as unknown as () => Promise<Response>;
  Object.assign(globalThis, {
    fetch: (_: string, init: { headers: unknown }) => {
      asked.push(init.headers);
      return answer();
    },
  });
  await d.lock();
  expect(await d.unlockByServer()).toBe(true);
  expect(asked).toEqual([{ 'x-device-ticket': 'ticket of d' }]);
});

test('nothing of what waits can be read on the disk, nor without the key', async () => {
  const d = await device();
  await d.store.add(reading);
  expect(JSON.stringify(await d.store.rawRows())).not.toContain('secret');
  expect((await d.store.readAll()).items).toMatchObject([reading]);
  await d.lock();
  const locked = await d.store.readAll();
  expect(locked).toMatchObject({ items: [], locked: [{ id: 'r', by: 'Tobin' }], allSealed: true });
});

test('the fifth wrong PIN wipes everything and hands out what waited, sealed', async () => {
  const d = await device();
  await d.store.add(reading);
  await d.lock();
  for (let i = 0; i < 4; i++) await d.unlockByPin('Tobin', '111111');
  const last = await d.unlockByPin('Tobin', '111111');
  expect(last).toMatchObject({ ok: false, left: 0 });
  const file = 'file' in last ? (last.file ?? '') : '';
  expect(file).not.toContain('secret');
  expect(JSON.parse(file)).toMatchObject({
    format: 'mudflat/sealed-waiting',
    device: 'd'.repeat(32),
    items: [{ id: 'r' }],
  });
  expect(await d.own.people()).toEqual([]);
  expect(await d.store.rawRows()).toEqual([]);
  // The right PIN comes too late.
  expect(await d.unlockByPin('Tobin', PIN)).toMatchObject({ ok: false });
});

test('what was sent is done again until the copy holds it', async () => {
  const d = await device();
  await d.store.add(reading);
  const [kept] = (await d.store.readAll()).items as QueuedItem[];
  if (!kept) throw new Error('nothing kept');
  await d.store.confirm(kept, true);
  expect((await d.store.readAll()).items).toEqual([]);
  expect(await d.store.readSent()).toMatchObject([{ body: { id: 'r' } }]);
  await d.store.forgetSent(Date.now() - 60_000);
  expect(await d.store.readSent()).toHaveLength(1);
  await d.store.forgetSent(Date.now() + 1);
  expect(await d.store.readSent()).toEqual([]);
});

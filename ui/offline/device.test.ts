/** @jest-environment node */
import 'fake-indexeddb/auto';
import { gunzipSync, gzipSync } from 'node:zlib';
import { IDBFactory } from 'fake-indexeddb';
import { MADE_AT } from '../../formats/device-copy';

const MADE = '2026-11-20T08:00:00.000Z';
const COPY = JSON.stringify({
  format: 'mudflat/device-copy',
  madeAt: MADE,
  tables: [{ name: 'job', rows: '[{"a":1}]' }],
});

/** A page of the server on an unlocked device, and what the server answers to it. */
async function page(answer: () => Response) {
  jest.resetModules();
  globalThis.indexedDB = new IDBFactory();
  // An open channel would keep the test from ending.
  globalThis.BroadcastChannel = class extends EventTarget {
    postMessage = () => undefined;
  } as unknown as typeof BroadcastChannel;
  Object.assign(globalThis, { fetch: () => Promise.resolve(answer()) });
  const seal = await import('./seal');
  const store = await import('./device-store');
  const { refreshCopy } = await import('./device');
  const key = await seal.importKey(Buffer.alloc(32, 7));
  seal.holdKey(key);
  return { ...seal, ...store, refreshCopy, key };
}
const packed = (headers: Record<string, string>, status = 200) => new Response(gzipSync(COPY), { status, headers });

test('the copy is kept as it came, sealed, with the moment of the server’s clock', async () => {
  const d = await page(() => packed({ [MADE_AT]: MADE }));
  expect(await d.refreshCopy()).toBe(true);
  const kept = await d.keptCopy();
  expect(kept?.madeAt).toBe(MADE);
  expect(Math.abs(Date.now() - (kept?.fetchedAt ?? 0))).toBeLessThan(60_000);
  if (!kept) throw new Error('nothing is kept');
  expect(Buffer.from(kept.sealed.data).includes(gzipSync(COPY).subarray(10, 40))).toBe(false);
  expect(gunzipSync(new Uint8Array(await d.openWith(d.key, kept.sealed))).toString()).toBe(COPY);
});

test.each([
  ['a server that fails', () => packed({ [MADE_AT]: MADE }, 503)],
  // A proxy's own page, or a server of an earlier version.
  ['an answer that is no copy', () => new Response('<html>', { status: 200 })],
])('%s leaves the copy that is there', async (_, answer) => {
  let isFirst = true;
  const d = await page(() => {
    const now = isFirst ? packed({ [MADE_AT]: MADE }) : answer();
    isFirst = false;
    return now;
  });
  expect(await d.refreshCopy()).toBe(true);
  const before = await d.keptCopy();
  expect(await d.refreshCopy()).toBe(false);
  expect(await d.keptCopy()).toEqual(before);
});

test('a locked device keeps nothing', async () => {
  const d = await page(() => packed({ [MADE_AT]: MADE }));
  d.holdKey(null);
  expect(await d.refreshCopy()).toBe(false);
  expect(await d.keptCopy()).toBeFalsy();
});

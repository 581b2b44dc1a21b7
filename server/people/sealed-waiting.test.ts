import { webcrypto } from 'node:crypto';
import { OPEN_WAITING, type OpenWaiting } from '../../formats/requests/waiting';
import { schema } from '../../formats/schemas';
import { validate } from '../../formats/validate';
import { deviceKey } from './known-device';
import { openWaiting } from './sealed-waiting';

const device = 'a'.repeat(32);
const base64 = (bytes: ArrayBuffer | Uint8Array) => ({ base64: Buffer.from(bytes as Uint8Array).toString('base64') });

/** As a browser seals it: the published interface of Web Crypto, not our own code. */
async function sealed(item: unknown, raw: Uint8Array = deviceKey(device)) {
  const key = await webcrypto.subtle.importKey('raw', raw, 'AES-GCM', false, ['encrypt']);
  const iv = webcrypto.getRandomValues(new Uint8Array(12));
  const data = await webcrypto.subtle.encrypt(
    { name: 'AES-GCM', iv },
    key,
    new TextEncoder().encode(JSON.stringify(item)),
  );
  return { id: 'x', sealed: { iv: base64(iv), data: base64(new Uint8Array(data)) } };
}
const file = (items: Record<string, unknown>[]) =>
  ({ format: 'mudflat/sealed-waiting', version: 1, device, items }) as const;

test('what a browser has sealed with the key of its device is opened, in its order', async () => {
  const items = [
    { kind: 'reading', runId: 'r' },
    { kind: 'request', path: '/api/jobs', bytes: 'AAEC' },
  ];
  const opened = openWaiting(file(await Promise.all(items.map((i) => sealed(i)))));
  expect(opened).toEqual({ ok: true, value: { items } });
});

test('what was kept before the device had a key is taken as it is', () => {
  const plain = { ...file([{ kind: 'reading', runId: 'r' }]), device: '' };
  expect(validate(schema<OpenWaiting>(OPEN_WAITING), plain)).toMatchObject({ ok: true });
  expect(openWaiting(plain)).toMatchObject({ ok: true, value: { items: [{ runId: 'r' }] } });
});

test('a changed byte, another device and nonsense are refused with the entry', async () => {
  const good = await sealed({ kind: 'reading' });
  const bytes = Buffer.from(good.sealed.data.base64, 'base64');
  bytes[0] = (bytes[0] ?? 0) ^ 1;
  const changed = { ...good, sealed: { ...good.sealed, data: base64(bytes) } };
  for (const wrong of [
    changed,
    await sealed({}, deviceKey('b'.repeat(32))),
    { sealed: null },
    { sealed: { iv: 1, data: [] } },
  ]) {
    const opened = openWaiting(file([good, wrong]));
    expect(opened).toMatchObject({ ok: false, error: { errors: [{ path: '/items/1' }] } });
  }
});

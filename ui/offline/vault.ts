import { DEVICE_TICKET_HEADER } from '../../formats/waiting';
import type { Role } from '../../core/foundation/vocabulary';
import {
  deviceName,
  deviceTicket,
  type KnownPerson,
  people,
  rememberPerson,
  setDeviceName,
  setDeviceTicket,
  setPersonAtBench,
  setWrongTries,
  wipeDevice,
  wrongTries,
} from './device-store';
import { rawRows, wipe } from './outbox-store';
import { canSeal, currentKey, holdKey, importKey, openWith, sealWith } from './seal';

/** PBKDF2 with HMAC-SHA-256, as often as the OWASP collection advised in 2023 (from memory). */
const ROUNDS = 600_000;
const SALT_bytes = 16;
/** Wrong PINs before the device is wiped. */
export const TRIES = 5;

async function keyFromPin(pin: string, salt: BufferSource): Promise<CryptoKey> {
  const base = await crypto.subtle.importKey('raw', new TextEncoder().encode(pin), 'PBKDF2', false, ['deriveKey']);
  return crypto.subtle.deriveKey(
    { name: 'PBKDF2', hash: 'SHA-256', salt, iterations: ROUNDS },
    base,
    { name: 'AES-GCM', length: 256 },
    false,
    ['encrypt', 'decrypt'],
  );
}

interface FromServer {
  readonly device: string;
  readonly ticket: string;
  readonly key: string;
  readonly person: { readonly name: string; readonly role: Role; readonly depotId: string | null };
}

/** The key of this device as the server has it for whoever is signed in; `null`: no server, or nobody is. */
async function fetchKey(): Promise<FromServer | null> {
  const ticket = await deviceTicket();
  const response = await fetch('/api/device-key', {
    cache: 'no-store',
    headers: ticket === '' ? {} : { [DEVICE_TICKET_HEADER]: ticket },
  }).catch(() => null);
  if (!response?.ok) return null;
  const found = (await response.json()) as FromServer;
  await setDeviceName(found.device);
  await setDeviceTicket(found.ticket);
  return found;
}

const bytesOf = (base64: string): Uint8Array<ArrayBuffer> => Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));

/**
 * Opens the device's store for this page: with what an earlier page has left in memory, else with the
 * server's key.
 */
export async function unlockByServer(): Promise<boolean> {
  if (!canSeal()) return false;
  if (currentKey() ?? (await keyInMemory())) {
    await handOn();
    return true;
  }
  const found = await fetchKey();
  if (!found) return false;
  await hold(await importKey(bytesOf(found.key)));
  return true;
}

/** Somebody has just signed in with this PIN: from now on it opens the device without the server too. */
export async function rememberPin(pin: string): Promise<void> {
  if (!canSeal()) return;
  const found = await fetchKey();
  if (!found) return;
  const key = await importKey(bytesOf(found.key));
  await hold(key);
  const salt = crypto.getRandomValues(new Uint8Array(SALT_bytes));
  const raw = await crypto.subtle.exportKey('raw', key);
  await rememberPerson({ ...found.person, salt, wrapped: await sealWith(await keyFromPin(pin, salt), raw) });
  await setWrongTries(0);
}

/** Nobody waits longer than this to be let in. */
const MOST_ms = 4_000;
/** The same after signing in: what goes wrong with it is tried again at the next time. */
export const letPinOpenDevice = (pin: string): Promise<void> =>
  Promise.race([
    rememberPin(pin).catch(() => undefined),
    new Promise<void>((done) => {
      setTimeout(done, MOST_ms);
    }),
  ]);

export type Unlocked =
  | { readonly ok: true; readonly person: KnownPerson }
  | { readonly ok: false; readonly left: number }
  /** The device was wiped; `file` is what waited, as only the server can read it. */
  | { readonly ok: false; readonly left: 0; readonly file: string | null };

/** Tries a PIN. Counted before it is tried: tries at the same moment cannot go past the limit. */
export async function unlockByPin(name: string, pin: string): Promise<Unlocked> {
  const person = (await people()).find((p) => p.name === name);
  const tries = (await wrongTries()) + 1;
  await setWrongTries(tries);
  const raw = person && (await openWith(await keyFromPin(pin, person.salt), person.wrapped).catch(() => null));
  if (person && raw) {
    await setWrongTries(0);
    await hold(await importKey(raw));
    return { ok: true, person };
  }
  if (tries < TRIES) return { ok: false, left: TRIES - tries };
  const file = await sealedQueue();
  await wipeDevice();
  await wipe();
  await hold(null);
  return { ok: false, left: 0, file };
}

/** What waits, as it lies here, with the name by which the server knows its key; `null`: nothing waits. */
export async function sealedQueue(): Promise<string | null> {
  const rows = await rawRows();
  if (rows.length === 0) return null;
  const items = rows.map((row) => JSON.parse(JSON.stringify(row, bytesAsText)) as unknown);
  return JSON.stringify({ format: 'mudflat/sealed-waiting', version: 1, device: await deviceName(), items });
}

function bytesAsText(_: string, value: unknown): unknown {
  const bytes = value instanceof ArrayBuffer ? new Uint8Array(value) : value instanceof Uint8Array ? value : null;
  if (!bytes) return value;
  let text = '';
  for (const byte of bytes) text += String.fromCharCode(byte);
  return { base64: btoa(text) };
}

/** In the memory of this page, and of the service worker for the page after it. */
async function hold(key: CryptoKey | null): Promise<void> {
  holdKey(key);
  const worker = await serviceWorker();
  worker?.postMessage({ type: 'hold-key', key });
}

/** Forgets the key: the next who wants in types a PIN. */
export const lock = (): Promise<void> => hold(null);

/** Somebody has signed out: neither the key nor their name stays. */
export async function leaveDevice(): Promise<void> {
  if (!canSeal()) return;
  await lock();
  await setPersonAtBench('');
}

/** Longer than this a worker that has the key does not take to give it. */
const PATIENCE_ms = 1_500;

async function keyInMemory(): Promise<boolean> {
  const worker = await serviceWorker();
  if (!worker) return false;
  const channel = new MessageChannel();
  const key = await new Promise<CryptoKey | null>((done) => {
    const timer = setTimeout(() => done(null), PATIENCE_ms);
    channel.port1.onmessage = ({ data }: MessageEvent<CryptoKey | null>) => {
      clearTimeout(timer);
      done(data);
    };
    worker.postMessage({ type: 'give-key' }, [channel.port2]);
  });
  channel.port1.close();
  if (key) holdKey(key);
  return key !== null;
}

/** Who unlocks the device without the server knows whether a page before has unlocked it. */
export const unlockByMemory = async (): Promise<boolean> =>
  canSeal() && (currentKey() !== null || (await keyInMemory()));

async function serviceWorker(): Promise<ServiceWorker | null> {
  if (!('serviceWorker' in navigator)) return null;
  if (navigator.serviceWorker.controller) return navigator.serviceWorker.controller;
  return (await navigator.serviceWorker.getRegistration('/'))?.active ?? null;
}

/** The page’s key, to the service worker: it may have begun, or begun anew, after the page had the key. */
async function handOn(): Promise<void> {
  const key = currentKey();
  if (key) (await serviceWorker())?.postMessage({ type: 'hold-key', key });
}

/** A worker that nobody speaks to is stopped by the browser, and with it the key that it holds. */
const AWAKE_ms = 20_000;
export function keepAwake(): () => void {
  if (!('serviceWorker' in navigator)) return () => undefined;
  const now = (): void => void handOn();
  const timer = setInterval(now, AWAKE_ms);
  navigator.serviceWorker.addEventListener('controllerchange', now);
  return () => {
    clearInterval(timer);
    navigator.serviceWorker.removeEventListener('controllerchange', now);
  };
}

import { type Remote, transfer, wrap } from 'comlink';
import type { DeviceAnswer, DeviceRooms, DeviceView } from '../../application/device-rooms';
import { currentReader } from '../../core/locale/locale';
import { type DeviceCopy, MADE_AT } from '../../formats/device-copy';
import { v7 } from 'uuid';
import type { Sending } from '../kit/send';
import { atOf, byOf, contentOf, idOf, type QueuedItem, type OutboxItem, pathOf } from './items';
import { keepCopy, keptCopy } from './device-store';
import { keep, queuedItems, KEPT_CHANNEL, onOutbox } from './outbox';
import { forgetSent, noteSent, readSent } from './outbox-store';
import { shrinkPhoto } from './shrink-photo';
import { currentKey, openWith, sealWith } from './seal';

/** This device's own rooms: see docs/decisions/0017. */

let worker: Remote<DeviceRooms> | null = null;
let opening: Promise<boolean> | null = null;
/** What is in the device's database already. */
let done = new Set<string>();
/** What the bench has kept is on its way into the device's database: who asks comes after it. */
let following: Promise<unknown> = Promise.resolve();

/** Fetches the copy anew; `false`: no server, or the device is locked. */
export async function refreshCopy(): Promise<boolean> {
  const key = currentKey();
  if (!key) return false;
  const started = Date.now();
  const response = await fetch('/api/device-copy', { cache: 'no-store' }).catch(() => null);
  const madeAt = response?.headers.get(MADE_AT);
  if (!response?.ok || !madeAt) return false;
  // It comes packed, and is kept so: millions of characters that a page would have to read and pack while
  // somebody types.
  const sealed = await sealWith(key, await response.arrayBuffer());
  await keepCopy({ sealed, madeAt, fetchedAt: started, size: sealed.data.byteLength });
  // What was confirmed before it was asked for stands in it.
  await forgetSent(started);
  return true;
}

async function readCopy(): Promise<DeviceCopy | null> {
  const [key, copy] = [currentKey(), await keptCopy()];
  if (!key || !copy) return null;
  const packed = await openWith(key, copy.sealed).catch(() => null);
  if (!packed) return null;
  const text = await new Response(new Blob([packed]).stream().pipeThrough(new DecompressionStream('gzip'))).text();
  return JSON.parse(text) as DeviceCopy;
}

/** Ends what openDevice began: nothing of the copy stays in memory. */
let close: (() => void) | null = null;
export function closeDevice(): void {
  close?.();
  close = null;
  worker = null;
  opening = null;
  following = Promise.resolve();
}

/** What was opened longer ago, between two times with a server, is old. */
const OLD_ms = 30_000;
let used = 0;
/** For a page of the server that has just lost it: what is open from an earlier time is opened anew. */
export function openAfterLoss(): Promise<boolean> {
  if (Date.now() - used > OLD_ms) closeDevice();
  used = Date.now();
  return openDevice();
}

/**
 * Opens the device's rooms: its copy, then what was done since, in order. `false`: there is no copy, or it is
 * locked.
 */
export function openDevice(): Promise<boolean> {
  return (opening ??= openAnew().catch((error: unknown) => {
    opening = null;
    throw error;
  }));
}

async function openAnew(): Promise<boolean> {
  const copy = await readCopy();
  if (!copy) {
    opening = null;
    return false;
  }
  const thread = new Worker('/device/worker.js', { type: 'module' });
  const broken = new Promise<never>((_, fail) => {
    thread.addEventListener('error', (e) => fail(new Error(e.message || 'the device’s rooms do not start')));
  });
  worker = wrap<DeviceRooms>(thread);
  await Promise.race([worker.open(copy), broken]);
  await worker.read(currentReader());
  done = new Set();
  for (const item of [...(await readSent()), ...(await queuedItems())].toSorted(inOrder)) await doAgain(item);
  const follow = (id: string): void => {
    // What cannot be done here waits for the server all the same.
    following = following.then(() => doNew(id)).catch(() => undefined);
  };
  const stop = onOutbox((event) => {
    if (event.type === 'kept' && !done.has(event.id)) follow(event.id);
    // What was dropped is not taken back here one by one: the rooms are opened anew without it.
    if (event.type === 'dropped') closeDevice();
  });
  const others = new BroadcastChannel(KEPT_CHANNEL);
  others.onmessage = ({ data }: MessageEvent<string>) => follow(data);
  close = () => {
    stop();
    others.close();
    thread.terminate();
  };
  return true;
}

/** By when it was made, by this device's clock; at one moment as it was kept. */
const inOrder = (a: QueuedItem, b: QueuedItem): number => Date.parse(atOf(a)) - Date.parse(atOf(b)) || a.seq - b.seq;

async function doNew(id: string): Promise<void> {
  const item = (await queuedItems()).find((i) => idOf(i) === id);
  if (item) await doAgain(item);
}

async function doAgain(item: QueuedItem): Promise<void> {
  if (item.refused || done.has(idOf(item))) return;
  done.add(idOf(item));
  const { type, body } = contentOf(item);
  await worker?.request({
    method: 'POST',
    path: pathOf(item),
    type,
    body,
    by: byOf(item),
    ago_ms: Math.max(0, Date.now() - Date.parse(atOf(item))),
  });
}

/** What the page at this address shows; `null`: it is not on this device. */
export async function viewOnDevice(address: string): Promise<DeviceView | null> {
  if (!(await openDevice()) || !worker) return null;
  await following;
  return worker.view(address);
}

const asResponse = ({ status, type, body }: DeviceAnswer): Response =>
  new Response(status === 204 ? null : body, { status, headers: { 'content-type': type } });

/** Only the server has it. */
const NOT_HERE = 501;

/**
 * Answers a request on the device. A write that the device's own rooms have taken is kept on disk for the
 * server before it is answered. `null`: the device cannot do it.
 */
export async function answerOnDevice(request: Sending, by: string): Promise<Response | null> {
  if (!(await openDevice()) || !worker) return null;
  await following;
  if (request.body instanceof ArrayBuffer) request = { ...request, body: await shrinkPhoto(request.body) };
  const body = request.body instanceof ArrayBuffer ? request.body.slice(0) : request.body;
  const answer = await worker.request(
    body instanceof ArrayBuffer
      ? transfer({ ...request, body, by, ago_ms: 0 }, [body])
      : { ...request, body, by, ago_ms: 0 },
  );
  if (answer.status === NOT_HERE) return null;
  if (request.method === 'POST' && answer.status < 300) {
    const item = itemOf(request, by);
    done.add(idOf(item));
    await keep(item);
  }
  return asResponse(answer);
}

const UUID = /[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}/;
interface Body {
  readonly id?: unknown;
  readonly jobId?: unknown;
}

/** A request as the outbox keeps it. */
export function itemOf({ path, type, body }: Sending, by: string, at = new Date().toISOString()): OutboxItem {
  const url = new URL(path, 'http://here');
  const json = typeof body === 'string' ? (JSON.parse(body) as Body) : {};
  const id = typeof json.id === 'string' ? json.id : (url.searchParams.get('id') ?? v7());
  const jobId = url.pathname.startsWith('/api/jobs/')
    ? UUID.exec(url.pathname)?.[0]
    : url.pathname === '/api/jobs'
      ? id
      : typeof json.jobId === 'string'
        ? json.jobId
        : undefined;
  return {
    kind: 'request',
    id,
    by,
    at,
    path: `${url.pathname}${url.search}`,
    type,
    body: body ?? '',
    ...(jobId === undefined ? {} : { jobId }),
  };
}

/** A form's write that the server has taken: the copy does not hold it yet. */
export async function noteAccepted(request: Sending, by: string): Promise<void> {
  if (currentKey() && !request.path.startsWith('/api/session')) await noteSent(itemOf(request, by));
}

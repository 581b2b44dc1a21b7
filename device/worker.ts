/**
 * The server's rooms on a device: its commands and views over a PostgreSQL in the browser, filled with the
 * device's copy. It holds nothing of its own: whoever opens it lays in the copy and then does again, in
 * order, what still waits to be sent. See docs/decisions/0017.
 */
import { expose, transfer } from 'comlink';
import type { DeviceAnswer, DeviceRequest, DeviceRooms } from '../application/device-rooms';
import { readFor } from '../core/locale/locale';
import type { DeviceCopy } from '../formats/device-copy';
import { MADE_AGO_HEADER } from '../formats/waiting';
import { openDatabase, serverDb } from './connection';
import { layIn } from './database';
import { routeOf } from './routes';
import { viewAt } from './views';
import { PERSON_HEADER } from './who';

/** Files that were built beside the application. */
const FILES = '/device/';

async function open(copy: DeviceCopy): Promise<void> {
  const file = async (name: string): Promise<Response> => {
    const response = await fetch(`${FILES}${name}`);
    if (!response.ok) throw new Error(`${name} is not on this device`);
    return response;
  };
  const [pglite, initdb, bundle, database] = await Promise.all([
    file('pglite.wasm').then((r) => WebAssembly.compileStreaming(r)),
    file('initdb.wasm').then((r) => WebAssembly.compileStreaming(r)),
    file('pglite.data').then((r) => r.blob()),
    file('database.tar').then((r) => r.blob()),
  ]);
  const pg = await openDatabase({
    pgliteWasmModule: pglite,
    initdbWasmModule: initdb,
    fsBundle: bundle,
    loadDataDir: database,
  });
  await layIn(pg, copy);
}

let before: Promise<unknown> = Promise.resolve();
/** One after the other: a person does one thing at a time, and who asks is known for one request. */
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  const done = before.then(work, work);
  before = done.catch(() => undefined);
  return done;
}

async function answer(r: DeviceRequest): Promise<DeviceAnswer> {
  const url = new URL(r.path, 'http://device');
  const route = routeOf(r.method, url.pathname);
  if (!route) return { status: 501, type: 'application/json', body: new ArrayBuffer(0) };
  const request = new Request(url, {
    method: r.method,
    headers: {
      [PERSON_HEADER]: encodeURIComponent(r.by),
      ...(r.type === '' ? {} : { 'content-type': r.type }),
      ...(r.ago_ms > 0 ? { [MADE_AGO_HEADER]: String(r.ago_ms) } : {}),
    },
    ...(r.body === null ? {} : { body: r.body }),
  });
  const response = await route.handle(request, { params: Promise.resolve({ id: route.id }) });
  return {
    status: response.status,
    type: response.headers.get('content-type') ?? '',
    body: await response.arrayBuffer(),
  };
}

const device: DeviceRooms = {
  open: (copy) => inTurn(() => open(copy)),
  read: (reader) =>
    inTurn(() => {
      readFor(() => reader);
      return Promise.resolve();
    }),
  request: async (r) => {
    const a = await inTurn(() => answer(r));
    return transfer(a, [a.body]);
  },
  view: (address) => inTurn(() => viewAt(serverDb().db, address)),
};
expose(device);

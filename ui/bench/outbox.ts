import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { ProblemDetails } from '../../formats/problem';
import type { RecordCircumstance, RecordReading } from '../../formats/requests';
import { send } from '../kit/send';

/**
 * What the bench has accepted and the server has not confirmed yet, in IndexedDB, in the order in which it happened.
 * Written before anything is sent; taken out only when the server has answered. Ids are made here, so that
 * sending the same thing twice stores it once.
 */
export type OutboxItem = { readonly seq?: number; readonly runId: string; readonly refused?: ProblemDetails } & (
  | { readonly kind: 'reading'; readonly body: RecordReading }
  | { readonly kind: 'circumstance'; readonly body: RecordCircumstance }
);

interface Store extends DBSchema {
  outbox: { key: number; value: OutboxItem };
}

export type OutboxEvent =
  | { readonly type: 'kept' | 'stored'; readonly id: string }
  | { readonly type: 'refused'; readonly id: string; readonly problem: ProblemDetails }
  | { readonly type: 'reached' | 'unreachable' };

const RETRY_MS = [500, 1000, 2000, 4000, 8000] as const;
const listeners = new Set<(event: OutboxEvent) => void>();
const emit = (event: OutboxEvent): void => listeners.forEach((l) => l(event));

let opening: Promise<IDBPDatabase<Store>> | null = null;
const database = (): Promise<IDBPDatabase<Store>> =>
  (opening ??= openDB<Store>('mudflat', 1, {
    upgrade: (db) => void db.createObjectStore('outbox', { keyPath: 'seq', autoIncrement: true }),
  }));

export function onOutbox(listener: (event: OutboxEvent) => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Keeps an item durably, then sends in the background. Rejects when the browser keeps nothing. */
export async function keep(item: OutboxItem): Promise<void> {
  const db = await database();
  const tx = db.transaction('outbox', 'readwrite', { durability: 'strict' });
  await Promise.all([tx.store.add(item), tx.done]);
  emit({ type: 'kept', id: item.body.id });
  void flush();
}

/** Everything that is kept, oldest first. */
export const kept = async (): Promise<OutboxItem[]> => (await database()).getAll('outbox');

/** Takes a refused item out: the person has decided. */
export async function drop(id: string): Promise<void> {
  const db = await database();
  for (const item of await db.getAll('outbox'))
    if (item.body.id === id && item.seq !== undefined) await db.delete('outbox', item.seq);
}

let timer: ReturnType<typeof setTimeout> | null = null;
let failures = 0;

/** Sends all that waits, one after the other. One tab at a time does it. */
export async function flush(): Promise<void> {
  if (timer) clearTimeout(timer);
  timer = null;
  const again = await navigator.locks.request('mudflat-outbox', { ifAvailable: true }, async (lock) =>
    lock ? sendAll() : true,
  );
  if (!again) return;
  const delay = RETRY_MS[Math.min(failures, RETRY_MS.length - 1)];
  timer ??= setTimeout(() => void flush(), delay);
}

/** True where something still waits. */
async function sendAll(): Promise<boolean> {
  const db = await database();
  for (;;) {
    const next = (await db.getAll('outbox')).find((i) => !i.refused);
    if (!next) return false;
    if (!(await sendOne(db, next))) {
      failures++;
      emit({ type: 'unreachable' });
      return true;
    }
    failures = 0;
    emit({ type: 'reached' });
  }
}

async function sendOne(db: IDBPDatabase<Store>, item: OutboxItem): Promise<boolean> {
  const sent = await send(
    `/api/runs/${item.runId}/${item.kind === 'reading' ? 'readings' : 'circumstances'}`,
    item.body,
  );
  const { id } = item.body;
  if (sent.ok) {
    await db.delete('outbox', item.seq as number);
    emit({ type: 'stored', id });
    return true;
  }
  // Signed out: it waits until its person is signed in here again.
  if (sent.error.kind !== 'refused') return false;
  await db.put('outbox', { ...item, refused: sent.error.problem });
  emit({ type: 'refused', id, problem: sent.error.problem });
  return true;
}

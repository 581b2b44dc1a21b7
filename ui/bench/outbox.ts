import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { groupBy } from '../../core/foundation/collections';
import type { ProblemDetails } from '../../formats/problem';
import { send } from '../kit/send';
import type { RecordCircumstance, RecordReading } from '../../formats/requests/runs';

/**
 * What the bench has accepted and the server has not confirmed yet, in IndexedDB, in the order in which it
 * happened. Written before anything is sent; taken out only when the server has answered. Ids are made here,
 * so that sending the same thing twice stores it once.
 *
 * It is sent in lanes, one for each person and run: within a lane one after the other, since a correction
 * needs what it corrects. A lane that cannot go on waits for itself, longer each time, and holds up no other.
 */
export type OutboxItem = { readonly seq?: number; readonly runId: string; readonly refused?: ProblemDetails } & (
  | { readonly kind: 'reading'; readonly body: RecordReading }
  | { readonly kind: 'circumstance'; readonly body: RecordCircumstance }
);

interface Store extends DBSchema {
  outbox: { key: number; value: OutboxItem };
}
/** As it comes out of the store, which numbers what it keeps. */
type Kept = OutboxItem & { readonly seq: number };

/** What keeps a lane from going on. */
export type Trouble =
  { readonly kind: 'unreachable' } | { readonly kind: 'signed-out' | 'failing'; readonly message: string };

/** Entries of one person in one run that cannot go now. */
export interface WaitingLane {
  readonly by: string;
  readonly runId: string;
  readonly entries: number;
  /** When the oldest of them was made, ISO 8601. */
  readonly since: string;
  readonly trouble: Trouble;
}

export type OutboxEvent =
  | { readonly type: 'kept' | 'stored'; readonly id: string }
  | { readonly type: 'refused'; readonly id: string; readonly problem: ProblemDetails }
  | { readonly type: 'reached' | 'unreachable' }
  | { readonly type: 'waiting'; readonly lanes: readonly WaitingLane[] };

const RETRY_MS = [500, 1000, 2000, 4000, 8000] as const;
/** A lane whose person is not signed in, or which the server fails at, is tried less and less often. */
const MOST_RETRY_MS = 60_000;
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

/** All that waits, as a file that can be kept elsewhere when a device must be given up. */
export async function exportWaiting(): Promise<string> {
  const items = await kept();
  return JSON.stringify({ format: 'mudflat/waiting', version: 1, items }, null, 2);
}

/** The longest reason that the server takes. */
const LONGEST_WHY = 500;

/**
 * What waits of somebody who cannot sign in here any more is sent by another person, who answers for it; each reading says
 * who has typed it.
 */
export async function takeOver(by: string, runId: string, to: string): Promise<void> {
  const db = await database();
  const tx = db.transaction('outbox', 'readwrite', { durability: 'strict' });
  for (const item of await tx.store.getAll()) {
    if (item.body.by !== by || item.runId !== runId || item.refused) continue;
    await tx.store.put(
      item.kind === 'circumstance'
        ? { ...item, body: { ...item.body, by: to } }
        : {
            ...item,
            body: {
              ...item.body,
              by: to,
              why: [item.body.why, `typed by ${by}`].filter(Boolean).join('; ').slice(0, LONGEST_WHY),
            },
          },
    );
  }
  await tx.done;
  await flush(true);
}

interface LaneState {
  readonly failures: number;
  /** Not before, milliseconds of the clock. */
  readonly next: number;
  readonly trouble: Trouble;
}
const troubled = new Map<string, LaneState>();
const laneOf = (item: OutboxItem): string => `${item.body.by}|${item.runId}`;

let timer: ReturnType<typeof setTimeout> | null = null;

/** Sends all that may go now. `anew`: lanes that wait for their next try are tried at once. */
export async function flush(anew = false): Promise<void> {
  if (timer) clearTimeout(timer);
  timer = null;
  if (anew) troubled.clear();
  const next = await alone(sendAll);
  if (next !== null) timer ??= setTimeout(() => void flush(), Math.max(0, next - Date.now()));
}

let sending = false;

/**
 * One tab at a time sends; where the browser cannot tell tabs apart, this page does, and the server stores
 * nothing twice.
 */
async function alone(work: () => Promise<number | null>): Promise<number | null> {
  const later = (): number => Date.now() + RETRY_MS[0];
  // Outside a secure context there are no locks between tabs.
  if ('locks' in navigator)
    return navigator.locks.request('mudflat-outbox', { ifAvailable: true }, (lock) =>
      lock ? work() : Promise.resolve(later()),
    );
  if (sending) return later();
  sending = true;
  try {
    return await work();
  } finally {
    sending = false;
  }
}

/** When to come back; `null` where nothing waits any more. */
async function sendAll(): Promise<number | null> {
  const db = await database();
  for (;;) {
    const lanes = await lanesOf(db);
    const ready = [...lanes].filter(([key]) => (troubled.get(key)?.next ?? 0) <= Date.now());
    if (ready.length === 0) {
      for (const key of troubled.keys()) if (!lanes.has(key)) troubled.delete(key);
      emit({ type: 'waiting', lanes: waitingLanes(lanes) });
      return lanes.size ? Math.min(...[...lanes.keys()].map((key) => troubled.get(key)?.next ?? 0)) : null;
    }
    await Promise.all(ready.map(([key, items]) => sendLane(db, key, items)));
  }
}

/**
 * What is to be sent, by lane, oldest first. What the server refused waits for its person and holds up
 * nothing.
 */
async function lanesOf(db: IDBPDatabase<Store>): Promise<Map<string, Kept[]>> {
  const items = await db.getAll('outbox');
  return groupBy(
    items.filter((i): i is Kept => i.seq !== undefined && !i.refused),
    laneOf,
  );
}

async function sendLane(db: IDBPDatabase<Store>, key: string, items: readonly Kept[]): Promise<void> {
  for (const item of items) {
    const trouble = await sendOne(db, item);
    if (trouble?.kind !== 'unreachable') emit({ type: 'reached' });
    if (trouble) {
      const failures = (troubled.get(key)?.failures ?? 0) + 1;
      troubled.set(key, { failures, next: Date.now() + pause_ms(failures, trouble), trouble });
      if (trouble.kind === 'unreachable') emit({ type: 'unreachable' });
      return;
    }
    troubled.delete(key);
  }
}

function pause_ms(failures: number, trouble: Trouble): number {
  const quick = RETRY_MS[Math.min(failures, RETRY_MS.length) - 1] ?? MOST_RETRY_MS;
  const last = RETRY_MS[RETRY_MS.length - 1] ?? MOST_RETRY_MS;
  const beyond = trouble.kind === 'unreachable' ? 0 : Math.max(0, failures - RETRY_MS.length);
  return Math.min(MOST_RETRY_MS, beyond ? last * 2 ** beyond : quick);
}

const waitingLanes = (lanes: ReadonlyMap<string, readonly Kept[]>): WaitingLane[] =>
  [...lanes].flatMap(([key, items]) => {
    const [state, first] = [troubled.get(key), items[0]];
    if (!state || !first) return [];
    const since = first.kind === 'reading' ? first.body.takenAt : first.body.recordedAt;
    return [{ by: first.body.by, runId: first.runId, entries: items.length, since, trouble: state.trouble }];
  });

/** `null` where the server has taken or refused it. */
async function sendOne(db: IDBPDatabase<Store>, item: Kept): Promise<Trouble | null> {
  const sent = await send(
    `/api/runs/${item.runId}/${item.kind === 'reading' ? 'readings' : 'circumstances'}`,
    item.body,
  );
  const { id } = item.body;
  if (sent.ok) {
    await db.delete('outbox', item.seq);
    emit({ type: 'stored', id });
    return null;
  }
  if (sent.error.kind !== 'refused') return sent.error;
  await db.put('outbox', { ...item, refused: sent.error.problem });
  emit({ type: 'refused', id, problem: sent.error.problem });
  return null;
}

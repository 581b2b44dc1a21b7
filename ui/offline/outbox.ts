import { tr } from '../../core/locale/translate';
import type { ProblemDetails } from '../../formats/problem';
import { MADE_AGO_HEADER, MADE_BY_HEADER } from '../../formats/waiting';
import { sendBody } from '../kit/send';
import { VERDICT_FIRST_ms } from '../kit/verdict-first';
import {
  atOf,
  byOf,
  contentOf,
  idOf,
  type QueuedItem,
  laneOf,
  type OutboxItem,
  type Packed,
  pathOf,
  readyLanes,
  unpacked,
} from './items';
import * as store from './outbox-store';

export type { OutboxItem } from './items';

/**
 * What this browser has accepted and the server has not confirmed yet, in IndexedDB, in the order in which it
 * happened. Written before anything is sent; taken out only when the server has answered. Ids are made here,
 * so that sending the same thing twice stores it once.
 *
 * It is sent in lanes, one for each person and run or job: within a lane one after the other, since a
 * correction needs what it corrects; across lanes what another item names goes before it. A lane that cannot
 * go on waits for itself, longer each time, and holds up no other.
 */

/** What keeps a lane from going on. */
export type Trouble =
  { readonly kind: 'unreachable' } | { readonly kind: 'signed-out' | 'failing' | 'locked'; readonly message: string };

/** Entries of one person in one run or job that cannot go now. */
export interface WaitingLane {
  readonly lane: string;
  readonly by: string;
  readonly entries: number;
  /** When the oldest of them was made, ISO 8601. */
  readonly since: string;
  readonly trouble: Trouble;
}

export type OutboxEvent =
  | { readonly type: 'kept' | 'stored' | 'dropped'; readonly id: string }
  | { readonly type: 'refused'; readonly id: string; readonly problem: ProblemDetails }
  | { readonly type: 'reached' | 'unreachable' | 'unlocked' }
  | { readonly type: 'waiting'; readonly lanes: readonly WaitingLane[] };

const RETRY_MS = [500, 1000, 2000, 4000, 8000] as const;
/** A lane whose person is not signed in, or which the server fails at, is tried less and less often. */
const MOST_RETRY_MS = 60_000;
/** A photo over a thin network. */
const LARGE_TIMEOUT_ms = 120_000;
const TIMEOUT_ms = 10_000;
const listeners = new Set<(event: OutboxEvent) => void>();
const emit = (event: OutboxEvent): void => listeners.forEach((l) => l(event));

export function onOutbox(listener: (event: OutboxEvent) => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Other tabs of this browser, which have rooms of their own, hear what was kept here. */
export const KEPT_CHANNEL = 'mudflat-kept';
const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel(KEPT_CHANNEL);

/** Keeps an item durably, then sends in the background. Rejects when the browser keeps nothing. */
export async function keep(item: OutboxItem): Promise<void> {
  await store.add(item);
  emit({ type: 'kept', id: idOf(item) });
  // It is safe now: telling others of it can wait until the verdict is painted.
  setTimeout(() => {
    channel?.postMessage(idOf(item));
    void flush();
  }, VERDICT_FIRST_ms);
}

/** What another device has saved, in its order, as what this person answers for. */
export async function keepAll(items: readonly Packed[], to: string): Promise<void> {
  for (const item of items) {
    const own = inNameOf(freshFrom(unpacked(item)), to);
    await store.add(own);
    emit({ type: 'kept', id: idOf(own) });
  }
  void flush(true);
}

/** As it was before it was numbered, or refused. */
function freshFrom(item: OutboxItem): OutboxItem {
  const fresh = { ...item };
  Reflect.deleteProperty(fresh, 'seq');
  Reflect.deleteProperty(fresh, 'refused');
  return fresh;
}

/** The key of this device is there: what was locked can be read, and sent. */
export async function unlocked(): Promise<void> {
  emit({ type: 'unlocked' });
  await flush(true);
}

/** Everything that is kept, oldest first; what is locked is not among it. */
export const queuedItems = async (): Promise<readonly QueuedItem[]> => (await store.readAll()).items;

/** Takes a refused item out: the person has decided. */
export async function drop(id: string): Promise<void> {
  for (const item of await queuedItems()) if (idOf(item) === id) await store.remove(item.seq);
  emit({ type: 'dropped', id });
  void flush();
}

/** What was refused is sent again, as the person has changed it. */
export async function sendAgain(item: QueuedItem): Promise<void> {
  await store.replace({ ...freshFrom(item), seq: item.seq });
  await flush(true);
}

/** The longest reason that the server takes. */
const LONGEST_WHY = 500;

/**
 * What waits of somebody who cannot sign in here any more is sent by another person, who answers for it; each
 * reading says who has typed it.
 */
export async function takeOver(lane: string, to: string): Promise<void> {
  for (const item of await queuedItems())
    if (laneOf(item) === lane && !item.refused) await store.replace({ ...inNameOf(item, to), seq: item.seq });
  await flush(true);
}

function inNameOf(item: OutboxItem, to: string): OutboxItem {
  const why = tr`typed by ${byOf(item)}`;
  if (item.kind === 'circumstance') return { ...item, body: { ...item.body, by: to } };
  if (item.kind === 'reading')
    return {
      ...item,
      body: { ...item.body, by: to, why: [item.body.why, why].filter(Boolean).join('; ').slice(0, LONGEST_WHY) },
    };
  return { ...item, by: to, body: typeof item.body === 'string' ? withBy(item.body, to) : item.body };
}

function withBy(json: string, by: string): string {
  const body = JSON.parse(json) as Record<string, unknown>;
  return 'by' in body ? JSON.stringify({ ...body, by }) : json;
}

interface LaneState {
  readonly failures: number;
  /** Not before, milliseconds of the clock. */
  readonly next: number;
  readonly trouble: Trouble;
}
const troubled = new Map<string, LaneState>();

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
  for (;;) {
    const { items, locked } = await store.readAll();
    const lanes = readyLanes(items);
    const ready = [...lanes].filter(([key]) => (troubled.get(key)?.next ?? 0) <= Date.now());
    if (ready.length === 0) {
      for (const key of troubled.keys()) if (!lanes.has(key)) troubled.delete(key);
      emit({ type: 'waiting', lanes: [...waitingLanes(lanes, items), ...lockedLanes(locked)] });
      return lanes.size ? Math.min(...[...lanes.keys()].map((key) => troubled.get(key)?.next ?? 0)) : null;
    }
    await Promise.all(ready.map(([key, own]) => sendLane(key, own)));
  }
}

async function sendLane(key: string, items: readonly QueuedItem[]): Promise<void> {
  for (const item of items) {
    const trouble = await sendOne(item);
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

/** A lane counts what can go and what waits behind it. */
const waitingLanes = (lanes: ReadonlyMap<string, readonly QueuedItem[]>, all: readonly QueuedItem[]): WaitingLane[] =>
  [...lanes].flatMap(([lane, items]) => {
    const [state, first] = [troubled.get(lane), items[0]];
    if (!state || !first) return [];
    const entries = all.filter((i) => !i.refused && laneOf(i) === lane).length;
    return [{ lane, by: byOf(first), entries, since: atOf(first), trouble: state.trouble }];
  });

const lockedLanes = (locked: readonly store.SealedItem[]): WaitingLane[] =>
  locked[0]
    ? [
        {
          lane: 'locked',
          by: [...new Set(locked.map((l) => l.by))].join(', '),
          entries: locked.length,
          since: locked[0].at,
          trouble: { kind: 'locked', message: 'they are encrypted: sign in, or unlock this device with a PIN.' },
        },
      ]
    : [];

/** `null` where the server has taken or refused it. */
async function sendOne(item: QueuedItem): Promise<Trouble | null> {
  const { type, body } = contentOf(item);
  const ago_ms = Date.now() - Date.parse(atOf(item));
  const timeout_ms = typeof body === 'string' ? TIMEOUT_ms : LARGE_TIMEOUT_ms;
  // A reading says itself when and by whom it was taken.
  const headers: Record<string, string> =
    item.kind === 'request'
      ? { [MADE_BY_HEADER]: encodeURIComponent(item.by), [MADE_AGO_HEADER]: String(Math.max(0, ago_ms)) }
      : {};
  const sent = await sendBody(pathOf(item), body, type, timeout_ms, headers);
  const id = idOf(item);
  if (sent.ok) {
    await store.confirm(item, true);
    emit({ type: 'stored', id });
    return null;
  }
  if (sent.error.kind !== 'refused') return sent.error;
  await store.replace({ ...item, refused: sent.error.problem });
  emit({ type: 'refused', id, problem: sent.error.problem });
  return null;
}

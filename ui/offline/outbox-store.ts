import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { atOf, byOf, idOf, type QueuedItem, type OutboxItem, type Packed, packed, unpacked } from './items';
import { currentKey, openWith, type Sealed, sealWith } from './seal';

/** An item whose content is encrypted: who made it and when can be told without the key. */
export interface SealedItem {
  readonly seq?: number;
  readonly sealed: Sealed;
  readonly id: string;
  readonly by: string;
  readonly at: string;
}
type Row = OutboxItem | SealedItem;
/** What the server has confirmed, until the device's copy holds it too. */
type SentRow = Row & { readonly sentAt: number };

interface Store extends DBSchema {
  outbox: { key: number; value: Row };
  sent: { key: number; value: SentRow };
}

let opening: Promise<IDBPDatabase<Store>> | null = null;
const database = (): Promise<IDBPDatabase<Store>> =>
  (opening ??= openDB<Store>('mudflat', 2, {
    upgrade: (db, before) => {
      if (before < 1) db.createObjectStore('outbox', { keyPath: 'seq', autoIncrement: true });
      if (before < 2) db.createObjectStore('sent', { keyPath: 'seq' });
    },
    // Another tab has a newer version: this one lets go.
    blocking: () => {
      void opening?.then((db) => db.close());
      opening = null;
    },
  }));

const isSealed = (row: Row): row is SealedItem => 'sealed' in row;

async function sealed(item: OutboxItem): Promise<Row> {
  const key = currentKey();
  if (!key) return item;
  const { seq, ...content } = item;
  const plain = new TextEncoder().encode(JSON.stringify(packed(content)));
  return {
    ...(seq === undefined ? {} : { seq }),
    sealed: await sealWith(key, plain),
    id: idOf(item),
    by: byOf(item),
    at: atOf(item),
  };
}

async function opened(row: Row): Promise<OutboxItem | null> {
  if (!isSealed(row)) return row;
  const key = currentKey();
  if (!key) return null;
  const plain = await openWith(key, row.sealed).catch(() => null);
  if (!plain) return null;
  const item = unpacked(JSON.parse(new TextDecoder().decode(plain)) as Packed);
  return row.seq === undefined ? item : { ...item, seq: row.seq };
}

/** Keeps it on disk before it answers. */
export async function add(item: OutboxItem): Promise<void> {
  const row = await sealed(item);
  const tx = (await database()).transaction('outbox', 'readwrite', { durability: 'strict' });
  await Promise.all([tx.store.add(row), tx.done]);
}

export interface Waits {
  readonly items: readonly QueuedItem[];
  /** What cannot be read without the key. */
  readonly locked: readonly SealedItem[];
  readonly allSealed: boolean;
}

export async function readAll(): Promise<Waits> {
  const rows = await (await database()).getAll('outbox');
  const items: QueuedItem[] = [];
  const locked: SealedItem[] = [];
  for (const row of rows) {
    const item = await opened(row);
    if (item?.seq !== undefined) items.push(item as QueuedItem);
    else if (isSealed(row)) locked.push(row);
  }
  return { items, locked, allSealed: rows.length > 0 && rows.every(isSealed) };
}

export async function replace(item: QueuedItem): Promise<void> {
  await (await database()).put('outbox', await sealed(item));
}

export async function remove(seq: number): Promise<void> {
  await (await database()).delete('outbox', seq);
}

/** Confirmed: out of the queue, and noted until the copy of the device holds it. */
export async function confirm(item: QueuedItem, noteIt: boolean): Promise<void> {
  const row = noteIt ? await sealed(item) : null;
  const tx = (await database()).transaction(['outbox', 'sent'], 'readwrite');
  await Promise.all([
    tx.objectStore('outbox').delete(item.seq),
    row ? tx.objectStore('sent').put({ ...row, seq: item.seq, sentAt: Date.now() }) : null,
    tx.done,
  ]);
}

let noted = 0;
/** A write that went to the server at once. */
export async function noteSent(item: OutboxItem): Promise<void> {
  // Beside the queue's numbers, which count up from 1.
  const seq = -(Date.now() * 1000 + (noted++ % 1000));
  await (await database()).put('sent', { ...(await sealed(item)), seq, sentAt: Date.now() });
}

/** What was confirmed and may be missing in the copy, in its order. */
export async function readSent(): Promise<readonly QueuedItem[]> {
  const rows = await (await database()).getAll('sent');
  const items = await Promise.all(rows.map(opened));
  return items.filter((i): i is QueuedItem => i?.seq !== undefined);
}

/** A copy of this moment holds what was sent before it. */
export async function forgetSent(before: number): Promise<void> {
  const db = await database();
  for (const row of await db.getAll('sent'))
    if (row.sentAt < before && row.seq !== undefined) await db.delete('sent', row.seq);
}

/** The rows as they lie here: the server can open what is sealed. */
export async function rawRows(): Promise<readonly unknown[]> {
  return (await database()).getAll('outbox');
}

export async function wipe(): Promise<void> {
  const db = await database();
  await Promise.all([db.clear('outbox'), db.clear('sent')]);
}

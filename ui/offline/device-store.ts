import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { Role } from '../../core/foundation/vocabulary';
import type { Sealed } from './seal';

/** Who may unlock this device: the key, wrapped by their PIN. */
export interface KnownPerson {
  readonly name: string;
  readonly role: Role;
  readonly depotId: string | null;
  readonly salt: Uint8Array<ArrayBuffer>;
  readonly wrapped: Sealed;
}

/** The device's copy: gzip of its JSON, encrypted. */
export interface KeptCopy {
  readonly sealed: Sealed;
  /** As of when, ISO 8601, by the server's clock. */
  readonly madeAt: string;
  /** When it was fetched, by this device's clock, milliseconds since 1970. */
  readonly fetchedAt: number;
  /** Bytes as they lie here. */
  readonly size: number;
}

interface Store extends DBSchema {
  people: { key: string; value: KnownPerson };
  copy: { key: string; value: KeptCopy };
  facts: { key: string; value: string | number };
}

let opening: Promise<IDBPDatabase<Store>> | null = null;
const database = (): Promise<IDBPDatabase<Store>> =>
  (opening ??= openDB<Store>('mudflat-device', 1, {
    upgrade: (db) => {
      db.createObjectStore('people', { keyPath: 'name' });
      db.createObjectStore('copy');
      db.createObjectStore('facts');
    },
  }));

const THE_COPY = 'copy';
const WRONG = 'wrong tries';
const NAME = 'device';

export const people = async (): Promise<KnownPerson[]> => (await database()).getAll('people');
export async function rememberPerson(p: KnownPerson): Promise<void> {
  await (await database()).put('people', p);
}
export const keptCopy = async (): Promise<KeptCopy | undefined> => (await database()).get('copy', THE_COPY);
export async function keepCopy(c: KeptCopy): Promise<void> {
  await (await database()).put('copy', c, THE_COPY);
}

export const wrongTries = async (): Promise<number> => Number((await (await database()).get('facts', WRONG)) ?? 0);
export async function setWrongTries(n: number): Promise<void> {
  await (await database()).put('facts', n, WRONG);
}

const TICKET = 'ticket';
/** By which this device proves its name to the server, whatever becomes of its cookies. */
export const deviceTicket = async (): Promise<string> => String((await (await database()).get('facts', TICKET)) ?? '');
export async function setDeviceTicket(t: string): Promise<void> {
  await (await database()).put('facts', t, TICKET);
}

/** The server's name for this device: with it the server can open what was saved here. */
export const deviceName = async (): Promise<string> => String((await (await database()).get('facts', NAME)) ?? '');
export async function setDeviceName(n: string): Promise<void> {
  await (await database()).put('facts', n, NAME);
}

const BENCH = 'at the bench';
/** Who was at the bench of this device last. */
export const personAtBench = async (): Promise<string> => String((await (await database()).get('facts', BENCH)) ?? '');
export async function setPersonAtBench(n: string): Promise<void> {
  await (await database()).put('facts', n, BENCH);
}

/** Nothing of it is left. */
export async function wipeDevice(): Promise<void> {
  const db = await database();
  await Promise.all([db.clear('people'), db.clear('copy'), db.clear('facts')]);
}

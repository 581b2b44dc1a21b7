import { tr } from '../../core/locale/translate';
import { groupBy } from '../../core/foundation/collections';
import type { ProblemDetails } from '../../formats/problem';
import type { RecordCircumstance, RecordReading } from '../../formats/requests/runs';

/**
 * What this browser has accepted and the server has not confirmed. A request is kept as it is sent: its id
 * was made here, so that sending it twice stores it once.
 */
export type OutboxItem = { readonly seq?: number; readonly refused?: ProblemDetails } & (
  | { readonly kind: 'reading'; readonly runId: string; readonly jobId?: string; readonly body: RecordReading }
  | {
      readonly kind: 'circumstance';
      readonly runId: string;
      readonly jobId?: string;
      readonly body: RecordCircumstance;
    }
  | RequestItem
);

/** Any other write that was made without the server. */
export interface RequestItem {
  readonly kind: 'request';
  readonly id: string;
  readonly by: string;
  /** When it was made, ISO 8601, by the clock of this device. */
  readonly at: string;
  /** Path with its query. */
  readonly path: string;
  readonly type: string;
  readonly body: string | ArrayBuffer;
  /** The job that it is about, where it is about one. */
  readonly jobId?: string;
}

/** As it comes out of the store, which numbers what it keeps. */
export type QueuedItem = OutboxItem & { readonly seq: number };

export const idOf = (item: OutboxItem): string => (item.kind === 'request' ? item.id : item.body.id);
export const byOf = (item: OutboxItem): string => (item.kind === 'request' ? item.by : item.body.by);

/** When it was made, ISO 8601. */
export function atOf(item: OutboxItem): string {
  if (item.kind === 'request') return item.at;
  return item.kind === 'reading' ? item.body.takenAt : item.body.recordedAt;
}

export function pathOf(item: OutboxItem): string {
  if (item.kind === 'request') return item.path;
  return `/api/runs/${item.runId}/${item.kind === 'reading' ? 'readings' : 'circumstances'}`;
}

/** What is sent, and as what. */
export function contentOf(item: OutboxItem): { readonly type: string; readonly body: string | ArrayBuffer } {
  return item.kind === 'request'
    ? { type: item.type, body: item.body }
    : { type: 'application/json', body: JSON.stringify(item.body) };
}

/** What is sent one after the other: of one person, in one run or in one job. */
export const laneOf = (item: OutboxItem): string =>
  `${byOf(item)}|${item.kind === 'request' ? (item.jobId ?? 'none') : item.runId}`;

/** All words of a request that can be an id. */
function namedIn(item: OutboxItem): ReadonlySet<string> {
  const { body } = contentOf(item);
  return new Set(`${pathOf(item)} ${typeof body === 'string' ? body : ''}`.split(/["/?&= ]/));
}

/**
 * Items that another one needs: those before it whose id it names (a reading needs its run, a run its job),
 * and what the same person did before it in the same job.
 */
export function neededBy(item: QueuedItem, all: readonly QueuedItem[]): readonly QueuedItem[] {
  const named = namedIn(item);
  return all.filter(
    (before) =>
      before.seq < item.seq &&
      (named.has(idOf(before)) ||
        (item.kind === 'request' &&
          item.jobId !== undefined &&
          before.jobId === item.jobId &&
          byOf(before) === byOf(item) &&
          !before.refused)),
  );
}

/**
 * By lane, oldest first, what can be sent now: nothing that was refused, and nothing behind what it needs
 * from another lane.
 */
export function readyLanes(all: readonly QueuedItem[]): Map<string, readonly QueuedItem[]> {
  const lanes = groupBy(
    all.filter((i) => !i.refused),
    laneOf,
  );
  return new Map(
    [...lanes].flatMap(([key, items]) => {
      const blocked = items.findIndex((i) => neededBy(i, all).some((b) => b.refused || laneOf(b) !== key));
      const free = blocked < 0 ? items : items.slice(0, blocked);
      return free.length ? [[key, free] as const] : [];
    }),
  );
}

/** In words, for whoever looks at what waits. */
export function wordsOf(item: OutboxItem): string {
  if (item.kind === 'reading') return tr`reading ${item.body.entry} at ${item.body.position}`;
  if (item.kind === 'circumstance') return 'what was true at the bench';
  const { pathname } = new URL(item.path, 'http://here');
  const what = WORDS.find(([pattern]) => pattern.test(pathname));
  return what?.[1] ?? 'entry';
}

const WORDS: readonly (readonly [RegExp, string])[] = [
  [/^\/api\/jobs$/, 'new job'],
  [/^\/api\/runs$/, 'test begun'],
  [/^\/api\/units$/, 'new unit'],
  [/\/photos$/, 'photo'],
  [/\/evidence$/, 'something seen'],
  [/\/take-back$/, 'entry taken back'],
  [/\/codes$/, 'codes'],
  [/\/findings$/, 'finding'],
  [/\/intake$/, 'intake'],
  [/\/notes$/, 'note'],
  [/\/plan$/, 'change of the plan'],
  [/\/records$/, 'step of the repair'],
  [/\/override$/, 'safety override'],
  [/\/parts$/, 'fitted parts'],
  [/^\/api\/test-leads$/, 'zero of test leads'],
];

/** Bytes as text, so that an item is one JSON text. */
export type Packed = Record<string, unknown> & { readonly bytes?: string };
export function packed(item: object): Packed {
  const { body, ...rest } = item as { body?: unknown };
  if (!(body instanceof ArrayBuffer)) return item as Packed;
  let text = '';
  for (const byte of new Uint8Array(body)) text += String.fromCharCode(byte);
  return { ...rest, bytes: btoa(text) };
}
export function unpacked({ bytes, ...rest }: Packed): OutboxItem {
  const body = bytes === undefined ? undefined : Uint8Array.from(atob(bytes), (c) => c.charCodeAt(0)).buffer;
  return { ...rest, ...(body ? { body } : {}) } as unknown as OutboxItem;
}

'use client';
import { fixed } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import { Download } from 'lucide-react';
import { Link } from '../kit/link';
import { useEffect, useState } from 'react';
import { shownTime } from '../../application/report/time';
import type { ReadingView, RunView } from '../../application/views';
import { currentReadings } from '../../application/judging/corrections';
import { Button } from '../kit/button';
import { TopBar } from '../kit/top-bar';
import { atOf, byOf, contentOf, idOf, type QueuedItem, neededBy, wordsOf } from './items';
import { OpenFile } from './open-file';
import { drop, flush, onOutbox, sendAgain } from './outbox';
import { readAll, type Waits } from './outbox-store';
import { useLittleRoom } from './room';
import { saveQueue } from './save-queue';

const zone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

/**
 * What this device has written down and the server has not: how old, how large, and what the server would not
 * take.
 */
export function WhatWaits() {
  const [{ items, locked, allSealed }, setRows] = useState<Waits>({ items: [], locked: [], allSealed: false });
  useEffect(() => {
    const look = (): void => void readAll().then(setRows);
    look();
    return onOutbox(look);
  }, []);
  const left = useLittleRoom();
  const refused = items.filter((i) => i.refused);
  const waiting = items.filter((i) => !i.refused);
  return (
    <>
      <TopBar>
        <h1 className="text-lg font-bold text-ink">What waits</h1>
      </TopBar>
      <main className="mx-auto flex w-full max-w-4xl flex-1 flex-col gap-4 p-4">
        <InShort items={items} locked={locked} allSealed={allSealed} />
        {left !== null && (
          <p role="alert" className="rounded-xl border-2 border-rust bg-card p-4 font-semibold">
            This device is nearly full: {Math.round(left / 1e6)} MB are left. Bring it to the server, or make room on
            it, before more photos are taken.
          </p>
        )}
        {refused.length > 0 && (
          <section className="rounded-xl border-2 border-rust bg-card p-4" aria-label="Not taken">
            <h2 className="mb-2 text-lg font-bold">
              The server would not take {refused.length === 1 ? 'this' : 'these'}
            </h2>
            <ul className="flex flex-col gap-3">
              {refused.map((i) => (
                <li key={i.seq}>
                  <Refused item={i} behind={items.filter((x) => neededBy(x, items).includes(i)).length} />
                </li>
              ))}
            </ul>
          </section>
        )}
        {waiting.length > 0 && (
          <section className="rounded-xl bg-card p-4" aria-label="On its way">
            <h2 className="mb-2 text-lg font-bold">On its way</h2>
            <ol className="divide-y divide-line">
              {waiting.map((i) => (
                <li key={i.seq} className="flex min-h-11 flex-wrap items-center gap-x-3 py-1">
                  <span className="flex-1 font-semibold">{wordsOf(i)}</span>
                  <span className="text-soft">
                    {byOf(i)}, {shownTime(atOf(i), zone())}, {sizeWords(sizeOf(i))}
                  </span>
                </li>
              ))}
            </ol>
          </section>
        )}
        <OpenFile />
      </main>
    </>
  );
}

/** How much waits, since when, and what can be done about it. */
function InShort({ items, locked, allSealed }: Waits) {
  const size = items.reduce((sum, i) => sum + sizeOf(i), 0);
  return (
    <section className="flex flex-wrap items-center gap-3 rounded-xl bg-card p-4" aria-label="In short">
      <p className="flex-1">
        {items.length + locked.length === 0 ? (
          'Nothing waits on this device: the server has all of it.'
        ) : (
          <>
            <b>{items.length + locked.length}</b> {items.length + locked.length === 1 ? 'entry' : 'entries'},{' '}
            {sizeWords(size)}
            {items[0] ? tr`, the oldest of ${shownTime(atOf(items[0]), zone())}` : ''}.{' '}
            {allSealed ? 'They lie encrypted on this device' : 'They lie on this device'} and go to the server in their
            order.
          </>
        )}
        {locked.length > 0 &&
          tr` ${locked.length} can be read only after somebody has signed in or unlocked this device.`}
      </p>
      {items.length + locked.length > 0 && (
        <>
          <Button onClick={() => void flush(true)}>Try again now</Button>
          <Button onClick={() => void saveQueue()}>
            <Download size={18} aria-hidden="true" /> Save as a file for a lead
          </Button>
        </>
      )}
    </section>
  );
}

function sizeOf(item: QueuedItem): number {
  const { body } = contentOf(item);
  return typeof body === 'string' ? body.length : body.byteLength;
}
const sizeWords = (bytes: number): string =>
  bytes < 1000
    ? tr`${bytes} bytes`
    : bytes < 1e6
      ? tr`${Math.round(bytes / 1000)} kB`
      : tr`${fixed(bytes / 1e6, 1)} MB`;

/** What was refused, beside what stands there. Nothing is thrown away before the person has decided. */
function Refused({ item, behind }: { item: QueuedItem; behind: number }) {
  const there = useTheirs(item);
  const theirs = there?.reading ?? null;
  const why = item.refused?.errors[0]?.message ?? item.refused?.title ?? '';
  return (
    <div className="grid gap-2 rounded-lg border border-line p-3 sm:grid-cols-2">
      {there && (
        <Link href={`/runs/${there.run.id}`} className="font-semibold underline sm:col-span-2">
          {there.run.unit.fleetNumber}, {there.run.definition.name}
        </Link>
      )}
      <div>
        <h3 className="font-semibold">Mine</h3>
        <p>{wordsOf(item)}</p>
        <p className="text-soft">
          {byOf(item)}, {shownTime(atOf(item), zone())}
        </p>
      </div>
      <div>
        <h3 className="font-semibold">{theirs ? 'There' : 'What the server says'}</h3>
        {theirs && (
          <>
            <p>
              reading {theirs.entry} at {theirs.position}
            </p>
            <p className="text-soft">
              {theirs.takenBy}, {shownTime(theirs.takenAt, zone())}
            </p>
          </>
        )}
        <p className={theirs ? 'text-soft' : ''}>{why}</p>
      </div>
      <div className="flex flex-wrap items-center gap-2 sm:col-span-2">
        {item.kind === 'reading' && theirs && (
          <Button
            onClick={() =>
              void sendAgain({
                ...item,
                body: {
                  ...item.body,
                  supersedes: theirs.id,
                  why: item.body.why ?? tr`read without the server, after ${theirs.takenBy}`,
                },
              })
            }
          >
            Mine counts
          </Button>
        )}
        {item.kind !== 'reading' && <Button onClick={() => void sendAgain(item)}>Send it again</Button>}
        <Button onClick={() => void drop(idOf(item))}>{theirs ? 'Theirs counts: drop mine' : 'Drop mine'}</Button>
        {behind > 0 && (
          <span className="text-soft">{behind === 1 ? '1 entry waits' : tr`${behind} entries wait`} for it.</span>
        )}
      </div>
    </div>
  );
}

interface Theirs {
  readonly run: RunView;
  /** That counts at the same position now. */
  readonly reading: ReadingView | null;
}

/** What stands on the server where mine would go; `null` where there is no server. */
function useTheirs(item: QueuedItem): Theirs | null {
  const [theirs, setTheirs] = useState<Theirs | null>(null);
  useEffect(() => {
    if (item.kind !== 'reading') return;
    const { position } = item.body;
    void fetch(`/api/runs/${item.runId}`)
      .then(async (r) => (r.ok ? ((await r.json()) as RunView) : null))
      .then((run) => {
        const reading = run && currentReadings(run.readings).find((r) => r.position === position);
        setTheirs(run && { run, reading: reading ?? null });
      })
      .catch(() => undefined);
  }, [item]);
  return theirs;
}

'use client';
import { tr } from '../../core/locale/translate';
import { CloudOff, Server } from 'lucide-react';
import { Link } from '../kit/link';
import { useEffect, useState } from 'react';
import { Button } from '../kit/button';
import { useSession } from '../kit/session';
import { shownTime } from '../../application/report/time';
import { keptCopy } from './device-store';
import { flush, onOutbox } from './outbox';
import { readAll } from './outbox-store';
import { useLittleRoom } from './room';

const ASK_ms = 4_000;

/** Over every page of the device: since when there is no server, how much waits, and the way back. */
export function NoServer({ asked, onUnderstood }: { asked: string | null; onUnderstood: () => void }) {
  const waiting = useWaiting();
  const server = useServer(waiting === 0);
  const [asOf, setAsOf] = useState<string | null>(null);
  useEffect(() => {
    void keptCopy().then((c) => setAsOf(c?.madeAt ?? null));
  }, []);
  const { askToSignIn } = useSession();
  const left = useLittleRoom();
  const words = waiting === 1 ? '1 entry waits' : tr`${waiting} entries wait`;
  return (
    <aside
      aria-label="Without the server"
      className="no-print sticky top-0 z-30 flex flex-wrap items-center gap-x-4 gap-y-1 border-b-2 border-ochre bg-card px-4 py-1"
    >
      <span className="flex min-h-11 items-center gap-2 font-semibold" role="status">
        {server === 'none' ? <CloudOff size={18} aria-hidden="true" /> : <Server size={18} aria-hidden="true" />}
        {server === 'none'
          ? 'No server: this device goes on by itself'
          : server === 'signed out'
            ? 'The server is back and asks who you are'
            : waiting === 0
              ? 'The server is back'
              : 'The server is back: sending'}
      </span>
      {asOf && (
        <span className="text-soft">copy of {shownTime(asOf, Intl.DateTimeFormat().resolvedOptions().timeZone)}</span>
      )}
      {waiting > 0 && (
        <Link href="/waits" className="inline-flex min-h-11 items-center font-semibold underline">
          {words}
        </Link>
      )}
      {left !== null && (
        <span role="alert" className="font-semibold text-rust">
          This device is nearly full: {Math.round(left / 1e6)} MB left
        </span>
      )}
      {server === 'signed out' && <Button onClick={askToSignIn}>Sign in</Button>}
      {server === 'there' && (
        <Button tone="strong" onClick={() => window.location.reload()}>
          Go on with the server
        </Button>
      )}
      {asked !== null && (
        <span role="alert" className="flex items-center gap-2 font-semibold text-rust">
          “{asked}” needs the server.
          <button type="button" className="min-h-11 rounded-lg border border-line px-3 text-ink" onClick={onUnderstood}>
            OK
          </button>
        </span>
      )}
    </aside>
  );
}

/** Entries that the server has not confirmed. */
export function useWaiting(): number {
  const [count, setCount] = useState(0);
  useEffect(() => {
    const look = (): void => void readAll().then(({ items, locked }) => setCount(items.length + locked.length));
    look();
    return onOutbox(look);
  }, []);
  return count;
}

/**
 * Whether there is a server, and whether it knows who asks. Asked again and again while this page is looked
 * at.
 */
function useServer(isEmpty: boolean): 'none' | 'signed out' | 'there' {
  const [server, setServer] = useState<'none' | 'signed out' | 'there'>('none');
  useEffect(() => {
    const look = async (): Promise<void> => {
      const response = await fetch('/api/session', { cache: 'no-store' }).catch(() => null);
      const said = response?.ok ? ((await response.json()) as { name: string | null }) : null;
      setServer(said === null ? 'none' : said.name === null ? 'signed out' : 'there');
      if (said && !isEmpty) void flush();
    };
    void look();
    const timer = setInterval(() => void look(), ASK_ms);
    return () => clearInterval(timer);
  }, [isEmpty]);
  return server;
}

import type { Metadata, Viewport } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { currentReader, PLAIN } from '@/core/locale/locale';
import type { SignedIn } from '@/application/views';
import { serverDb } from '@/server/db/connection';
import { kindOf } from '@/server/installation/installation';
import { shownSessions } from '@/server/people/sign-in';
import { Waiting } from '@/ui/offline/waiting';
import { KeepDevice } from '@/ui/offline/keep-device';
import { RoomLeft } from '@/ui/kit/room-left';
import { sessionsHere } from './need-person';
import { SessionProvider } from '@/ui/kit/session';
import { Themes } from '@/ui/kit/themes';
import './globals.css';

export const metadata: Metadata = {
  title: { default: 'Mudflat', template: '%s · Mudflat' },
  description: 'Electrical readings from diesel engines, judged and kept',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

/** Nobody, where the database does not answer: the page says what is wrong. */
async function whoIsHere(): Promise<SignedIn> {
  try {
    return shownSessions(await sessionsHere());
  } catch (error) {
    process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
    return { name: null, role: null, depotId: null, onDevice: [], locale: PLAIN };
  }
}

/** The demo is marked as such on every page. */
async function kindHere(): Promise<string> {
  try {
    return await kindOf(serverDb().db);
  } catch {
    return 'unknown';
  }
}

export default async function Layout({ children }: { children: ReactNode }) {
  const [who, kind] = await Promise.all([whoIsHere(), kindHere()]);
  const { locale, words } = currentReader();
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang={locale.language} data-installation={kind} data-locale={JSON.stringify(locale)} suppressHydrationWarning>
      <head>
        {/* Before anything is drawn: what the server has written and what the page writes are the same
            words. */}
        {/* oxlint-disable-next-line nextjs/no-sync-scripts -- later, the page would not be what the server has drawn */}
        {words && <script src={`/words/${locale.language}`} nonce={nonce} />}
      </head>
      <body>
        <Themes nonce={nonce}>
          <SessionProvider initial={who}>
            {children}
            <Waiting />
            <KeepDevice />
          </SessionProvider>
        </Themes>
        <RoomLeft />
      </body>
    </html>
  );
}

import { titled } from '@/app/titled';
import { needPerson } from '@/app/need-person';
import { serverDb } from '@/server/db/connection';
import { viewInstruments } from '@/server/instruments/instruments';
import { Instruments } from '@/ui/instruments/instruments';
import { TopBar } from '@/ui/kit/top-bar';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Instruments');

export default async function InstrumentsPage() {
  await needPerson('/instruments');
  const { db } = serverDb();
  const depots = await viewInstruments(db);
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar here="/instruments">
        <h1 className="text-lg font-bold text-ink">Instruments</h1>
      </TopBar>
      <Instruments depots={depots} />
    </div>
  );
}

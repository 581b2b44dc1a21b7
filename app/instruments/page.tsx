import { serverDb } from '@/server/db';
import { viewInstruments } from '@/server/instruments';
import { listPersons } from '@/server/queries';
import { Instruments } from '@/ui/instruments/instruments';
import { TopBar } from '@/ui/kit/top-bar';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Instruments' };

export default async function InstrumentsPage() {
  const { db } = serverDb();
  const [depots, persons] = await Promise.all([viewInstruments(db), listPersons(db)]);
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar persons={persons.map((p) => p.name)} here="/instruments"><h1 className="text-lg font-bold text-ink">Instruments</h1></TopBar>
      <Instruments depots={depots} persons={persons} />
    </div>
  );
}

import { titled } from '@/app/titled';
import { needPerson } from '@/app/need-person';
import { allCircuits, ownCircuits } from '@/server/catalogue/circuits';
import { serverDb } from '@/server/db/connection';
import { viewFamilies } from '@/server/jobs/yard';
import { allTests } from '@/server/catalogue/tests';
import { Circuits } from '@/ui/circuits/circuits';
import { TopBar } from '@/ui/kit/top-bar';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Circuits');

export default async function CircuitsPage() {
  await needPerson('/circuits');
  const { db } = serverDb();
  const [circuits, own, tests, families] = await Promise.all([
    allCircuits(db),
    ownCircuits(db),
    allTests(db),
    viewFamilies(db),
  ]);
  const ids = new Set(own.map((c) => c.id));
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar here="/circuits">
        <h1 className="text-lg font-bold text-ink">Circuits</h1>
      </TopBar>
      <Circuits
        circuits={circuits.map((circuit) => ({ circuit, own: ids.has(circuit.id) }))}
        families={families}
        tests={tests}
      />
    </div>
  );
}

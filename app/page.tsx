import { serverDb } from '@/server/db';
import { listPersons, viewYard } from '@/server/queries';
import { TopBar } from '@/ui/kit/top-bar';
import { Yard } from '@/ui/yard/yard';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Yard' };

export default async function YardPage() {
  const { db } = serverDb();
  const [yard, persons] = await Promise.all([viewYard(db), listPersons(db)]);
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar persons={persons.map((p) => p.name)} here="/"><h1 className="text-lg font-bold text-ink">Yard</h1></TopBar>
      <Yard yard={yard} persons={persons} />
    </div>
  );
}

import { notFound } from 'next/navigation';
import { serverDb } from '@/server/db';
import { listPersons } from '@/server/queries';
import { viewRun } from '@/server/run-view';
import { Bench } from '@/ui/bench/bench';
import { TopBar } from '@/ui/kit/top-bar';
import { UnitHeading } from '@/ui/kit/unit-heading';
import { isId } from '@/app/api/handler';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Bench' };

export default async function BenchPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { db } = serverDb();
  const [view, persons] = await Promise.all([isId(id) ? viewRun(db, id) : null, listPersons(db)]);
  if (!view) notFound();
  return (
    <div className="flex min-h-dvh flex-col lg:h-dvh">
      <TopBar persons={persons.map((p) => p.name)} jobId={view.job.id}><UnitHeading unit={view.unit} job={view.job} complaint /></TopBar>
      <Bench key={view.id} view={view} persons={persons} />
    </div>
  );
}

import { titled } from '@/app/titled';
import { notFound } from 'next/navigation';
import { needPerson } from '@/app/need-person';
import { serverDb } from '@/server/db/connection';
import { viewRun } from '@/server/readings/run-view';
import { Bench } from '@/ui/bench/bench';
import { TopBar } from '@/ui/kit/top-bar';
import { UnitHeading } from '@/ui/kit/unit-heading';
import { isId } from '@/app/api/handler';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Bench');

export default async function BenchPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  await needPerson(`/runs/${id}`);
  const { db } = serverDb();
  const view = await (isId(id) ? viewRun(db, id) : null);
  if (!view) notFound();
  return (
    <div className="flex min-h-dvh flex-col lg:h-dvh">
      <TopBar jobId={view.job.id}>
        <UnitHeading unit={view.unit} job={view.job} complaint />
      </TopBar>
      <Bench key={view.id} view={view} />
    </div>
  );
}

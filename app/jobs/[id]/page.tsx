import { notFound } from 'next/navigation';
import { serverDb } from '@/server/db';
import { listPersons, viewJob } from '@/server/queries';
import { JobScreen } from '@/ui/job/job-screen';
import { TopBar } from '@/ui/kit/top-bar';
import { UnitHeading } from '@/ui/kit/unit-heading';
import { isId } from '@/app/api/handler';

export const dynamic = 'force-dynamic';

export default async function JobPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { db } = serverDb();
  const [view, persons] = await Promise.all([isId(id) ? viewJob(db, id) : null, listPersons(db)]);
  if (!view) notFound();
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar persons={persons.map((p) => p.name)} jobId={view.job.id}><UnitHeading unit={view.unit} job={view.job} /></TopBar>
      <JobScreen view={view} persons={persons} />
    </div>
  );
}

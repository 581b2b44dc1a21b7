import { notFound } from 'next/navigation';
import { needPerson } from '@/app/need-person';
import { serverDb } from '@/server/db/connection';
import { pageOfJob } from '@/application/job-page';
import { viewJob } from '@/server/jobs/view-job';
import { JobScreen } from '@/ui/job/job-screen';
import { TopBar } from '@/ui/kit/top-bar';
import { UnitHeading } from '@/ui/kit/unit-heading';
import { isId } from '@/app/api/handler';

export const dynamic = 'force-dynamic';

export default async function JobPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  await needPerson(`/jobs/${id}`);
  const { db } = serverDb();
  const view = await (isId(id) ? viewJob(db, id) : null);
  if (!view) notFound();
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar jobId={view.job.id}>
        <UnitHeading unit={view.unit} job={view.job} />
      </TopBar>
      <JobScreen view={pageOfJob(view)} />
    </div>
  );
}

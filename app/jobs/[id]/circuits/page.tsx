import { titled } from '@/app/titled';
import { notFound } from 'next/navigation';
import { isId } from '@/app/api/handler';
import { needPerson } from '@/app/need-person';
import { serverDb } from '@/server/db/connection';
import { viewJob } from '@/server/jobs/view-job';
import { CircuitsOfJob } from '@/ui/job/circuit';
import { TopBar } from '@/ui/kit/top-bar';
import { UnitHeading } from '@/ui/kit/unit-heading';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Circuits of a job');

export default async function JobCircuitsPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  await needPerson(`/jobs/${id}/circuits`);
  const view = isId(id) ? await viewJob(serverDb().db, id) : null;
  if (!view) notFound();
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar jobId={view.job.id}>
        <UnitHeading unit={view.unit} job={view.job} />
      </TopBar>
      <CircuitsOfJob view={view} />
    </div>
  );
}

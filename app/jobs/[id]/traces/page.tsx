import { titled } from '@/app/titled';
import { notFound } from 'next/navigation';
import { isId } from '@/app/api/handler';
import { needPerson } from '@/app/need-person';
import { serverDb } from '@/server/db/connection';
import { viewJob } from '@/server/jobs/view-job';
import { leadsOf } from '@/server/traces/leads';
import { recordingLimits } from '@/server/traces/recording-limits';
import { tracesOf } from '@/server/traces/traces';
import { TopBar } from '@/ui/kit/top-bar';
import { UnitHeading } from '@/ui/kit/unit-heading';
import { Recordings } from '@/ui/traces/recordings';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Recordings of a job');

export default async function JobTracesPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  await needPerson(`/jobs/${id}/traces`);
  const { db } = serverDb();
  const view = isId(id) ? await viewJob(db, id) : null;
  if (!view) notFound();
  const { job, unit } = view;
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar jobId={job.id}>
        <UnitHeading unit={unit} job={job} complaint />
      </TopBar>
      <Recordings
        jobId={job.id}
        isClosed={job.closed}
        traces={await tracesOf(db, id)}
        timeZone={unit.timeZone}
        plan={await leadsOf(db, id)}
        limits={await recordingLimits(db, id)}
        engine={unit.engine}
      />
    </div>
  );
}

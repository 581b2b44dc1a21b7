import { titled } from '@/app/titled';
import { notFound } from 'next/navigation';
import { isId } from '@/app/api/handler';
import { needPerson } from '@/app/need-person';
import { serverDb } from '@/server/db/connection';
import { viewJob } from '@/server/jobs/view-job';
import { ghostsFor } from '@/server/traces/captures';
import { viewTrace } from '@/server/traces/traces';
import { TopBar } from '@/ui/kit/top-bar';
import { UnitHeading } from '@/ui/kit/unit-heading';
import { TraceScreen } from '@/ui/traces/trace-screen';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Recording');

export default async function TracePage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  await needPerson(`/traces/${id}`);
  const { db } = serverDb();
  const trace = isId(id) ? await viewTrace(db, id) : null;
  const view = trace && (await viewJob(db, trace.jobId));
  if (!view) notFound();
  return (
    <div className="flex min-h-dvh flex-col lg:h-dvh lg:min-h-[40rem]">
      <TopBar jobId={view.job.id}>
        <UnitHeading unit={view.unit} job={view.job} complaint />
      </TopBar>
      <TraceScreen
        trace={trace}
        isClosed={view.job.closed}
        timeZone={view.unit.timeZone}
        shown={view.intake.shown}
        ghosts={await ghostsFor(db, id)}
      />
    </div>
  );
}

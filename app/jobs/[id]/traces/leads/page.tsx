import { titled } from '@/app/titled';
import { notFound } from 'next/navigation';
import { isId } from '@/app/api/handler';
import { needPerson } from '@/app/need-person';
import { endsOfWires } from '@/application/traces/places-to-record';
import { CATALOGUE } from '@/core/catalogue/catalogue';
import { allCircuits, circuitsFor } from '@/server/catalogue/circuits';
import { serverDb } from '@/server/db/connection';
import { connectorsForJob } from '@/server/fleet/connectors';
import { viewJob } from '@/server/jobs/view-job';
import { leadsOf } from '@/server/traces/leads';
import { TopBar } from '@/ui/kit/top-bar';
import { UnitHeading } from '@/ui/kit/unit-heading';
import { LeadPlan } from '@/ui/traces/lead-plan';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Leads');

const CAUTIONS = CATALOGUE.find((t) => t.id === 'pins-log')?.cautions.map((c) => c.text) ?? [];

export default async function LeadsPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  await needPerson(`/jobs/${id}/traces/leads`);
  const { db } = serverDb();
  const view = isId(id) ? await viewJob(db, id) : null;
  if (!view) notFound();
  const { job, unit } = view;
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar jobId={job.id}>
        <UnitHeading unit={unit} job={job} complaint />
      </TopBar>
      <LeadPlan
        jobId={job.id}
        isClosed={job.closed}
        plan={await leadsOf(db, id)}
        connectors={await connectorsForJob(db, id)}
        wires={circuitsFor(await allCircuits(db), unit.family).map((c) => ({
          circuit: c.name,
          ends: endsOfWires(c, unit.engine),
        }))}
        cautions={CAUTIONS}
      />
    </div>
  );
}

import { titled } from '@/app/titled';
import { notFound } from 'next/navigation';
import { isId } from '@/app/api/handler';
import { needPerson } from '@/app/need-person';
import { serverDb } from '@/server/db/connection';
import { readInstallation } from '@/server/installation/installation';
import { viewReport } from '@/server/jobs/report';
import { JobPrint } from '@/ui/report/job-print';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Report');

export default async function ReportPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ voice?: string | string[] }>;
}) {
  const [{ id }, { voice }] = await Promise.all([params, searchParams]);
  await needPerson(`/jobs/${id}/report`);
  const { db } = serverDb();
  const [view, installation] = await Promise.all([isId(id) ? viewReport(db, id) : null, readInstallation(db)]);
  if (!view) notFound();
  return <JobPrint view={view} voice={voice === 'file' ? 'file' : 'payer'} hasLogo={installation?.hasLogo ?? false} />;
}

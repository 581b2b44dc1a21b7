import { titled } from '@/app/titled';
import { notFound } from 'next/navigation';
import { needPerson } from '@/app/need-person';
import { serverDb } from '@/server/db/connection';
import { viewRun } from '@/server/readings/run-view';
import { isId } from '@/app/api/handler';
import { RunPrint } from '@/ui/report/run-print';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Result');

export default async function PrintPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  await needPerson(`/runs/${id}/print`);
  const view = isId(id) ? await viewRun(serverDb().db, id) : null;
  if (!view) notFound();
  return <RunPrint view={view} />;
}

import { titled } from '@/app/titled';
import bwip from 'bwip-js/node';
import { notFound } from 'next/navigation';
import { isId } from '@/app/api/handler';
import { needPerson } from '@/app/need-person';
import { codesKept } from '@/core/repair/proof';
import { serverDb } from '@/server/db/connection';
import { viewJob } from '@/server/jobs/view-job';
import { CodesPrint } from '@/ui/repair/codes-print';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Codes of new parts');

export default async function CodesPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  await needPerson(`/jobs/${id}/codes`);
  const view = isId(id) ? await viewJob(serverDb().db, id) : null;
  if (!view) notFound();
  const newest = [...codesKept(view.repair.records).values()]
    .map((c) => c.body)
    .sort((a, b) => a.position - b.position);
  const drawn = newest.map((c) => ({
    ...c,
    svg: bwip.toSVG({ bcid: 'datamatrix', text: c.code, scale: 3, paddingwidth: 4, paddingheight: 4 }),
  }));
  return <CodesPrint view={view} codes={drawn} />;
}

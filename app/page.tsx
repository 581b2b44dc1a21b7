import { needPerson } from '@/app/need-person';
import { serverDb } from '@/server/db/connection';
import { viewYard } from '@/server/jobs/yard';
import { TopBar } from '@/ui/kit/top-bar';
import { Yard } from '@/ui/yard/yard';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Yard' };

export default async function YardPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { q } = await searchParams;
  await needPerson('/');
  const { db } = serverDb();
  const yard = await viewYard(db, typeof q === 'string' ? q : '');
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar here="/">
        <h1 className="text-lg font-bold text-ink">Yard</h1>
      </TopBar>
      <Yard yard={yard} />
    </div>
  );
}

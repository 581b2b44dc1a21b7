import { titled } from '@/app/titled';
import { needPerson } from '@/app/need-person';
import { serverDb } from '@/server/db/connection';
import { viewSpecifications } from '@/server/readings/specifications-view';
import { isId } from '@/app/api/handler';
import { TopBar } from '@/ui/kit/top-bar';
import { Shelf } from '@/ui/specifications/shelf';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Shelf');

export default async function ShelfPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { test, run } = await searchParams;
  await needPerson('/shelf');
  const { db } = serverDb();
  const view = await viewSpecifications(db, typeof run === 'string' && isId(run) ? run : null);
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar here="/shelf">
        <h1 className="text-lg font-bold text-ink">Shelf</h1>
      </TopBar>
      <Shelf view={view} test={typeof test === 'string' ? test : null} />
    </div>
  );
}

import { serverDb } from '@/server/db';
import { listPersons } from '@/server/queries';
import { viewShelf } from '@/server/shelf-view';
import { isId } from '@/app/api/handler';
import { TopBar } from '@/ui/kit/top-bar';
import { Shelf } from '@/ui/shelf/shelf';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Shelf' };

export default async function ShelfPage({ searchParams }: { searchParams: Promise<Record<string, string | string[] | undefined>> }) {
  const { test, run } = await searchParams;
  const { db } = serverDb();
  const [view, persons] = await Promise.all([viewShelf(db, typeof run === 'string' && isId(run) ? run : null), listPersons(db)]);
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar persons={persons.map((p) => p.name)} here="/shelf"><h1 className="text-lg font-bold text-ink">Shelf</h1></TopBar>
      <Shelf view={view} persons={persons} test={typeof test === 'string' ? test : null} />
    </div>
  );
}

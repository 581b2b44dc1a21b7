import { titled } from '@/app/titled';
import { needPerson } from '@/app/need-person';
import { serverDb } from '@/server/db/connection';
import { allTests, ownTests } from '@/server/catalogue/tests';
import { Catalogue } from '@/ui/catalogue/catalogue';
import { TopBar } from '@/ui/kit/top-bar';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Catalogue');

export default async function CataloguePage() {
  await needPerson('/catalogue');
  const { db } = serverDb();
  const [tests, own] = await Promise.all([allTests(db), ownTests(db)]);
  const ids = new Set(own.map((t) => t.id));
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar here="/catalogue">
        <h1 className="text-lg font-bold text-ink">Catalogue</h1>
      </TopBar>
      <Catalogue entries={tests.map((test) => ({ test, own: ids.has(test.id) }))} />
    </div>
  );
}

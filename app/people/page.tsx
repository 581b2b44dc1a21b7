import { titled } from '@/app/titled';
import { needPerson } from '@/app/need-person';
import { serverDb } from '@/server/db/connection';
import { listPersons } from '@/server/people/people';
import { viewDepots } from '@/server/jobs/yard';
import { TopBar } from '@/ui/kit/top-bar';
import { People } from '@/ui/people/people';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('People');

export default async function PeoplePage() {
  await needPerson('/people');
  const { db } = serverDb();
  const [persons, depots] = await Promise.all([listPersons(db), viewDepots(db)]);
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar here="/people">
        <h1 className="text-lg font-bold text-ink">People</h1>
      </TopBar>
      <People persons={persons} depots={depots} />
    </div>
  );
}

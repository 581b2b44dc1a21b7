import { titled } from '@/app/titled';
import { needPerson } from '@/app/need-person';
import type { FirstStepsView } from '@/application/views';
import { type Db, serverDb } from '@/server/db/connection';
import { firstSteps, kindOf } from '@/server/installation/installation';
import { viewYard } from '@/server/jobs/yard';
import { TopBar } from '@/ui/kit/top-bar';
import { Yard } from '@/ui/yard/yard';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Yard');

/** What a workshop’s own installation still asks for; `null`: nothing, or it is the demo. */
async function stepsToDo(db: Db): Promise<FirstStepsView | null> {
  if ((await kindOf(db)) !== 'own') return null;
  const steps = await firstSteps(db);
  return Object.values(steps).every(Boolean) ? null : steps;
}

export default async function YardPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { q } = await searchParams;
  await needPerson('/');
  const { db } = serverDb();
  const [yard, steps] = await Promise.all([viewYard(db, typeof q === 'string' ? q : '', true), stepsToDo(db)]);
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar here="/">
        <h1 className="text-lg font-bold text-ink">Yard</h1>
      </TopBar>
      <Yard yard={yard} steps={steps} />
    </div>
  );
}

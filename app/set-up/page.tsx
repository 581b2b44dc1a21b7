import { titled } from '@/app/titled';
import { redirect } from 'next/navigation';
import { serverDb } from '@/server/db/connection';
import { hasPeople, readInstallation } from '@/server/installation/installation';
import { SetUp } from '@/ui/workshop/set-up';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Set up');

/** Open to whoever has the code, and only while nobody is there. */
export default async function SetUpPage() {
  const { db } = serverDb();
  if ((await readInstallation(db))?.kind !== 'own' || (await hasPeople(db))) redirect('/');
  return <SetUp />;
}

import { titled } from '@/app/titled';
import { needPerson } from '@/app/need-person';
import { serverDb } from '@/server/db/connection';
import { viewServiceData } from '@/server/repair/service-data';
import { TopBar } from '@/ui/kit/top-bar';
import { ServiceData } from '@/ui/service-data/service-data';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Service data');

export default async function ServiceDataPage() {
  await needPerson('/service-data');
  const view = await viewServiceData(serverDb().db);
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar here="/workshop">
        <h1 className="text-lg font-bold text-ink">Service data</h1>
      </TopBar>
      <ServiceData view={view} />
    </div>
  );
}

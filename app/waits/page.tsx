import { titled } from '@/app/titled';
import { needPerson } from '@/app/need-person';
import { WhatWaits } from '@/ui/offline/what-waits';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('What waits');

export default async function WaitsPage() {
  await needPerson('/waits');
  return (
    <div className="flex min-h-dvh flex-col">
      <WhatWaits />
    </div>
  );
}

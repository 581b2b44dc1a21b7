import { titled } from '@/app/titled';
import { needPerson } from '@/app/need-person';
import { serverDb } from '@/server/db/connection';
import { captureLibrary } from '@/server/traces/captures';
import { TopBar } from '@/ui/kit/top-bar';
import { CaptureLibrary } from '@/ui/traces/capture-library';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Captures');

export default async function CapturesPage() {
  await needPerson('/captures');
  return (
    <div className="flex min-h-dvh flex-col">
      <TopBar />
      <CaptureLibrary captures={await captureLibrary(serverDb().db)} />
    </div>
  );
}

import { pageOfJob } from '../application/job-page';
import type { DeviceView } from '../application/device-rooms';
import type { Db } from '../server/db/together';
import { viewJob } from '../server/jobs/view-job';
import { viewYard } from '../server/jobs/yard';
import { viewRun } from '../server/readings/run-view';

const JOB = /^\/jobs\/([0-9a-f-]{36})$/;
const CIRCUITS = /^\/jobs\/([0-9a-f-]{36})\/circuits$/;
const RUN = /^\/runs\/([0-9a-f-]{36})$/;

/** `null`: this page is not on the device, or what it shows is not. */
export async function viewAt(db: Db, address: string): Promise<DeviceView | null> {
  const { pathname, searchParams } = new URL(address, 'http://device');
  if (pathname === '/') return { page: 'yard', yard: await viewYard(db, searchParams.get('q') ?? '') };
  const jobId = (JOB.exec(pathname) ?? CIRCUITS.exec(pathname))?.[1];
  if (jobId !== undefined) {
    const view = await viewJob(db, jobId);
    if (!view) return null;
    return JOB.test(pathname) ? { page: 'job', view: pageOfJob(view) } : { page: 'circuits', view };
  }
  const runId = RUN.exec(pathname)?.[1];
  const run = runId === undefined ? null : await viewRun(db, runId);
  return run && { page: 'run', view: run };
}

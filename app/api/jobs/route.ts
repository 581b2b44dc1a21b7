import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { answer, handleJson } from '../handler';
import { openJob } from '@/server/jobs/open-job';
import { OPEN_JOB, type OpenJob } from '@/formats/requests/jobs';

const check = schema<OpenJob>(OPEN_JOB);

export const POST = (request: Request) =>
  handleJson(
    request,
    check,
    'job.open',
    (body) => body.unitId,
    async (body) => answer(await openJob(serverDb().db, body)),
  );

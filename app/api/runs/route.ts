import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { answer, handleJson } from '../handler';
import { startRun } from '@/server/jobs/open-job';
import { START_RUN, type StartRun } from '@/formats/requests/runs';

const check = schema<StartRun>(START_RUN);

export const POST = (request: Request) =>
  handleJson(
    request,
    check,
    'run.start',
    (body) => body.jobId,
    async (body) => answer(await startRun(serverDb().db, body)),
  );

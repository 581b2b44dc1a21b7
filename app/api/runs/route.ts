import { START_RUN, type StartRun } from '@/formats/requests';
import { schema } from '@/formats/validate';
import { startRun } from '@/server/commands';
import { jobPlace } from '@/server/access';
import { serverDb } from '@/server/db';
import { answer, handleJson } from '../handler';

const check = schema<StartRun>(START_RUN);

export const POST = (request: Request) =>
  handleJson(
    request,
    check,
    (body) => ({ role: 'technician', what: 'start a test', place: jobPlace(body.jobId) }),
    async (body) => answer(await startRun(serverDb().db, body)),
  );

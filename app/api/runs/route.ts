import { START_RUN, type StartRun } from '@/formats/requests';
import { schema } from '@/formats/validate';
import { startRun } from '@/server/fleet/commands';
import { jobPlace } from '@/server/policy/access';
import { serverDb } from '@/server/db/connection';
import { answer, handleJson } from '../handler';

const check = schema<StartRun>(START_RUN);

export const POST = (request: Request) =>
  handleJson(
    request,
    check,
    (body) => ({ role: 'technician', what: 'start a test', place: jobPlace(body.jobId) }),
    async (body) => answer(await startRun(serverDb().db, body)),
  );

import { OPEN_JOB, type OpenJob } from '@/formats/requests';
import { schema } from '@/formats/validate';
import { openJob } from '@/server/fleet/commands';
import { unitPlace } from '@/server/policy/access';
import { serverDb } from '@/server/db/connection';
import { answer, handleJson } from '../handler';

const check = schema<OpenJob>(OPEN_JOB);

export const POST = (request: Request) =>
  handleJson(
    request,
    check,
    (body) => ({ role: 'technician', what: 'open a job', place: unitPlace(body.unitId) }),
    async (body) => answer(await openJob(serverDb().db, body)),
  );

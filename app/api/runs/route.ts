import { START_RUN, type StartRun } from '@/formats/requests';
import { schema } from '@/formats/validate';
import { startRun } from '@/server/commands';
import { serverDb } from '@/server/db';
import { answer, handleJson } from '../handler';

const check = schema<StartRun>(START_RUN);

export const POST = (request: Request) => handleJson(request, check, async (body) => answer(await startRun(serverDb().db, body)));

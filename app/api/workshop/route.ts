import { ok } from '@/core/foundation/result';
import { CHANGE_WORKSHOP, type ChangeWorkshop } from '@/formats/requests/installation';
import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { changeWorkshop } from '@/server/installation/installation';
import { answer, handleJson } from '../handler';

const check = schema<ChangeWorkshop>(CHANGE_WORKSHOP);

export const POST = (request: Request) =>
  handleJson(request, check, 'workshop.change', null, async (body) => {
    await changeWorkshop(serverDb().db, body);
    return answer(ok({ name: body.name.trim() }));
  });

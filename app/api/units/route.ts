import { ADD_UNIT, type AddUnit } from '@/formats/requests';
import { schema } from '@/formats/validate';
import { addUnit } from '@/server/commands';
import { depotPlace } from '@/server/access';
import { serverDb } from '@/server/db';
import { answer, handleJson } from '../handler';

const check = schema<AddUnit>(ADD_UNIT);

export const POST = (request: Request) =>
  handleJson(
    request,
    check,
    (body) => ({ role: 'technician', what: 'add a unit', place: depotPlace(body.depotId) }),
    async (body) => answer(await addUnit(serverDb().db, body)),
  );

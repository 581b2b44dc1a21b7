import { schema } from '@/formats/schemas';
import { addUnit } from '@/server/fleet/fleet';
import { serverDb } from '@/server/db/connection';
import { answer, handleJson } from '../handler';
import { ADD_UNIT, type AddUnit } from '@/formats/requests/fleet';

const check = schema<AddUnit>(ADD_UNIT);

export const POST = (request: Request) =>
  handleJson(
    request,
    check,
    'unit.add',
    (body) => body.depotId,
    async (body) => answer(await addUnit(serverDb().db, body)),
  );

import { ADD_DEPOT, type AddDepot } from '@/formats/requests/fleet';
import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { addDepot } from '@/server/fleet/depots';
import { answer, handleJson } from '../handler';

const check = schema<AddDepot>(ADD_DEPOT);

export const POST = (request: Request) =>
  handleJson(request, check, 'depot.add', null, async (body) => answer(await addDepot(serverDb().db, body)));

import { schema } from '@/formats/schemas';
import { addEngineFamily } from '@/server/fleet/fleet';
import { serverDb } from '@/server/db/connection';
import { answer, handleJson } from '../handler';
import { ADD_ENGINE_FAMILY, type AddEngineFamily } from '@/formats/requests/fleet';

const check = schema<AddEngineFamily>(ADD_ENGINE_FAMILY);

export const POST = (request: Request) =>
  handleJson(request, check, 'engine-family.add', null, async (body) =>
    answer(await addEngineFamily(serverDb().db, body)),
  );

import { schema } from '@/formats/schemas';
import { addInstrument } from '@/server/instruments/instruments';
import { serverDb } from '@/server/db/connection';
import { answer, handleJson } from '../handler';
import { ADD_INSTRUMENT, type AddInstrument } from '@/formats/requests/instruments';

const check = schema<AddInstrument>(ADD_INSTRUMENT);

export const POST = (request: Request) =>
  handleJson(
    request,
    check,
    'instrument.add',
    (body) => body.depotId,
    async (body) => answer(await addInstrument(serverDb().db, body)),
  );

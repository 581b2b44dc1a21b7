import { schema } from '@/formats/validate';
import { serverDb } from '@/server/db/connection';
import { keepServiceData } from '@/server/repair/repair-log';
import { answer, handleJson } from '../handler';
import { KEEP_SERVICE_DATA, type KeepServiceData } from '@/formats/requests/service-data';

const check = schema<KeepServiceData>(KEEP_SERVICE_DATA);

export const POST = (request: Request) =>
  handleJson(request, check, 'service-data.change', null, async (body) =>
    answer(await keepServiceData(serverDb().db, body)),
  );

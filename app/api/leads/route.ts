import { MEASURE_LEAD, type MeasureLead } from '@/formats/requests';
import { schema } from '@/formats/validate';
import { serverDb } from '@/server/db/connection';
import { measureLead } from '@/server/instruments/instruments';
import { answer, handleJson } from '../handler';

const check = schema<MeasureLead>(MEASURE_LEAD);

export const POST = (request: Request) =>
  handleJson(
    request,
    check,
    'test-leads.measure',
    (body) => body.depotId,
    async (body) => answer(await measureLead(serverDb().db, body)),
  );

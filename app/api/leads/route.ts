import { schema } from '@/formats/validate';
import { serverDb } from '@/server/db/connection';
import { measureLead } from '@/server/instruments/instruments';
import { answer, handleJson } from '../handler';
import { MEASURE_LEAD, type MeasureLead } from '@/formats/requests/instruments';

const check = schema<MeasureLead>(MEASURE_LEAD);

export const POST = (request: Request) =>
  handleJson(
    request,
    check,
    'test-leads.measure',
    (body) => body.depotId,
    async (body) => answer(await measureLead(serverDb().db, body)),
  );

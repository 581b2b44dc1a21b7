import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { measureTestLeads } from '@/server/instruments/instruments';
import { answer, handleJson } from '../handler';
import { MEASURE_TEST_LEADS, type MeasureTestLeads } from '@/formats/requests/instruments';

const check = schema<MeasureTestLeads>(MEASURE_TEST_LEADS);

export const POST = (request: Request) =>
  handleJson(
    request,
    check,
    'test-leads.measure',
    (body) => body.depotId,
    async (body) => answer(await measureTestLeads(serverDb().db, body)),
  );

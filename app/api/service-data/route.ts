import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { keepServiceData } from '@/server/repair/repair-log';
import { viewServiceData } from '@/server/repair/service-data';
import { writeFittingValuesCsv } from '@/formats/fitting-values-csv';
import type { FittingValue } from '@/formats/requests/service-data';
import { answer, download, handleJson, handleRead } from '../handler';
import { KEEP_SERVICE_DATA, type KeepServiceData } from '@/formats/requests/service-data';

const check = schema<KeepServiceData>(KEEP_SERVICE_DATA);

export const POST = (request: Request) =>
  handleJson(request, check, 'service-data.change', null, async (body) =>
    answer(await keepServiceData(serverDb().db, body)),
  );

/** All of them as JSON; `?format=csv`: the fitting values as the list that can be taken in again. */
export const GET = (request: Request) =>
  handleRead(request, async () => {
    const view = await viewServiceData(serverDb().db);
    if (new URL(request.url).searchParams.get('format') !== 'csv') return Response.json(view);
    const values = view.lines.flatMap(({ kind, family, key, body, source }) =>
      kind === 'fitting' ? [{ family, key, value: (body as FittingValue).value, source }] : [],
    );
    return download(writeFittingValuesCsv(values), 'text/csv', 'fitting-values.csv');
  });

import { writeSpecifications } from '@/formats/specifications';
import { writeSpecificationsCsv } from '@/formats/specifications-csv';
import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { currentEntries, recordSpecification } from '@/server/specifications/specifications';
import { answer, download, handleJson, handleRead } from '../handler';
import { RECORD_SPECIFICATION, type RecordSpecification } from '@/formats/requests/specifications';

const check = schema<RecordSpecification>(RECORD_SPECIFICATION);

/** The shelf as a file, newest revisions only: JSON, or CSV with `?format=csv`. */
export const GET = (request: Request) =>
  handleRead(request, async () => {
    const entries = await currentEntries(serverDb().db);
    if (new URL(request.url).searchParams.get('format') === 'csv')
      return download(writeSpecificationsCsv(entries), 'text/csv', 'shelf.csv');
    return download(JSON.stringify(writeSpecifications(entries), null, 2), 'application/json', 'shelf.json');
  });

export const POST = (request: Request) =>
  handleJson(request, check, 'limits.draft', null, async (body, actor) =>
    answer(await recordSpecification(serverDb().db, body, actor)),
  );

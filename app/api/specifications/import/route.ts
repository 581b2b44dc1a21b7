import { problemDetails } from '@/formats/problem';
import { readSpecifications } from '@/formats/specifications';
import { readSpecificationsCsv } from '@/formats/specifications-csv';
import { serverDb } from '@/server/db/connection';
import { importSpecifications } from '@/server/specifications/specifications';
import { answer, answerProblem, contentTypeOf, handleFile, readBatch } from '../../handler';

/**
 * JSON or CSV. Without `batch`: what the file would do, with what each entry clashes with. With `batch`: does
 * it, all or nothing.
 */
export const POST = (request: Request) =>
  handleFile(request, 'limits.draft', null, ['application/json', 'text/csv'], async (text, actor) => {
    const batch = readBatch(request);
    if (batch instanceof Response) return batch;
    const entries = contentTypeOf(request) === 'text/csv' ? readSpecificationsCsv(text) : readSpecifications(text);
    if (!entries.ok) return answerProblem(problemDetails('These limits cannot be taken.', entries.error));
    return answer(await importSpecifications(serverDb().db, entries.value, batch === null ? null : { batch, actor }));
  });

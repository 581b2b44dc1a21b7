import { ok, type Result } from '@/core/foundation/result';
import { type ProblemDetails, problemDetails } from '@/formats/problem';
import type { ReadSpecifications } from '@/formats/specifications-csv';
import { type Db, serverDb } from '@/server/db/connection';
import { readBeside } from '@/server/files/read-beside';
import { allTests } from '@/server/catalogue/tests';
import { importSpecifications } from '@/server/specifications/import-specifications';
import { answer, answerProblem, contentTypeOf, handleFile, readBatch } from '../../handler';

async function read(text: string, isTable: boolean, db: Db): Promise<Result<ReadSpecifications>> {
  if (isTable) {
    const tests = (await allTests(db)).map(({ id, name }) => ({ id, name }));
    return readBeside('limitsTable', text, tests);
  }
  const entries = await readBeside('limits', text);
  return entries.ok ? ok({ entries: entries.value, lines: [] }) : entries;
}

/** Problems of entries at the lines of the file on which they stand. */
const byLines = (problem: ProblemDetails, lines: readonly number[]): ProblemDetails =>
  problemDetails(
    problem.title,
    problem.errors.map(({ path, message }) => ({
      path: path.replace(/^\/limits\/(\d+)/, (all, i: string) => {
        const line = lines[Number(i)];
        return line === undefined ? all : `/line ${line}`;
      }),
      message,
    })),
    problem.status,
  );

/**
 * JSON or CSV. Without `batch`: what the file would do, with what each entry clashes with. With `batch`: does
 * it, all or nothing.
 */
export const POST = (request: Request) =>
  handleFile(request, 'limits.draft', null, ['application/json', 'text/csv'], async (text, actor) => {
    const batch = readBatch(request);
    if (batch instanceof Response) return batch;
    const { db } = serverDb();
    const limits = await read(text, contentTypeOf(request) === 'text/csv', db);
    if (!limits.ok) return answerProblem(problemDetails('These limits cannot be taken.', limits.error));
    const { entries, lines } = limits.value;
    const done = await importSpecifications(db, entries, { batch, actor });
    return done.ok || lines.length === 0 ? answer(done) : answerProblem(byLines(done.error, lines));
  });

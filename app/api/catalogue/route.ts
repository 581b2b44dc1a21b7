import { writeCatalogue } from '@/formats/catalogue';
import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { allTests, keepTest, ownTests } from '@/server/catalogue/tests';
import { answer, download, handleJson, handleRead } from '../handler';
import { KEEP_TEST, type KeepTest } from '@/formats/requests/catalogue';

const check = schema<KeepTest>(KEEP_TEST);

/** The catalogue as a file; with `?own=1` only the workshop's own tests. */
export const GET = (request: Request) =>
  handleRead(request, async () => {
    const own = new URL(request.url).searchParams.has('own');
    const tests = own ? await ownTests(serverDb().db) : await allTests(serverDb().db);
    return download(
      JSON.stringify(writeCatalogue(tests), null, 2),
      'application/json',
      own ? 'own-tests.json' : 'catalogue.json',
    );
  });

export const POST = (request: Request) =>
  handleJson(request, check, 'catalogue.change', null, async (body) => answer(await keepTest(serverDb().db, body)));

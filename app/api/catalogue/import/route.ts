import { serverDb } from '@/server/db/connection';
import { importCatalogue } from '@/server/catalogue/tests';
import { answer, handleFile, readBatch } from '../../handler';

/** Without `batch`: what the file would do. With `batch` (an id made by the caller): does it. */
export const POST = (request: Request) =>
  handleFile(
    request,
    new URL(request.url).searchParams.has('batch') ? 'catalogue.change' : 'look',
    null,
    ['application/json'],
    async (text, { name: by }) => {
      const batch = readBatch(request);
      return batch instanceof Response
        ? batch
        : answer(await importCatalogue(serverDb().db, text, batch === null ? null : { batch, by }));
    },
  );

import { problemDetails } from '@/formats/problem';
import { serverDb } from '@/server/db/connection';
import { readBeside } from '@/server/files/read-beside';
import { importKit } from '@/server/kit/starter-kit';
import { answer, answerProblem, handleFile, readBatch } from '../../../handler';

/** Without `batch`: what the kit would do. With it: does it, all or nothing. */
export const POST = (request: Request) =>
  handleFile(request, 'workshop.change', null, ['application/json'], async (text, actor) => {
    const batch = readBatch(request);
    if (batch instanceof Response) return batch;
    const kit = await readBeside('starterKit', text);
    return kit.ok
      ? answer(await importKit(serverDb().db, kit.value, batch, actor))
      : answerProblem(problemDetails('This is not a starter kit.', kit.error));
  });

import { problemDetails } from '@/formats/problem';
import { STARTER_KIT, type StarterKit } from '@/formats/starter-kit';
import { schema } from '@/formats/schemas';
import { readJson, validate } from '@/formats/validate';
import { serverDb } from '@/server/db/connection';
import { importKit } from '@/server/kit/starter-kit';
import { answer, answerProblem, handleFile, readBatch } from '../../../handler';

const check = schema<StarterKit>(STARTER_KIT);

/** Without `batch`: what the kit would do. With it: does it, all or nothing. */
export const POST = (request: Request) =>
  handleFile(request, 'workshop.change', null, ['application/json'], async (text, actor) => {
    const batch = readBatch(request);
    if (batch instanceof Response) return batch;
    const json = readJson(text);
    const kit = json.ok ? validate(check, json.value) : json;
    return kit.ok
      ? answer(await importKit(serverDb().db, kit.value, batch, actor))
      : answerProblem(problemDetails('This is not a starter kit.', kit.error));
  });

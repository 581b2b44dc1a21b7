import { problemDetails } from '@/formats/problem';
import { readBeside } from '@/server/files/read-beside';
import { openWaiting } from '@/server/people/sealed-waiting';
import { answer, answerProblem, handleFile } from '../../handler';

/** A day's photos, as text. */
const MOST_BYTES = 64 * 1024 * 1024;

/** What a device has saved when it was wiped or given up: opened for a lead, who has it sent. */
export const POST = (request: Request) =>
  handleFile(
    request,
    'waiting.open',
    null,
    ['application/json'],
    async (text) => {
      const body = await readBeside('savedWaiting', text);
      return body.ok
        ? answer(openWaiting(body.value))
        : answerProblem(problemDetails('This is not a file that a device has saved.', body.error));
    },
    MOST_BYTES,
  );

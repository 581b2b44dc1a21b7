import { OPEN_WAITING, type OpenWaiting } from '@/formats/requests/waiting';
import { problemDetails } from '@/formats/problem';
import { schema } from '@/formats/schemas';
import { readJson, validate } from '@/formats/validate';
import { openWaiting } from '@/server/people/sealed-waiting';
import { answer, answerProblem, handleFile } from '../../handler';

const check = schema<OpenWaiting>(OPEN_WAITING);
/** A day's photos, as text. */
const MOST_BYTES = 64 * 1024 * 1024;

/** What a device has saved when it was wiped or given up: opened for a lead, who has it sent. */
export const POST = (request: Request) =>
  handleFile(
    request,
    'waiting.open',
    null,
    ['application/json'],
    (text) => {
      const json = readJson(text);
      const body = json.ok ? validate(check, json.value) : json;
      return Promise.resolve(
        body.ok
          ? answer(openWaiting(body.value))
          : answerProblem(problemDetails('This is not a file that a device has saved.', body.error)),
      );
    },
    MOST_BYTES,
  );

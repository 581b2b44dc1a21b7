import { problemDetails } from '@/formats/problem';
import { answerProblem, guard, readText } from '../handler';
import { judgeText } from '@/application/judging/judge-document';

/** The same file as `./mudflat judge` takes, the same answer. */
export const POST = (request: Request) =>
  guard(async () => {
    const text = await readText(request, 'application/json');
    if (text instanceof Response) return text;
    const judged = judgeText(text);
    return judged.ok ? Response.json(judged.value) : answerProblem(problemDetails('The input is wrong.', judged.error));
  });

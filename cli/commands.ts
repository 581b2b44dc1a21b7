import { readFileSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { LOGGER_USAGE, writeLogger } from './logger';
import { problemDetails } from '../formats/problem';
import { explainCodes } from '../formats/codes';
import type { Result } from '../core/foundation/result';
import { judgeText } from '../application/judging/judge-document';
import { solveText } from '../application/circuits/solve-document';
import { answerTraceText } from '../application/traces/answer';
import { diagnoseText } from '../application/diagnosis/diagnose-document';

/**
 * Headless commands. Each answers with one JSON document on standard output. Some read a file or `-`, some
 * take words.
 */
const FROM_FILE: Readonly<Record<string, (text: string, folder: string) => Result<unknown>>> = {
  judge: judgeText,
  circuit: solveText,
  diagnose: diagnoseText,
  trace: (text, folder) => answerTraceText(text, (path) => readFileSync(resolve(folder, path))),
};
const FROM_WORDS: Readonly<Record<string, (words: readonly string[]) => Result<unknown>>> = { codes: explainCodes };

const EXIT_INPUT_WRONG = 2;

/** Where a command reads and writes. */
export interface Streams {
  readonly input: () => string;
  readonly out: (text: string) => void;
  readonly err: (text: string) => void;
}

/** Runs one command; returns its exit code: 0 done, 2 the input is wrong. */
export function runCommand(args: readonly string[], streams: Streams): number {
  const [command = '', file, ...rest] = args;
  const ofWords = Object.hasOwn(FROM_WORDS, command) ? FROM_WORDS[command] : undefined;
  if (ofWords && file !== undefined)
    return answer(ofWords(file === '-' && rest.length === 0 ? [streams.input()] : args.slice(1)), command, streams);
  if (command === 'logger' && file !== undefined) return answer(writeLogger(file, rest), command, streams);
  const run = Object.hasOwn(FROM_FILE, command) ? FROM_FILE[command] : undefined;
  if (!run || file === undefined || rest.length) {
    streams.err(`${USAGE}\n`);
    return EXIT_INPUT_WRONG;
  }
  let text: string;
  try {
    text = file === '-' ? streams.input() : readFileSync(file, 'utf8');
  } catch (error) {
    streams.err(`${file} cannot be read: ${(error as Error).message}\n`);
    return EXIT_INPUT_WRONG;
  }
  return answer(run(text, file === '-' ? '.' : dirname(file)), file, streams);
}

const USAGE = `Usage: ./mudflat ${Object.keys(FROM_FILE).join('|')} FILE   (FILE or - for standard input)
       ./mudflat codes CODE...   (such as P0672 or SPN 653 FMI 5; - reads standard input)
       ${LOGGER_USAGE}`;

function answer(result: Result<unknown>, source: string, { out, err }: Streams): number {
  if (result.ok) {
    out(`${JSON.stringify(result.value, null, 2)}\n`);
    return 0;
  }
  for (const { path, message } of result.error) err(`${path || source}: ${message}\n`);
  out(`${JSON.stringify(problemDetails('The input is wrong.', result.error), null, 2)}\n`);
  return EXIT_INPUT_WRONG;
}

import { readFileSync } from 'node:fs';
import { problemDetails } from '../formats/problem';
import { explainCodes } from '../formats/codes';
import { judgeText } from '../formats/test-set';
import type { Result } from '../core/result';

/** Headless commands. Each answers with one JSON document on standard output. Some read a file or `-`, some take words. */
const FROM_FILE: Readonly<Record<string, (text: string) => Result<unknown>>> = { judge: judgeText };
const FROM_WORDS: Readonly<Record<string, (words: readonly string[]) => Result<unknown>>> = { codes: explainCodes };

const EXIT_INPUT_WRONG = 2;
const EXIT_OTHER = 1;

function main(args: readonly string[]): number {
  const [command = '', file, ...rest] = args;
  const ofWords = Object.hasOwn(FROM_WORDS, command) ? FROM_WORDS[command] : undefined;
  if (ofWords && file !== undefined) return answer(ofWords(file === '-' && rest.length === 0 ? [readFileSync(0, 'utf8')] : args.slice(1)), command);
  const run = Object.hasOwn(FROM_FILE, command) ? FROM_FILE[command] : undefined;
  if (!run || file === undefined || rest.length) {
    process.stderr.write(`${USAGE}\n`);
    return EXIT_INPUT_WRONG;
  }
  let text: string;
  try {
    text = readFileSync(file === '-' ? 0 : file, 'utf8');
  } catch (error) {
    process.stderr.write(`${file} cannot be read: ${(error as Error).message}\n`);
    return EXIT_INPUT_WRONG;
  }
  return answer(run(text), file);
}

const USAGE = `Usage: ./mudflat ${Object.keys(FROM_FILE).join('|')} FILE   (FILE or - for standard input)
       ./mudflat codes CODE...   (such as P0672 or SPN 653 FMI 5; - reads standard input)`;

function answer(result: Result<unknown>, source: string): number {
  if (result.ok) {
    process.stdout.write(`${JSON.stringify(result.value, null, 2)}\n`);
    return 0;
  }
  for (const { path, message } of result.error) process.stderr.write(`${path || source}: ${message}\n`);
  process.stdout.write(`${JSON.stringify(problemDetails('The input is wrong.', result.error), null, 2)}\n`);
  return EXIT_INPUT_WRONG;
}

try {
  process.exitCode = main(process.argv.slice(2));
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.stack ?? error.message : String(error)}\n`);
  process.exitCode = EXIT_OTHER;
}

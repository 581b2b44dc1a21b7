import { readFileSync } from 'node:fs';
import { problemDetails } from '../formats/problem';
import { judgeText } from '../formats/test-set';
import type { Result } from '../core/result';

/** Headless commands. Each reads a file or `-` and answers with one JSON document on standard output. */
const COMMANDS: Readonly<Record<string, (text: string) => Result<unknown>>> = {
  judge: judgeText,
};

const EXIT_INPUT_WRONG = 2;
const EXIT_OTHER = 1;

function main(args: readonly string[]): number {
  const [command = '', file, ...rest] = args;
  const run = Object.hasOwn(COMMANDS, command) ? COMMANDS[command] : undefined;
  if (!run || file === undefined || rest.length) {
    process.stderr.write(`Usage: ./mudflat ${run ? command : Object.keys(COMMANDS).join('|')} FILE   (FILE or - for standard input)\n`);
    return EXIT_INPUT_WRONG;
  }
  let text: string;
  try {
    text = readFileSync(file === '-' ? 0 : file, 'utf8');
  } catch (error) {
    process.stderr.write(`${file} cannot be read: ${(error as Error).message}\n`);
    return EXIT_INPUT_WRONG;
  }
  const result = run(text);
  if (result.ok) {
    process.stdout.write(`${JSON.stringify(result.value, null, 2)}\n`);
    return 0;
  }
  for (const { path, message } of result.error) process.stderr.write(`${path || file}: ${message}\n`);
  process.stdout.write(`${JSON.stringify(problemDetails('The input is wrong.', result.error), null, 2)}\n`);
  return EXIT_INPUT_WRONG;
}

try {
  process.exitCode = main(process.argv.slice(2));
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.stack ?? error.message : String(error)}\n`);
  process.exitCode = EXIT_OTHER;
}

import { readFileSync } from 'node:fs';
import { runCommand } from './commands';

const EXIT_OTHER = 1;

try {
  process.exitCode = runCommand(process.argv.slice(2), {
    input: () => readFileSync(0, 'utf8'),
    out: (text) => process.stdout.write(text),
    err: (text) => process.stderr.write(text),
  });
} catch (error) {
  process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`);
  process.exitCode = EXIT_OTHER;
}

import { superfluous } from './backups';

/** Names of backups on standard input, those that may go on standard output. The first argument is today. */
let text = '';
process.stdin.setEncoding('utf8');
process.stdin.on('data', (chunk) => (text += String(chunk)));
process.stdin.on('end', () => {
  for (const name of superfluous(text.split('\n').filter(Boolean), process.argv[2] ?? ''))
    process.stdout.write(`${name}\n`);
});

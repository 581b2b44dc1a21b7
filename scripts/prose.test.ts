import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { PROSE_COLUMNS } from './lint-rules.mjs';

/**
 * Lines of prose that are too wide, by number. Rows of tables, code, and what has no space to break at are
 * none.
 */
function tooWide(text: string): number[] {
  let isCode = false;
  return text.split('\n').flatMap((line, i) => {
    if (line.startsWith('```')) isCode = !isCode;
    const isProse = !isCode && !line.startsWith('|') && !line.startsWith('    ');
    return isProse && line.length > PROSE_COLUMNS && /\S \S/.test(line.slice(0, PROSE_COLUMNS)) ? [i + 1] : [];
  });
}

test('documents are wrapped', () => {
  const files = execFileSync('git', ['ls-files', '*.md'], { encoding: 'utf8' }).trim().split('\n');
  expect(files.length).toBeGreaterThan(30);
  const wide = files.flatMap((file) => tooWide(readFileSync(file, 'utf8')).map((line) => `${file}:${line}`));
  expect(wide).toEqual([]);
});

test('what is too wide is found; tables, code and addresses may be', () => {
  const long = 'word '.repeat(30);
  expect(tooWide(['short', long, `| ${long}`, `    ${long}`, '```', long, '```', 'x'.repeat(200)].join('\n'))).toEqual([
    2,
  ]);
});

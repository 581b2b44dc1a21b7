/**
 * Writes words/catalogue.json anew: every text for people, and where it stands.
 *
 *   npm run words
 */
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { CATALOGUE } from '../core/catalogue/catalogue';
import { CIRCUITS } from '../core/circuits/library';
import { CALCULATIONS } from '../core/calculations/calculations';
import { SEQUENCES } from '../core/repair/sequences';
import { partName } from '../core/evidence/rules';
import { type Found, textsIn, textsOfData } from './texts';
import { textsOfPage, YARD_PAGE } from './yard-page';

export const WORDS_FILE = 'words/catalogue.json';
const FOLDERS = ['app', 'application', 'core', 'formats', 'print', 'server', 'ui', 'workers'];
/** Nothing here is shown to a person. */
const SILENT =
  /\.test\.tsx?$|^server\/(?:db|testing|upgrade|locale)\/|^core\/(?:solver|numerics|locale|simulate)\/|^ui\/locale\/(?:jsx|translate)/;

const sources = (): string[] =>
  execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard', ...FOLDERS], { encoding: 'utf8' })
    .split('\n')
    .filter((f) => /\.tsx?$/.test(f) && !SILENT.test(f));

/** Every text, in the order of the alphabet. */
export function allTexts(): Readonly<Record<string, readonly string[]>> {
  const found: Found = textsIn(sources());
  for (const [name, data] of Object.entries({
    tests: CATALOGUE,
    circuits: CIRCUITS,
    calculations: CALCULATIONS,
    sequences: SEQUENCES,
  }))
    textsOfData(data, name, found);
  for (const text of textsOfPage(readFileSync(YARD_PAGE, 'utf8')))
    found.set(text, new Set([...(found.get(text) ?? []), YARD_PAGE]));
  // Several of a part: a translation has a word for them.
  for (const part of new Set(CATALOGUE.map(partName)))
    for (const name of [part, `${part}s`]) found.set(name, new Set(['parts']));
  return Object.fromEntries(
    [...found].toSorted(([a], [b]) => (a < b ? -1 : 1)).map(([text, where]) => [text, [...where].toSorted()]),
  );
}

export const wordsFile = (): string => `${JSON.stringify({ name: 'English', texts: allTexts() }, null, 1)}\n`;

if (process.argv[1]?.endsWith('scripts/words.ts')) writeFileSync(WORDS_FILE, wordsFile());

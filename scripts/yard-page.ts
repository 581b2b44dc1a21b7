/**
 * The page by which a tablet takes the certificate, in every language of which there is a translation. It
 * stands before anybody has signed in, and outside of the application, so each language is a page of its own
 * with the others named above.
 *
 *   npx tsx scripts/yard-page.ts ADDRESS FOLDER
 */
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { Translation } from '../core/locale/locale';
import { type Language, languages, translationOf } from '../server/locale/translations';

export const YARD_PAGE = 'scripts/yard-page.html';

const MARKED = /\{\{([^]*?)\}\}/g;
const joined = (text: string): string => text.replace(/\s+/g, ' ').trim();
const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

/** Every text of the page, as the catalogue of words knows it. */
export const textsOfPage = (page: string): string[] => [...page.matchAll(MARKED)].map(([, text = '']) => joined(text));

/** The first language is the one that the page opens in. */
const fileOf = (code: string, all: readonly Language[]): string =>
  code === all[0]?.code ? 'index.html' : `${code}.html`;

/**
 * The page in one language; what a translation leaves out stays English. `address`: where the application is.
 */
export function yardPage(
  page: string,
  address: string,
  { code }: Pick<Language, 'code'>,
  words: Translation | null,
  all: readonly Language[],
): string {
  const links = all.map((l) =>
    l.code === code
      ? `<b>${escaped(l.name)}</b>`
      : `<a href="/${fileOf(l.code, all)}" lang="${l.code}">${escaped(l.name)}</a>`,
  );
  return page
    .replace(MARKED, (_, text: string) => escaped(words?.[joined(text)] ?? joined(text)))
    .replace('@LANGUAGE@', code)
    .replace('@LANGUAGES@', all.length > 1 ? `<nav>${links.join(' ')}</nav>` : '')
    .replace('@ADDRESS@', escaped(address));
}

function main(address: string, folder: string): void {
  const page = readFileSync(YARD_PAGE, 'utf8');
  const all = languages();
  for (const language of all)
    writeFileSync(
      path.join(folder, fileOf(language.code, all)),
      yardPage(page, address, language, translationOf(language.code), all),
    );
}

const [, script, address, folder] = process.argv;
if (script?.endsWith('scripts/yard-page.ts') && address && folder) main(address, folder);

import { readFileSync } from 'node:fs';
import { pseudoTranslation } from '../core/locale/pseudo';
import { allTexts } from './words';
import { textsOfPage, YARD_PAGE, yardPage } from './yard-page';

const PAGE = readFileSync(YARD_PAGE, 'utf8');
const ENGLISH = { code: 'en', name: 'English' };
const ALL = [ENGLISH, { code: 'nn', name: 'Nynorsk' }];
/** What a person reads of it: texts and names of pictures. */
const read = (page: string): string[] =>
  [
    ...page
      .replace(/<style>[^]*?<\/style>/, '')
      .replace(/<nav>.*<\/nav>/, '')
      .split(/<[^>]*>/),
    ...[...page.matchAll(/aria-label="([^"]*)"/g)].map((m) => m[1] ?? ''),
  ]
    .map((text) => text.trim())
    .filter((text) => /\p{L}{2}/u.test(text));

describe('the page by which a tablet takes the certificate', () => {
  test('has each of its texts in the catalogue of words', () => {
    const texts = textsOfPage(PAGE);
    expect(texts.length).toBeGreaterThan(15);
    const known = allTexts();
    for (const text of texts) expect(known[text]).toContain(YARD_PAGE);
  });

  test('in another language nothing of it stays English but the names of formats', () => {
    const words = Object.fromEntries(textsOfPage(PAGE).map((t) => [t, pseudoTranslation([t])[t] ?? '']));
    const own = read(yardPage(PAGE, 'https://box:8443', { code: 'nn' }, words, ALL));
    expect(own.filter((text) => Object.hasOwn(words, text))).toEqual([]);
    expect(own.filter((text) => !Object.values(words).includes(text))).toEqual(['.crt', 'https://…']);
  });

  test('names the others above, and leads to the application', () => {
    const page = yardPage(PAGE, 'https://box:8443', ENGLISH, null, ALL);
    expect(page).toContain('<html lang="en">');
    expect(page).toContain('<nav><b>English</b> <a href="/nn.html" lang="nn">Nynorsk</a></nav>');
    expect(page).toContain('href="https://box:8443"');
    expect(page).not.toMatch(/\{\{|\}\}|@[A-Z]+@/);
    // English alone has nothing to choose.
    expect(yardPage(PAGE, 'https://box', ENGLISH, null, [ENGLISH])).not.toContain('<nav>');
  });
});

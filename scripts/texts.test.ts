import { readFileSync } from 'node:fs';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { jsxText, looksLikeWords, textsIn, textsOfData } from './texts';
import { allTexts, WORDS_FILE } from './words';

/** Texts of a source file of its own. */
function textsOf(source: string): string[] {
  const folder = mkdtempSync(path.join(tmpdir(), 'texts-'));
  try {
    writeFileSync(path.join(folder, 'a.tsx'), source);
    return [...textsIn(['a.tsx'], folder).keys()];
  } finally {
    rmSync(folder, { recursive: true });
  }
}

test('words/catalogue.json holds every text of the sources: npm run words', () => {
  const kept = (JSON.parse(readFileSync(WORDS_FILE, 'utf8')) as { texts: unknown }).texts;
  expect(Object.keys(kept as object)).toEqual(Object.keys(allTexts()));
});

test.each([
  ['const a = tr`${name} reads ${value}`;', ['{0} reads {1}']],
  ['const a = tr`${n} ${n === 1 ? "test" : "tests"}`;', ['test', 'tests']],
  ['const a = <p className="flex gap-2">Press <b>Enter</b> to save {n}</p>;', ['Press {0} to save {1}', 'Enter']],
  ['const a = <p>\n  One line\n  and another\n</p>;', ['One line and another']],
  ['const a = <Field label="Name of it" id="f-name" />;', ['Name of it']],
  ['const WORDS = { high: "high", low: "low" };', ['high', 'low']],
  ['const a = { kind: "high", say: "Read it again." };', ['Read it again.']],
  ['if (kind === "one of them") throw new Error("never of this kind");', []],
  ['throw new Unreadable("at line 3", () => tr`No ${what} in it`);', ['No {0} in it']],
  ['const a = sql`select one from two`;', []],
  ['import a from "a b";', []],
])('%s', (source, texts) => expect(textsOf(source).toSorted()).toEqual(texts.toSorted()));

test.each([
  ['Type the PIN.', true],
  ['Workshop', true],
  ['kebab-name', false],
  ['inline-flex min-h-12 items-center gap-2', false],
  ['/api/jobs/new one', false],
  ['0.4', false],
])('%s: for people? %s', (text, is) => expect(looksLikeWords(text)).toBe(is));

test('what stands between tags, as React gets it', () => {
  expect(jsxText('\n  Press\n  it now ')).toBe('Press it now ');
  expect(jsxText('a &amp; b&nbsp;c')).toBe('a & b\u00a0c');
});
test('texts in what ships as data', () => {
  const found = new Map<string, Set<string>>();
  textsOfData([{ id: 'x-y', name: 'Coil, right' }, 7, null], 'tests', found);
  expect([...found.keys()]).toEqual(['Coil, right']);
});

import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import type { Translation } from '../../core/locale/locale';
import { PSEUDO, pseudoTranslation } from '../../core/locale/pseudo';

/**
 * Where the files lie: `catalogue.json` with every text, and one file a language. See
 * docs/guide/translating.md.
 */
const FOLDER = path.join(/* turbopackIgnore: true */ process.cwd(), 'words');
const CATALOGUE = 'catalogue.json';

export interface Language {
  /** BCP 47, the name of its file. */
  readonly code: string;
  /** As its own speakers call it. */
  readonly name: string;
}

interface TranslationFile {
  readonly name: string;
  readonly texts: Readonly<Record<string, string>>;
}

const ENGLISH: Language = { code: 'en', name: 'English' };
const kept = globalThis as { mudflatTranslations?: Map<string, Translation> };

const readFile = (name: string): unknown => JSON.parse(readFileSync(path.join(FOLDER, name), 'utf8'));

/** Of a file; texts that it leaves empty stay English. Throws where the file is none. */
function translationIn(file: unknown): TranslationFile {
  const { name, texts } = file as {
    readonly name?: unknown;
    readonly texts?: Readonly<Record<string, unknown>> | null;
  };
  if (typeof name !== 'string' || typeof texts !== 'object' || texts === null)
    throw new Error('A translation is {"name": "…", "texts": {"English": "…"}}.');
  const filled = Object.entries(texts).filter((e): e is [string, string] => typeof e[1] === 'string' && e[1] !== '');
  return { name, texts: Object.fromEntries(filled) };
}

/** Languages that can be chosen: English, and those of which a file lies there. */
export const languages = (): readonly Language[] => [
  ENGLISH,
  ...readdirSync(FOLDER)
    .filter((f) => /^[a-z]{2,3}(?:-[A-Za-z0-9]+)*\.json$/.test(f))
    .toSorted()
    .map((f) => ({ code: f.slice(0, -'.json'.length), name: translationIn(readFile(f)).name })),
];

/** The pseudo-language has no file: it is for finding texts that no translation would reach. */
export const isLanguage = (code: string): boolean => code === PSEUDO || languages().some((l) => l.code === code);

/** The words of a language, read once; `null` for English and where there is no such file. */
export function translationOf(code: string): Translation | null {
  if (code === ENGLISH.code) return null;
  const all = (kept.mudflatTranslations ??= new Map());
  const known = all.get(code);
  if (known) return known;
  const words = readTranslation(code);
  // Anybody may ask for any name: what is not there is not remembered.
  if (words) all.set(code, words);
  return words;
}

function readTranslation(code: string): Translation | null {
  try {
    if (code === PSEUDO) return pseudoTranslation(Object.keys((readFile(CATALOGUE) as TranslationFile).texts));
    return isLanguage(code) ? translationIn(readFile(`${code}.json`)).texts : null;
  } catch {
    return null;
  }
}

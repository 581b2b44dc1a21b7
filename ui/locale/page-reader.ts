'use client';
import { type Locale, PLAIN, type Reader, readFor, type Translation } from '../../core/locale/locale';

/**
 * Who reads this page: the server writes the locale on the page, and the words of a language other than
 * English come as a script before anything is drawn (`app/words`).
 */
interface PageWords {
  readonly language: string;
  readonly texts: Translation;
}
const page = globalThis as { mudflatWords?: PageWords };

/** On a device without the server: whoever has unlocked it, whatever page was kept. */
let unlocked: Reader | null = null;
/** Read once: a page whose reader changes is loaded anew, and every element that is drawn asks. */
let read: Reader | null = null;

function readerOfPage(): Reader | undefined {
  if (unlocked) return unlocked;
  if (read) return read;
  const { locale } = document.documentElement.dataset;
  return locale === undefined ? undefined : (read = readerOf(JSON.parse(locale) as Locale));
}

const readerOf = (locale: Locale): Reader => ({
  locale,
  words: page.mudflatWords?.language === locale.language ? page.mudflatWords.texts : null,
});

if (typeof document !== 'undefined') readFor(readerOfPage);

/** Keeps what a person has chosen on this device, for when there is no server. */
export function rememberLocale(person: string): void {
  const { locale } = document.documentElement.dataset;
  if (locale !== undefined) localStorage.setItem(keyOf(person), locale);
}

const keyOf = (person: string): string => `locale of ${person}`;

/** From here on this person reads, by what was kept on this device. */
export async function readByMemory(person: string): Promise<void> {
  const kept = localStorage.getItem(keyOf(person));
  if (kept === null) {
    // Nobody has chosen on this device: as the page was drawn.
    unlocked = null;
    return;
  }
  const locale = JSON.parse(kept) as Locale;
  if (locale.language !== PLAIN.language && page.mudflatWords?.language !== locale.language)
    await loadWords(locale.language).catch(() => undefined);
  unlocked = readerOf(locale);
}

const loadWords = (language: string): Promise<void> =>
  new Promise((resolve, reject) => {
    const script = document.createElement('script');
    script.src = `/words/${language}`;
    script.onload = () => resolve();
    script.onerror = () => reject(new Error(`the words of ${language} are not here`));
    document.head.append(script);
  });

/**
 * How the person who reads is addressed: language, decimal mark, units and order of dates. What is stored and
 * what programs exchange is always PLAIN; only what a person sees follows this.
 */
export interface Locale {
  /** BCP 47, as the file of its translation is called; `en`: the words as they stand in the sources. */
  readonly language: string;
  readonly decimal: 'point' | 'comma';
  /** `given`: each value in the unit that its limits, or its source, have. */
  readonly units: 'given' | 'metric' | 'imperial';
  readonly dates: 'dmy' | 'mdy' | 'ymd';
}

/**
 * English with a decimal point, units as they are given: of files, of the command line, and where nobody has
 * chosen.
 */
export const PLAIN: Locale = { language: 'en', decimal: 'point', units: 'given', dates: 'dmy' };

export const LOCALE_CHOICES = {
  decimal: ['point', 'comma'],
  units: ['given', 'metric', 'imperial'],
  dates: ['dmy', 'mdy', 'ymd'],
} as const satisfies { readonly [K in 'decimal' | 'units' | 'dates']: readonly Locale[K][] };

/**
 * A translation: what stands in the sources, with {0}, {1} … for what is put in, and what it is in the
 * language.
 */
export type Translation = Readonly<Record<string, string>>;

/** Whoever reads now, with the words of their language; `null`: the words as they stand in the sources. */
export interface Reader {
  readonly locale: Locale;
  readonly words: Translation | null;
}

const NOBODY: Reader = { locale: PLAIN, words: null };

/**
 * Who reads is known to whoever draws: the request on a server, the page in a browser. It is asked for where
 * a text is made, so that no function has to hand it on. One process can hold this module several times, so
 * it is kept beside them.
 */
const shared = globalThis as { mudflatReader?: () => Reader | undefined };

export const currentReader = (): Reader => shared.mudflatReader?.() ?? NOBODY;
export const currentLocale = (): Locale => currentReader().locale;

/** Says who is asked for the reader; `undefined` for nobody: PLAIN. */
export function readFor(ask: (() => Reader | undefined) | undefined): void {
  if (ask) shared.mudflatReader = ask;
  else delete shared.mudflatReader;
}

/** Does the work, which must not wait for anything, as for this reader. */
export function asFor<T>(reader: Reader, work: () => T): T {
  const before = shared.mudflatReader;
  shared.mudflatReader = () => reader;
  try {
    return work();
  } finally {
    readFor(before);
  }
}

/**
 * A locale in one word, to tell what was made for one reader from what was made for another:
 * "en/comma/given/dmy".
 */
export const localeKey = ({ language, decimal, units, dates }: Locale): string =>
  [language, decimal, units, dates].join('/');

import type { AsyncLocalStorage } from 'node:async_hooks';
import { type Locale, PLAIN, type Reader } from '../../core/locale/locale';
import { translationOf } from './translations';

/**
 * Who reads the answer to the request that is being answered. The web server keeps one such place for every
 * request; outside of it (commands, tests) there is none, and texts are plain.
 */
const shared = globalThis as { mudflatRequests?: AsyncLocalStorage<{ reader?: Reader }> };

/** From here on the answer is for a person with this locale; `null`: nobody has chosen. */
export function answerFor(locale: Locale | null): void {
  const request = shared.mudflatRequests?.getStore();
  if (request) request.reader = { locale: locale ?? PLAIN, words: translationOf((locale ?? PLAIN).language) };
}

import type { Metadata } from 'next';
import { word } from '@/core/locale/translate';
import { sessionsHere } from './need-person';

/** The title of a page, in the words of whoever is at the bench. */
export const titled = (title: string) => async (): Promise<Metadata> => {
  await sessionsHere().catch(() => null);
  return { title: word(title) };
};

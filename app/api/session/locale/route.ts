import { CHOOSE_LOCALE, type ChooseLocale } from '@/formats/requests/locale';
import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { chooseLocale } from '@/server/people/people';
import { answer, handleJson } from '../../handler';

const check = schema<ChooseLocale>(CHOOSE_LOCALE);

/** How whoever is at the bench wants to be addressed, on every device. */
export const POST = (request: Request) =>
  handleJson(request, check, 'own.locale', null, async (body, actor) =>
    answer(await chooseLocale(serverDb().db, actor.id, body.locale)),
  );

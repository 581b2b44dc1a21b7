import { languages } from '@/server/locale/translations';

export const dynamic = 'force-dynamic';

/** The languages that this installation has words for. */
export const GET = () => Response.json(languages());

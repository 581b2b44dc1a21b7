import { beat, serverDb } from '@/server/db/connection';
import { guard } from '../handler';

export const dynamic = 'force-dynamic';

export const GET = () =>
  guard(async () => {
    // A database that only reads would take nothing that is typed.
    await beat(serverDb().db);
    return Response.json({ status: 'ok' });
  });

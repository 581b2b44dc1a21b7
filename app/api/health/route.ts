import { ping } from '@/server/queries';
import { serverDb } from '@/server/db';
import { guard } from '../handler';

export const dynamic = 'force-dynamic';

export const GET = () =>
  guard(async () => {
    await ping(serverDb().db);
    return Response.json({ status: 'ok' });
  });

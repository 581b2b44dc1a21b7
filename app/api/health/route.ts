import { ping } from '@/server/jobs/view-job';
import { serverDb } from '@/server/db/connection';
import { guard } from '../handler';

export const dynamic = 'force-dynamic';

export const GET = () =>
  guard(async () => {
    await ping(serverDb().db);
    return Response.json({ status: 'ok' });
  });

import { serverDb } from '@/server/db/connection';
import { copyForDevice } from '@/server/device/copy';
import { handleRead } from '../handler';

export const dynamic = 'force-dynamic';

/** The work of the asker's depot, for a device to go on with while there is no server. */
export const GET = (request: Request) =>
  handleRead(request, async ({ depotId }) => Response.json(await copyForDevice(serverDb().db, depotId)));

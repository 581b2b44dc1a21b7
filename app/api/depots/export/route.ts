import { writeDepotsCsv } from '@/formats/depots-csv';
import { serverDb } from '@/server/db/connection';
import { listDepots } from '@/server/fleet/depots';
import { download, handleRead } from '../../handler';

/** Depots, as the list that can be taken in again. */
export const GET = (request: Request) =>
  handleRead(request, async () => {
    const depots = (await listDepots(serverDb().db)).map((d) => ({ ...d, inUse: !d.retired }));
    return download(writeDepotsCsv(depots), 'text/csv', 'depots.csv');
  });

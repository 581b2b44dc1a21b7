import { writeUnitsCsv } from '@/formats/units-csv';
import { serverDb } from '@/server/db/connection';
import { listUnits } from '@/server/fleet/fleet-list';
import { download, handleRead } from '../../handler';

/** Units in use, as the list that can be taken in again. */
export const GET = (request: Request) =>
  handleRead(request, async () => {
    const units = (await listUnits(serverDb().db)).filter((u) => !u.retired);
    return download(writeUnitsCsv(units), 'text/csv', 'units.csv');
  });

import { writeInstrumentsCsv } from '@/formats/instruments-csv';
import { serverDb } from '@/server/db/connection';
import { listInstruments } from '@/server/instruments/instrument-list';
import { download, handleRead } from '../../handler';

/** Instruments in use, as the list that can be taken in again. */
export const GET = (request: Request) =>
  handleRead(request, async () =>
    download(writeInstrumentsCsv(await listInstruments(serverDb().db)), 'text/csv', 'instruments.csv'),
  );

import { writePeopleCsv } from '@/formats/people-csv';
import { serverDb } from '@/server/db/connection';
import { listPersons } from '@/server/people/people';
import { download, handleRead } from '../../handler';

/** People without their PINs, as the list that can be taken in again. */
export const GET = (request: Request) =>
  handleRead(request, async () => {
    const people = (await listPersons(serverDb().db)).map((p) => ({ ...p, signsIn: !p.retired }));
    return download(writePeopleCsv(people), 'text/csv', 'people.csv');
  });

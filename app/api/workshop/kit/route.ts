import { serverDb } from '@/server/db/connection';
import { starterKit } from '@/server/kit/starter-kit';
import { download, handleRead } from '../../handler';

/** What this workshop knows, as a file that another one can begin with. */
export const GET = (request: Request) =>
  handleRead(request, async () =>
    download(JSON.stringify(await starterKit(serverDb().db), null, 2), 'application/json', 'starter-kit.json'),
  );

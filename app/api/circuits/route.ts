import { schema } from '@/formats/schemas';
import { allCircuits, keepCircuit } from '@/server/catalogue/circuits';
import { serverDb } from '@/server/db/connection';
import { answer, download, handleJson, handleRead } from '../handler';
import { KEEP_CIRCUIT, type KeepCircuit } from '@/formats/requests/catalogue';

const check = schema<KeepCircuit>(KEEP_CIRCUIT);

/** All circuits as a file. */
export const GET = (request: Request) =>
  handleRead(request, async () =>
    download(
      JSON.stringify({ format: 'mudflat/circuits', version: 1, circuits: await allCircuits(serverDb().db) }, null, 2),
      'application/json',
      'circuits.json',
    ),
  );

export const POST = (request: Request) =>
  handleJson(request, check, 'circuits.change', null, async (body) => answer(await keepCircuit(serverDb().db, body)));

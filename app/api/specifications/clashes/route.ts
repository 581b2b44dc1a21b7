import type { SpecificationEntry } from '@/formats/specifications';
import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { lookAt } from '@/server/specifications/specifications';
import { answer, handleJson } from '../../handler';

const check = schema<SpecificationEntry>({ $ref: 'urn:mudflat:shelf:1#/$defs/entry' });

/** What an entry would meet on the shelf. Nothing is stored. */
export const POST = (request: Request) =>
  handleJson(request, check, 'limits.compare', null, async (entry) => answer(await lookAt(serverDb().db, entry)));

import { ADD_SPECIFICATION, type AddSpecification } from '@/formats/requests';
import { schema } from '@/formats/validate';
import { addSpecification } from '@/server/commands';
import { serverDb } from '@/server/db';
import { answer, handleJson } from '../handler';

const check = schema<AddSpecification>(ADD_SPECIFICATION);

export const POST = (request: Request) => handleJson(request, check, async (body) => answer(await addSpecification(serverDb().db, body)));

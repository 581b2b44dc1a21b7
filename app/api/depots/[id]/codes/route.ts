import { schema } from '@/formats/schemas';
import { describeCode } from '@/server/evidence/codes';
import { serverDb } from '@/server/db/connection';
import { answer, answerNotFound, handleJson, isId } from '../../../handler';
import { DESCRIBE_CODE, type DescribeCode } from '@/formats/requests/codes';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<DescribeCode>(DESCRIBE_CODE);

export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  if (!isId(id)) return answerNotFound('depot');
  return handleJson(request, check, 'depot.describe-codes', id, async (body) =>
    answer(await describeCode(serverDb().db, id, body)),
  );
}

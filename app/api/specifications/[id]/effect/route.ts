import { schema } from '@/formats/schemas';
import { serverDb } from '@/server/db/connection';
import { applyLimits, effectOf } from '@/server/readings/apply-limits';
import { answer, answerNotFound, answerProblem, handleJson, handleRead, isId } from '../../../handler';
import { APPLY_LIMITS, type ApplyLimits } from '@/formats/requests/specifications';

interface Context {
  params: Promise<{ id: string }>;
}
const check = schema<ApplyLimits>(APPLY_LIMITS);

/** What the specification would change in open jobs. Nothing is stored. */
export const GET = (request: Request, { params }: Context) =>
  handleRead(request, async () => {
    const { id } = await params;
    if (!isId(id)) return answerNotFound('specification');
    const effects = await effectOf(serverDb().db, id);
    return effects.ok ? Response.json({ effects: effects.value }) : answerProblem(effects.error);
  });

/** Judges the named runs by it. */
export const POST = (request: Request, { params }: Context) =>
  handleJson(request, check, 'limits.apply', null, async (body, actor) => {
    const { id } = await params;
    return isId(id) ? answer(await applyLimits(serverDb().db, id, body, actor)) : answerNotFound('specification');
  });

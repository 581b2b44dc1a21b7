import { asc, eq } from 'drizzle-orm';
import { joinAnd } from '../core/quantity/print';
import type { ProblemDetails } from '../formats/problem';
import type { Result } from '../core/result';
import type { Db, Tx } from './db';
import { refuse } from './refusal';
import { person } from './schema';

/** Refuses unless `by` is a lead; the refusal says who may. */
export async function requireLead(db: Db | Tx, by: string, what: string): Promise<Result<never, ProblemDetails> | null> {
  const leads = await db.select({ name: person.name }).from(person).where(eq(person.role, 'lead')).orderBy(asc(person.name));
  if (leads.some((l) => l.name === by)) return null;
  const who = leads.length ? `${joinAnd(leads.map((l) => l.name))} may.` : 'There is no lead yet.';
  return refuse('Only a lead may do this.', [{ path: '/by', message: `Only a lead may ${what}: ${who}` }], 403);
}

import { tr } from '../../core/locale/translate';
import { desc, eq } from 'drizzle-orm';
import type { LeadMap } from '../../core/signal/lead-map';
import type { WriteLeads } from '../../formats/requests/traces';
import type { Db } from '../db/connection';
import { type Done, notFound, refuse } from '../db/refusal';
import { job, leadMap } from '../db/schema';
import { append } from '../journal/append';

/** Keeps which lead goes to which pin. No lead goes to two, and no pin has two. */
export async function writeLeads(db: Db, jobId: string, { id, by, ...body }: WriteLeads): Promise<Done> {
  if (!(await db.$count(job, eq(job.id, jobId)))) return notFound('job');
  const problems = body.leads.flatMap((l, i) => {
    const before = body.leads.slice(0, i);
    const isTwice = before.some((o) => o.lead.trim().toLowerCase() === l.lead.trim().toLowerCase());
    const same = l.pin && before.find((o) => o.pin === l.pin && o.connector === l.connector);
    return [
      ...(isTwice ? [{ path: `/leads/${i}/lead`, message: tr`Lead ${l.lead} is there twice.` }] : []),
      ...(same ? [{ path: `/leads/${i}/pin`, message: tr`Lead ${same.lead} is on this pin already.` }] : []),
    ];
  });
  return problems.length
    ? refuse('Some fields are wrong.', problems)
    : append(db, leadMap, { id, jobId, body, recordedBy: by });
}

/** The newest plan of leads of a job, with who wrote it; `null`: there is none. */
export async function leadsOf(db: Db, jobId: string): Promise<(LeadMap & { readonly by: string }) | null> {
  const [row] = await db
    .select()
    .from(leadMap)
    .where(eq(leadMap.jobId, jobId))
    .orderBy(desc(leadMap.sequence))
    .limit(1);
  return row ? { ...row.body, by: row.recordedBy } : null;
}

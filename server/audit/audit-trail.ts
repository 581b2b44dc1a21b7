import { tr } from '../../core/locale/translate';
import { createHash } from 'node:crypto';
import { asc, eq, sql } from 'drizzle-orm';
import type { AuditEvent, Verified } from '../../application/views';
import type { Db } from '../db/connection';
import { job, jobEvent, jobHead } from '../db/schema';
import { kindWords } from '../journal/record-kinds';

/**
 * The hash of an event: SHA-256 over lines of the hash before it, its number, kind, row, person, moment (UTC,
 * microseconds) and content. The triggers compute the same; anybody can check a trail with this and nothing
 * of the database.
 */
export function hashOf(e: {
  readonly previous: string;
  readonly number: number;
  readonly kind: string;
  readonly rowId: string;
  readonly by: string;
  readonly at: string;
  readonly content: string;
}): string {
  return createHash('sha256')
    .update([e.previous, e.number, e.kind, e.rowId, e.by, e.at, e.content].join('\n'))
    .digest('hex');
}

interface Checked {
  readonly number: number;
  readonly kind: string;
  readonly row_id: string;
  readonly recorded_by: string;
  readonly at_text: string;
  readonly content: string;
  readonly previous: string;
  readonly hash: string;
  /** The row as it stands now, in the same form; `null` where it is gone. */
  readonly now: string | null;
}

/**
 * Checks the trail of a job: the chain itself, each row against what was hashed, rows that are in no event.
 * `null` where there is no such job.
 */
export async function verifyJob(db: Db, jobId: string): Promise<Verified | null> {
  const [there] = await db.select({ number: job.number }).from(job).where(eq(job.id, jobId));
  if (!there) return null;
  const { rows: events } = await db.execute<Checked & Record<string, unknown>>(sql`
    select number, kind, row_id, recorded_by, mudflat_moment(at) as at_text, content, previous, hash, mudflat_row(kind, row_id) as now from job_event where job_id = ${jobId} order by number`);
  const { rows: strays } = await db.execute<{ kind: string; row_id: string } & Record<string, unknown>>(
    sql`select kind, row_id from mudflat_stray_rows(${jobId})`,
  );
  const [head] = await db.select().from(jobHead).where(eq(jobHead.jobId, jobId));
  const last = events.at(-1);
  const faults = [
    ...chainFaults(events),
    ...(head && (head.number !== (last?.number ?? 0) || head.hash !== (last?.hash ?? ''))
      ? [
          {
            number: head.number,
            what: tr`The trail ends at event ${last?.number ?? 0}, it should end at ${head.number}: events are missing at its end, or were added.`,
          },
        ]
      : []),
    ...(head ? [] : [{ number: 0, what: 'The trail has no end noted.' }]),
    ...events.flatMap(rowFaults),
    ...strays.map((s) => ({
      number: 0,
      what: tr`A ${kindWords(s.kind)} stands in the database and in no event: ${s.row_id}.`,
    })),
  ];
  return {
    format: 'mudflat/trail',
    version: 1,
    job: there.number,
    events: events.length,
    intact: faults.length === 0,
    head: last?.hash ?? '',
    faults,
  };
}

type Fault = Verified['faults'][number];

function chainFaults(events: readonly Checked[]): Fault[] {
  let previous = '';
  return events.flatMap((e, i) => {
    const faults: Fault[] = [];
    if (e.number !== i + 1) faults.push({ number: e.number, what: tr`Event ${i + 1} is missing.` });
    if (e.previous !== previous)
      faults.push({ number: e.number, what: tr`Event ${e.number} does not follow the one before it.` });
    if (
      hashOf({
        previous: e.previous,
        number: e.number,
        kind: e.kind,
        rowId: e.row_id,
        by: e.recorded_by,
        at: e.at_text,
        content: e.content,
      }) !== e.hash
    )
      faults.push({ number: e.number, what: tr`Event ${e.number} was changed: its hash is not that of its content.` });
    previous = e.hash;
    return faults;
  });
}

function rowFaults(e: Checked): Fault[] {
  const what = tr`${kindWords(e.kind)} of event ${e.number} (${e.recorded_by}, ${e.row_id})`;
  if (e.now === null) return [{ number: e.number, what: tr`The ${what} is gone from the database.` }];
  if (e.now === e.content) return [];
  const [was, is] = [JSON.parse(e.content) as Record<string, unknown>, JSON.parse(e.now) as Record<string, unknown>];
  // A column that a newer schema has was not there to be hashed: it says nothing of what was written then.
  const changed = Object.keys(was).filter((k) => JSON.stringify(was[k]) !== JSON.stringify(is[k]));
  if (changed.length === 0) return [];
  return [
    {
      number: e.number,
      what: tr`The ${what} was changed in the database: ${changed.map((k) => tr`${k} was ${short(was[k])}, is ${short(is[k])}`).join('; ')}.`,
    },
  ];
}

const short = (value: unknown): string => {
  const text = JSON.stringify(value ?? null);
  return text.length > 80 ? `${text.slice(0, 77)}...` : text;
};

/** The events of a job without their contents. */
export const auditTrailOf = async (db: Db, jobId: string): Promise<AuditEvent[]> =>
  (
    await db
      .select({
        number: jobEvent.number,
        kind: jobEvent.kind,
        rowId: jobEvent.rowId,
        by: jobEvent.recordedBy,
        at: jobEvent.at,
      })
      .from(jobEvent)
      .where(eq(jobEvent.jobId, jobId))
      .orderBy(asc(jobEvent.number))
  ).map((e) => ({ ...e, kind: kindWords(e.kind), at: e.at.toISOString() }));

/** A job by its number or id. */
export async function findJob(db: Db, text: string): Promise<string | null> {
  const byNumber = /^\d{1,9}$/.test(text);
  if (!byNumber && !/^[0-9a-f-]{36}$/i.test(text)) return null;
  const [row] = await db
    .select({ id: job.id })
    .from(job)
    .where(byNumber ? eq(job.number, Number(text)) : eq(job.id, text));
  return row?.id ?? null;
}

import { createHash } from 'node:crypto';
import { sql } from 'drizzle-orm';
import { canonical } from '../../formats/canonical';
import type { Db } from '../db/connection';
import { RECORD_KIND_NAMES, RECORD_KINDS } from '../journal/record-kinds';
import { viewReport } from '../jobs/report';

/**
 * What released jobs show, as it is stored: each row of a released job with its columns of now. Read before
 * an upgrade, by whichever version, and compared after it: what is shown of a released job is what was stored
 * with it, so a row that is the same shows the same.
 */
export interface ReleasedFacts {
  readonly format: 'mudflat/released-facts';
  readonly version: 1;
  /** Columns that are compared, by table: what a newer schema adds is no difference. */
  readonly columns: Readonly<Record<string, readonly string[]>>;
  /** Released jobs by id: number and hash of all their rows, and where their trail ends. */
  readonly jobs: Readonly<Record<string, { readonly number: number; readonly hash: string; readonly head: string }>>;
}

/** Kept beside the record and made anew at any time. */
const isReleased = sql`closed_at is not null`;

export async function releasedFacts(db: Db, columns?: ReleasedFacts['columns']): Promise<ReleasedFacts> {
  const compared = columns ?? (await columnsNow(db));
  const { rows } = await db.execute<{ id: string; number: number; head: string | null }>(
    sql`select j.id, j.number, h.hash as head from job j left join job_head h on h.job_id = j.id where ${isReleased} order by j.number`,
  );
  const jobs: Record<string, { number: number; hash: string; head: string }> = {};
  for (const { id, number, head } of rows)
    jobs[id] = { number, head: head ?? '', hash: await hashOf(db, id, compared) };
  return { format: 'mudflat/released-facts', version: 1, columns: compared, jobs };
}

async function columnsNow(db: Db): Promise<Record<string, string[]>> {
  const { rows } = await db.execute<{ table: string; column: string }>(
    sql`select table_name as "table", column_name as "column" from information_schema.columns
        where table_schema = 'public' order by table_name, ordinal_position`,
  );
  const columns: Record<string, string[]> = {};
  for (const { table, column } of rows) if (table in RECORD_KINDS) (columns[table] ??= []).push(column);
  return columns;
}

/** SHA-256 of all rows of a job, in the order of the kinds and of their ids. */
async function hashOf(db: Db, jobId: string, columns: ReleasedFacts['columns']): Promise<string> {
  const hash = createHash('sha256');
  for (const kind of RECORD_KIND_NAMES) {
    const own = columns[kind];
    if (!own) continue;
    const list = sql.join(
      own.map((c) => sql.identifier(c)),
      sql`, `,
    );
    const { belongs } = RECORD_KINDS[kind];
    const where =
      belongs === 'is the job'
        ? sql`id = ${jobId}`
        : belongs === 'by job_id'
          ? sql`job_id = ${jobId}`
          : sql`run_id in (select id from test_run where job_id = ${jobId})`;
    const { rows } = await db.execute<{ row: unknown }>(
      sql`select to_jsonb(t) as row from (select ${list} from ${sql.identifier(kind)} where ${where} order by id) t`,
    );
    hash.update(`${kind}\n${rows.map((r) => canonical(r.row)).join('\n')}\n`);
  }
  return hash.digest('hex');
}

/**
 * What is other than it was, a line each; `[]`: every released job is as it was, opens, and its trail holds.
 */
export async function changesSince(db: Db, before: ReleasedFacts): Promise<string[]> {
  const wrong: string[] = [];
  const now = await columnsNow(db);
  for (const [table, columns] of Object.entries(before.columns))
    for (const c of columns) if (!now[table]?.includes(c)) wrong.push(`${table}: there is no column ${c} any more`);
  if (wrong.length) return wrong;
  const after = await releasedFacts(db, before.columns);
  for (const [id, { number, hash, head }] of Object.entries(before.jobs)) {
    const own = after.jobs[id];
    if (!own) wrong.push(`job ${number}: it is not there, or not released, any more`);
    else if (own.hash !== hash) wrong.push(`job ${number}: what was stored with it has changed`);
    else if (own.head !== head) wrong.push(`job ${number}: its trail ends elsewhere`);
    else wrong.push(...(await opensAndHolds(db, id, number)));
  }
  return wrong;
}

/** The new version draws it, and every verdict that it draws is the stored one. */
async function opensAndHolds(db: Db, id: string, number: number): Promise<string[]> {
  try {
    const report = await viewReport(db, id);
    if (!report) return [`job ${number}: it does not open`];
    if (!report.verified.intact) return [`job ${number}: its trail does not hold`];
    return report.runs.flatMap((run) =>
      run.readings.flatMap((r) => {
        const shown = run.judgement.readings.find((j) => j.position === r.position);
        const isSuperseded = run.readings.some((other) => other.supersedes === r.id);
        return isSuperseded || shown?.verdict === r.judged.verdict
          ? []
          : [
              `job ${number}: ${r.entry} at ${r.position} was ${r.judged.verdict} and would be ${shown?.verdict ?? 'gone'}`,
            ];
      }),
    );
  } catch (error) {
    return [`job ${number}: ${error instanceof Error ? error.message : String(error)}`];
  }
}

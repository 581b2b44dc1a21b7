import { type SQL, sql } from 'drizzle-orm';
import { CORE_VERSION } from '../../core/foundation/version';
import type { DeviceCopy, TableCopy } from '../../formats/device-copy';
import type { Db, Tx } from '../db/connection';

/**
 * What a device takes with it, to go on without the server: the open jobs of its depot with all that is
 * written in them, of their units' earlier jobs and of what was found on the same engines what weighs in
 * them, and what a workshop knows: catalogue, limits, circuits, service data, instruments. Rows as they are
 * stored, by table: on the device the same commands and views run over them.
 *
 * It holds no PIN, no session and no photo in full size.
 */

/** Open jobs at most, the newest: more is no day's work. */
const MOST_JOBS = 300;
/** Earlier jobs of a unit, and findings of an engine family: as many as are weighed. */
const EARLIER = 30;
const FINDINGS = 200;

interface Scope {
  /** Jobs with all that is written in them. */
  readonly open: readonly string[];
  /** Jobs of which only what weighs elsewhere is taken. */
  readonly known: readonly string[];
  readonly units: readonly string[];
  readonly depots: readonly string[];
}

/** `depotId`: whose work it is; `null`: of all depots. */
export async function copyForDevice(db: Db, depotId: string | null): Promise<DeviceCopy> {
  return db.transaction(
    async (tx) => {
      const scope = await scopeOf(tx, depotId);
      const tables: TableCopy[] = [];
      for (const [name, { columns, where }] of Object.entries(TABLES))
        tables.push(await tableCopy(tx, name, columns, where(scope)));
      const [moment] = (await tx.execute<{ now: Date | string }>(sql`select now()`)).rows;
      return {
        format: 'mudflat/device-copy',
        version: 1,
        core: CORE_VERSION,
        madeAt: new Date(moment?.now ?? 0).toISOString(),
        depotId,
        tables,
      };
    },
    { isolationLevel: 'repeatable read', accessMode: 'read only' },
  );
}

async function scopeOf(tx: Tx, depotId: string | null): Promise<Scope> {
  const ids = async (query: SQL): Promise<string[]> => (await tx.execute<{ id: string }>(query)).rows.map((r) => r.id);
  const open = await ids(sql`
    select j.id from job j join unit u on u.id = j.unit_id
    where j.closed_at is null and ${depotId === null ? sql`true` : sql`u.depot_id = ${depotId}`}
    order by j.number desc limit ${MOST_JOBS}`);
  const known = await ids(sql`
    with own as (select distinct u.id, u.engine_family_id from job j join unit u on u.id = j.unit_id where j.id = ${any(open)}),
    earlier as (
      select j.id, row_number() over (partition by j.unit_id order by j.number desc) as back
      from job j where j.unit_id in (select id from own)),
    found as (
      select f.job_id as id, row_number() over (partition by u.engine_family_id order by f.sequence desc) as back
      from finding f join job j on j.id = f.job_id join unit u on u.id = j.unit_id
      where u.engine_family_id in (select engine_family_id from own))
    select id from earlier where back <= ${EARLIER} union select id from found where back <= ${FINDINGS}`);
  const units = await ids(sql`
    select id from unit where ${depotId === null ? sql`true` : sql`depot_id = ${depotId}`}
    union select unit_id from job where id = ${any([...open, ...known])}`);
  const depots = await ids(
    sql`select id from depot where ${depotId === null ? sql`true` : sql`id = ${depotId}`} union select depot_id from unit where id = ${any(units)}`,
  );
  return { open, known: known.filter((id) => !open.includes(id)), units, depots };
}

const any = (ids: readonly string[]): SQL => sql`any(${sql.param([...ids])}::uuid[])`;
const all = (): SQL => sql`true`;
const ofDepots = ({ depots }: Scope): SQL => sql`depot_id = ${any(depots)}`;
const ofOpen = ({ open }: Scope): SQL => sql`job_id = ${any(open)}`;
const ofJobs = ({ open, known }: Scope): SQL => sql`job_id = ${any([...open, ...known])}`;
const ofRuns = ({ open }: Scope): SQL => sql`run_id in (select id from test_run where job_id = ${any(open)})`;

/** `columns`: `null` for all that are stored. In the order in which they refer to each other. */
const table = (where: (scope: Scope) => SQL, columns: readonly string[] | null = null) => ({ where, columns });

const TABLES: Readonly<Record<string, ReturnType<typeof table>>> = {
  installation: table(all, ['id', 'kind', 'name', 'locale', 'created_at']),
  depot: table(all),
  person: table(all, ['id', 'depot_id', 'name', 'role', 'locale', 'created_at', 'retired_at']),
  engine_family: table(all),
  unit: table(({ units }) => sql`id = ${any(units)}`),
  unit_words: table(({ units }) => sql`unit_id = ${any(units)}`),
  specification: table(all),
  instrument: table(ofDepots),
  lead: table(ofDepots),
  test_definition: table(all),
  circuit_definition: table(all),
  service_data: table(all),
  code_description: table(ofDepots),
  job: table(({ open, known }) => sql`id = ${any([...open, ...known])}`),
  test_run: table(ofJobs),
  circumstance: table(ofRuns),
  reading: table(ofRuns),
  code_observation: table(ofJobs),
  job_note: table(ofOpen),
  intake: table(ofOpen),
  evidence: table(ofJobs),
  finding: table(ofJobs),
  plan_change: table(ofOpen),
  job_record: table(ofJobs),
  // Their samples stay on the server: hours of them are more than a device should carry.
  trace: table(ofOpen),
  trace_note: table(ofOpen),
  lead_map: table(ofOpen),
  photo: table(ofOpen),
  photo_content: table(
    ({ open }) => sql`id in (select id from photo where job_id = ${any(open)})`,
    ['id', 'small_size'],
  ),
  job_event: table(ofOpen),
  job_head: table(ofJobs),
  job_standing: table(ofOpen),
};

/** Tables that a copy holds, in the order in which they are written. */
export const COPIED_TABLES = Object.keys(TABLES);

async function tableCopy(tx: Tx, name: string, columns: readonly string[] | null, where: SQL): Promise<TableCopy> {
  const own = columns ?? (await storedColumns(tx, name));
  const list = sql.join(
    own.map((c) => sql.identifier(c)),
    sql`, `,
  );
  const { rows } = await tx.execute<{ rows: string }>(
    sql`select coalesce(json_agg(t), '[]')::text as rows from (select ${list} from ${sql.identifier(name)} where ${where}) t`,
  );
  return { name, columns: own, rows: rows[0]?.rows ?? '[]' };
}

/** Columns that hold something of their own: what follows from others is made anew. */
async function storedColumns(tx: Tx, name: string): Promise<string[]> {
  const { rows } = await tx.execute<{ column_name: string }>(sql`
    select column_name from information_schema.columns
    where table_schema = 'public' and table_name = ${name} and is_generated = 'NEVER' order by ordinal_position`);
  return rows.map((r) => r.column_name);
}

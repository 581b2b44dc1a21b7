import { asc, eq, inArray, sql } from 'drizzle-orm';
import { CORE_VERSION } from '../../core/foundation/version';
import type { BundledJob, BundleManifest, Row } from '../../formats/bundle';
import { type Db, eachOf, type Tx } from '../db/connection';
import {
  engineFamily,
  depot,
  instrument,
  job,
  photo,
  photoContent,
  specification,
  testRun,
  fleetUnit,
} from '../db/schema';
import { writeReadingsCsv } from '../../application/report/readings-csv';
import { viewRun } from '../readings/run-view';
import { blockFiles } from '../traces/bundled-blocks';
import { RECORD_KIND_NAMES, RECORD_KINDS, type RecordKindName } from '../journal/record-kinds';
import { packZip, sha256 } from './zip';

export type BundleDocument = BundledJob<RecordKindName>;

/** The job as a document; `null` where there is none. */
export async function bundleDocument(db: Db, jobId: string): Promise<BundleDocument | null> {
  return db.transaction(async (tx) => {
    // Moments and numbers come out alike wherever it is done.
    await tx.execute(sql`set local timezone to 'UTC'`);
    await tx.execute(sql`set local extra_float_digits to 1`);
    const [row] = await tx
      .select({ unit: fleetUnit, family: engineFamily, depot })
      .from(job)
      .innerJoin(fleetUnit, eq(fleetUnit.id, job.unitId))
      .innerJoin(engineFamily, eq(engineFamily.id, fleetUnit.engineFamilyId))
      .innerJoin(depot, eq(depot.id, fleetUnit.depotId))
      .where(eq(job.id, jobId));
    if (!row) return null;
    const tables = {} as Record<RecordKindName, readonly Row[]>;
    for (const name of RECORD_KIND_NAMES) tables[name] = await rowsOf(tx, name, jobId);
    const { rows: events } = await tx.execute<BundleDocument['events'][number] & Row>(
      sql`select number, kind, row_id, recorded_by, mudflat_moment(at) as at, content, previous, hash from job_event where job_id = ${jobId} order by number`,
    );
    const ids = (from: RecordKindName, field: string): string[] => [
      ...new Set(tables[from].flatMap((r) => (typeof r[field] === 'string' ? [r[field]] : []))),
    ];
    return {
      format: 'mudflat/bundle',
      version: 2,
      core: CORE_VERSION,
      unit: { id: row.unit.id, fleet_number: row.unit.fleetNumber, kind: row.unit.kind, parts: row.unit.parts },
      family: { code: row.family.code, engine: row.family.engine },
      depot: { name: row.depot.name },
      specifications: await jsonRows(tx, 'specification', [
        ...new Set([...ids('test_run', 'specification_id'), ...ids('reading', 'specification_id')]),
      ]),
      instruments: await jsonRows(tx, 'instrument', [
        ...new Set([...ids('circumstance', 'instrument_id'), ...ids('reading', 'instrument_id')]),
      ]),
      tables,
      events: events.map((e) => ({ ...e })),
    };
  });
}

async function rowsOf(tx: Tx, name: RecordKindName, jobId: string): Promise<Row[]> {
  const table = sql.identifier(name);
  const where =
    name === 'job'
      ? sql`t.id = ${jobId}`
      : RECORD_KINDS[name].belongs === 'by run_id'
        ? sql`t.run_id in (select id from test_run where job_id = ${jobId})`
        : sql`t.job_id = ${jobId}`;
  const order = name === 'job' ? sql`1` : name === 'test_run' ? sql`t.created_at, t.id` : sql`t.sequence`;
  const { rows } = await tx.execute<{ row: Row }>(
    sql`select to_jsonb(t) as row from ${table} t where ${where} order by ${order}`,
  );
  return rows.map((r) => (name === 'job' ? numberOf(r.row) : r.row));
}

/** A job that came from elsewhere goes on under the number that it had there. */
const numberOf = ({ number_there, ...job_ }: Row): Row => ({
  ...job_,
  ...(number_there == null ? {} : { number: number_there }),
});

async function jsonRows(tx: Tx, name: 'specification' | 'instrument', ids: readonly string[]): Promise<Row[]> {
  if (ids.length === 0) return [];
  const { rows } = await tx.execute<{ row: Row }>(
    sql`select to_jsonb(t) as row from ${sql.identifier(name)} t where id in (${sql.join(
      ids.map((i) => sql`${i}::uuid`),
      sql`, `,
    )}) order by id`,
  );
  return rows.map((r) => r.row);
}

/** A job as a zip of JSON, CSV and photos; `null` where there is none. */
export async function writeBundle(db: Db, jobId: string): Promise<{ name: string; bytes: Buffer } | null> {
  const document = await bundleDocument(db, jobId);
  if (!document) return null;
  const files = new Map<string, Buffer>([
    ['job.json', Buffer.from(JSON.stringify(document, null, 1))],
    ['readings.csv', Buffer.from(await readingsCsv(db, jobId))],
  ]);
  const photos = await db
    .select({ id: photo.id, full: photoContent.full })
    .from(photo)
    .innerJoin(photoContent, eq(photoContent.id, photo.id))
    .where(eq(photo.jobId, jobId))
    .orderBy(asc(photo.sequence));
  for (const p of photos) files.set(`photos/${p.id}.jpg`, p.full);
  for (const [name, bytes] of await blockFiles(db, jobId)) files.set(name, bytes);
  const number = Number(document.tables.job[0]?.number ?? 0);
  const manifest: BundleManifest = {
    format: 'mudflat/bundle-manifest',
    version: 1,
    job: number,
    unit: document.unit.fleet_number,
    files: [...files].map(([path, bytes]) => ({ path, size: bytes.length, sha256: sha256(bytes) })),
  };
  return {
    name: `${document.unit.fleet_number}-job-${number}.zip`.replace(/[^\w.-]/g, '_'),
    bytes: await packZip(new Map([['manifest.json', Buffer.from(JSON.stringify(manifest, null, 1))], ...files])),
  };
}

/** All readings of the job for a spreadsheet: one header. */
async function readingsCsv(db: Db, jobId: string): Promise<string> {
  const runs = await db
    .select({ id: testRun.id })
    .from(testRun)
    .where(eq(testRun.jobId, jobId))
    .orderBy(asc(testRun.createdAt), asc(testRun.id));
  const parts = (await eachOf(db, runs, (r, at) => viewRun(at, r.id))).flatMap((v) => (v ? [writeReadingsCsv(v)] : []));
  return parts.map((text, i) => (i === 0 ? text : text.slice(text.indexOf('\n') + 1))).join('');
}

export const specificationIds = async (tx: Tx, ids: readonly string[]): Promise<ReadonlySet<string>> =>
  new Set(
    ids.length
      ? (
          await tx
            .select({ id: specification.id })
            .from(specification)
            .where(inArray(specification.id, [...ids]))
        ).map((r) => r.id)
      : [],
  );
export const instrumentIds = async (tx: Tx, ids: readonly string[]): Promise<ReadonlySet<string>> =>
  new Set(
    ids.length
      ? (
          await tx
            .select({ id: instrument.id })
            .from(instrument)
            .where(inArray(instrument.id, [...ids]))
        ).map((r) => r.id)
      : [],
  );

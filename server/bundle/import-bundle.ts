import { tr } from '../../core/locale/translate';
import { setImmediate } from 'node:timers/promises';
import { and, eq, ne, or, sql } from 'drizzle-orm';
import sharp from 'sharp';
import { v7 } from 'uuid';
import { checkEngine } from '../../core/engine/layout';
import { ok, type Result } from '../../core/foundation/result';
import { canonical } from '../../formats/canonical';
import type { ProblemDetails } from '../../formats/problem';
import { type BundledJob, readBundleManifest, type Row } from '../../formats/bundle';
import { bundleDocument, type BundleDocument, instrumentIds, specificationIds } from './export-bundle';
import { type Db, type Tx, within } from '../db/connection';
import { viewJob } from '../jobs/view-job';
import { refuse } from '../db/refusal';
import { readBeside } from '../files/read-beside';
import { numberKey } from '../fleet/fleet';
import { whatJudgingAgainChanges } from '../readings/judge-again';
import { viewRun } from '../readings/run-view';
import { depot, engineFamily, job, photoContent, fleetUnit } from '../db/schema';
import { verifyJob } from '../audit/audit-trail';
import { RECORD_KIND_NAMES, type RecordKindName } from '../journal/record-kinds';
import { bringBlocks } from '../traces/bundled-blocks';
import { sha256, unpackZip } from './zip';

const SMALL_px = 240;

export interface ImportedJob {
  readonly id: string;
  readonly number: number;
  readonly unit: string;
  readonly duplicate: boolean;
}

class Unfit extends Error {}
const unfit = (why: string): never => {
  throw new Unfit(why);
};

/**
 * Takes a job in from a bundle, all of it or nothing: what is damaged, foreign or hostile is refused with the
 * reason. The same bundle twice is the same job.
 */
export async function importBundle(
  db: Db,
  bytes: Buffer,
  depotId: string,
): Promise<Result<ImportedJob, ProblemDetails>> {
  const read = await readBundle(bytes);
  if (!read.ok) return read;
  const { document, photos, blocks } = read.value;
  try {
    return await db.transaction(async (tx) => ok(await keep(tx, document, photos, blocks, depotId)));
  } catch (error) {
    if (error instanceof Unfit)
      return refuse('This bundle cannot be taken in.', [{ path: '', message: error.message }]);
    const code =
      (error as { code?: string; cause?: { code?: string } }).cause?.code ?? (error as { code?: string }).code ?? '';
    // A value that no column takes, a row that breaks a rule of the database: the bundle’s fault.
    if (/^(22|23|42)/.test(code))
      return refuse('This bundle cannot be taken in.', [
        { path: '/job.json', message: 'Something in it does not fit: an id that is taken, or a value that cannot be.' },
      ]);
    throw error;
  }
}

interface ReadBundle {
  readonly document: BundleDocument;
  readonly photos: ReadonlyMap<string, Buffer>;
  /** Blocks of recordings by their names in the bundle. */
  readonly blocks: ReadonlyMap<string, Buffer>;
}

async function readBundle(bytes: Buffer): Promise<Result<ReadBundle, ProblemDetails>> {
  const no = (path: string, message: string): ReturnType<typeof refuse> =>
    refuse('This bundle cannot be taken in.', [{ path, message }]);
  const files = await unpackZip(bytes);
  if (!files.ok) return no('', files.error);
  const [manifestText, jobText] = ['manifest.json', 'job.json'].map((n) => files.value.get(n)?.toString('utf8'));
  if (manifestText === undefined || jobText === undefined)
    return no('', 'It has no manifest.json or no job.json: this is no bundle.');
  const manifest = readBundleManifest(manifestText);
  if (!manifest.ok)
    return refuse(
      'This bundle cannot be taken in.',
      manifest.error.map((p) => ({ ...p, path: `/manifest.json${p.path}` })),
    );
  const listed = new Map(manifest.value.files.map((f) => [f.path, f]));
  for (const [name, content] of files.value) {
    if (name === 'manifest.json') continue;
    const line = listed.get(name);
    if (!line) return no(`/${name}`, 'It is in the file and not in its manifest.');
    if (line.size !== content.length || line.sha256 !== sha256(content))
      return no(`/${name}`, 'Its content is not what the manifest says: damaged, or changed.');
    listed.delete(name);
    // Others are answered between one file and the next.
    await setImmediate();
  }
  const [missing] = listed.keys();
  if (missing !== undefined) return no(`/${missing}`, 'It is in the manifest and not in the file.');
  const valid = await readBeside('bundledJob', jobText);
  if (!valid.ok)
    return refuse(
      'This bundle cannot be taken in.',
      valid.error.slice(0, 20).map((p) => ({ ...p, path: `/job.json${p.path}` })),
    );
  return ok({
    document: { ...valid.value, version: 2, tables: tablesOf(valid.value) },
    blocks: new Map([...files.value].filter(([n]) => n.startsWith('traces/'))),
    photos: new Map([...files.value].filter(([n]) => n.startsWith('photos/')).map(([n, b]) => [n.slice(7, -4), b])),
  });
}

/** What bundles of before there was a kind have not is empty. */
function tablesOf(job_: BundledJob): BundleDocument['tables'] {
  const tables = {} as Record<RecordKindName, readonly Row[]>;
  for (const name of RECORD_KIND_NAMES) tables[name] = job_.tables[name] ?? [];
  return tables;
}

async function keep(
  tx: Tx,
  d: BundleDocument,
  photos: ReadonlyMap<string, Buffer>,
  blocks: ReadonlyMap<string, Buffer>,
  depotId: string,
): Promise<ImportedJob> {
  const [own] = d.tables.job;
  const jobId = String(own?.id);
  checkOwnership(d, jobId, photos);
  const [target] = await tx.select().from(depot).where(eq(depot.id, depotId));
  if (!target) unfit('There is no such depot here.');
  const [here] = await tx.select({ number: job.number }).from(job).where(eq(job.id, jobId));
  if (here) {
    const now = await bundleDocument(within(tx), jobId);
    if (now && canonical([now.tables, now.events]) === canonical([d.tables, d.events]))
      return { id: jobId, number: here.number, unit: d.unit.fleet_number, duplicate: true };
    return unfit(tr`Job ${here.number} is here already, and it is not the same: it went on, here or there.`);
  }
  await tx.execute(sql`select set_config('mudflat.takes_in', ${jobId}, true)`);
  await tx.execute(sql`set local timezone to 'UTC'`);
  const familyId = await familyFor(tx, d);
  await unitFor(tx, d, depotId, familyId);
  await bringShelf(tx, d, depotId, familyId, jobId);
  for (const name of RECORD_KIND_NAMES)
    await bringRows(tx, name, name === 'job' ? [await numbered(tx, own as Row)] : d.tables[name]);
  await bringPhotos(tx, d, photos);
  const strange = await bringBlocks(within(tx), blocks);
  if (strange !== null) unfit(strange);
  await bringTrail(tx, d, jobId);
  await checkAsWhole(tx, jobId);
  const [kept] = await tx.select({ number: job.number }).from(job).where(eq(job.id, jobId));
  return { id: jobId, number: kept?.number ?? 0, unit: d.unit.fleet_number, duplicate: false };
}

/** Every row is of this job and of no other. */
function checkOwnership(d: BundleDocument, jobId: string, photos: ReadonlyMap<string, Buffer>): void {
  const runs = new Set(d.tables.test_run.map((r) => r.id));
  for (const name of RECORD_KIND_NAMES)
    for (const r of d.tables[name]) {
      if (name === 'job' ? r.unit_id !== d.unit.id : 'run_id' in r ? !runs.has(r.run_id) : r.job_id !== jobId)
        unfit(tr`A row of ${name} belongs to another job.`);
    }
  const [specs, meters] = [new Set(d.specifications.map((s) => s.id)), new Set(d.instruments.map((i) => i.id))];
  for (const r of [...d.tables.test_run, ...d.tables.reading])
    if (!specs.has(r.specification_id)) unfit('Limits that it was judged by are missing.');
  for (const r of [...d.tables.circumstance, ...d.tables.reading])
    if (r.instrument_id != null && !meters.has(r.instrument_id))
      unfit('An instrument that it was read with is missing.');
  for (const p of d.tables.photo) {
    const bytes = photos.get(String(p.id));
    if (!bytes || bytes.length !== p.size || sha256(bytes) !== p.sha256)
      unfit(tr`The photo ${String(p.name)} is missing or is another one.`);
  }
  if (photos.size !== d.tables.photo.length) unfit('It holds a photo that the job does not know.');
}

async function familyFor(tx: Tx, d: BundleDocument): Promise<string> {
  const problems = checkEngine(d.family.engine, '/job.json/family/engine');
  if (problems[0]) unfit(problems[0].message);
  const [here] = await tx.select().from(engineFamily).where(eq(engineFamily.code, d.family.code));
  if (here)
    return canonical(here.engine) === canonical(d.family.engine)
      ? here.id
      : unfit(tr`The engine family ${d.family.code} is another one here: cylinders, numbering or firing order differ.`);
  const id = v7();
  await tx.insert(engineFamily).values({ id, code: d.family.code, engine: d.family.engine });
  return id;
}

async function unitFor(tx: Tx, d: BundleDocument, depotId: string, familyId: string): Promise<void> {
  const [here] = await tx.select().from(fleetUnit).where(eq(fleetUnit.id, d.unit.id));
  const [same] = await tx
    .select({ id: fleetUnit.id })
    .from(fleetUnit)
    .where(
      and(
        or(eq(fleetUnit.fleetNumber, d.unit.fleet_number), eq(fleetUnit.numberKey, numberKey(d.unit.fleet_number))),
        ne(fleetUnit.id, d.unit.id),
      ),
    );
  if (same) unfit(tr`There is another unit ${d.unit.fleet_number} here.`);
  if (here) {
    if (here.engineFamilyId !== familyId) unfit(tr`The unit ${here.fleetNumber} has another engine here.`);
    return;
  }
  await tx.insert(fleetUnit).values({
    id: d.unit.id,
    depotId,
    engineFamilyId: familyId,
    fleetNumber: d.unit.fleet_number,
    numberKey: numberKey(d.unit.fleet_number),
    kind: d.unit.kind,
    parts: d.unit.parts,
  });
}

/**
 * Limits and instruments that the readings name: they judge this job's readings and are offered for nothing
 * else.
 */
async function bringShelf(tx: Tx, d: BundleDocument, depotId: string, familyId: string, jobId: string): Promise<void> {
  const [specs, meters] = [
    await specificationIds(
      tx,
      d.specifications.map((s) => String(s.id)),
    ),
    await instrumentIds(
      tx,
      d.instruments.map((i) => String(i.id)),
    ),
  ];
  const fresh = d.specifications
    .filter((s) => !specs.has(String(s.id)))
    .map((s) => ({
      ...s,
      series_id: v7(),
      engine_family_id: s.engine_family_id == null ? null : familyId,
      depot_id: s.depot_id == null ? null : depotId,
      origin: s.origin ?? tr`job ${jobId}`,
    }));
  if (fresh.length)
    await tx.execute(
      sql`insert into specification overriding system value select * from jsonb_populate_recordset(null::specification, ${JSON.stringify(fresh)}::jsonb)`,
    );
  const other = d.instruments
    .filter((i) => !meters.has(String(i.id)))
    .map((i) => ({ ...i, depot_id: depotId, replaced_by: null, retired_at: i.retired_at ?? new Date().toISOString() }));
  if (other.length)
    await tx.execute(
      sql`insert into instrument overriding system value select * from jsonb_populate_recordset(null::instrument, ${JSON.stringify(other)}::jsonb)`,
    );
}

async function bringRows(tx: Tx, name: RecordKindName, rows: readonly Row[]): Promise<void> {
  if (rows.length === 0) return;
  const table = sql.identifier(name);
  await tx.execute(
    sql`insert into ${table} overriding system value select * from jsonb_populate_recordset(null::${table}, ${JSON.stringify(rows)}::jsonb)`,
  );
  const counter = name === 'job' ? 'number' : name === 'test_run' ? null : 'sequence';
  // What is written here from now on comes after what was brought.
  if (counter)
    await tx.execute(
      sql`select setval(pg_get_serial_sequence(${name}, ${counter}), greatest((select max(${sql.identifier(counter)}) from ${table}), 1))`,
    );
}

/**
 * The number that it had there, where it is free here; else the next one, and the trail goes on knowing the
 * old one.
 */
async function numbered(tx: Tx, row: Row): Promise<Row> {
  const [taken] = await tx
    .select({ id: job.id })
    .from(job)
    .where(eq(job.number, Number(row.number)));
  if (!taken) return { ...row, number_there: null };
  const {
    rows: [next],
  } = await tx.execute<{ n: string } & Row>(sql`select nextval(pg_get_serial_sequence('job', 'number')) as n`);
  return { ...row, number: Number(next?.n), number_there: row.number };
}

async function bringPhotos(tx: Tx, d: BundleDocument, photos: ReadonlyMap<string, Buffer>): Promise<void> {
  for (const p of d.tables.photo) {
    const full = photos.get(String(p.id)) as Buffer;
    const small = (await drawSmall(full)) ?? unfit(tr`The photo ${String(p.name)} cannot be drawn.`);
    await tx.insert(photoContent).values({ id: String(p.id), full, small });
  }
}

async function drawSmall(full: Buffer): Promise<Buffer | null> {
  try {
    const picture = sharp(full, { limitInputPixels: 80e6, failOn: 'error' });
    if ((await picture.metadata()).format !== 'jpeg') return null;
    return await picture.resize({ width: SMALL_px, height: SMALL_px, fit: 'cover' }).jpeg({ quality: 75 }).toBuffer();
  } catch {
    return null;
  }
}

async function bringTrail(tx: Tx, d: BundleDocument, jobId: string): Promise<void> {
  const last = d.events.at(-1);
  await tx.execute(sql`insert into job_event (job_id, number, kind, row_id, recorded_by, at, content, previous, hash)
    select ${jobId}::uuid, e.number, e.kind, e.row_id, e.recorded_by, e.at, e.content, e.previous, e.hash from jsonb_to_recordset(${JSON.stringify(d.events)}::jsonb) as e(number int, kind text, row_id uuid, recorded_by text, at timestamptz, content text, previous text, hash text)`);
  await tx.execute(
    sql`insert into job_head (job_id, number, hash) values (${jobId}::uuid, ${last?.number ?? 0}, ${last?.hash ?? ''})`,
  );
}

/**
 * The verdict of a set is no row of the trail. Where the same version of the judge has made it, it must be
 * the one that the readings give.
 */
async function checkVerdicts(db: Db, runId: string): Promise<void> {
  const again = await whatJudgingAgainChanges(db, runId);
  if (again.ok && again.value.was === again.value.becomes && again.value.changes.length)
    unfit('The verdicts of a test are not those that its readings give.');
}

/** Nothing is kept that this application could not show, or whose trail is broken. */
async function checkAsWhole(tx: Tx, jobId: string): Promise<void> {
  await tx.execute(sql`set constraints all immediate`);
  const db = within(tx);
  const verified = await verifyJob(db, jobId);
  if (!verified?.intact) unfit(tr`Its trail is not intact: ${verified?.faults[0]?.what ?? 'it has none'}`);
  try {
    const view = await viewJob(db, jobId);
    for (const r of view?.job.runs ?? []) {
      await viewRun(db, r.id);
      await checkVerdicts(db, r.id);
    }
  } catch (error) {
    if (error instanceof Unfit) throw error;
    unfit('Something in it cannot be shown here.');
  }
}

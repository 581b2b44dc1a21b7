import { count, eq, sql } from 'drizzle-orm';
import sharp from 'sharp';
import { v7 } from 'uuid';
import { RECORD_KIND_NAMES } from '../journal/record-kinds';
import type { ReadingAnswer, ReadingQuestion } from '../files/read-beside';
import { bundleDocument, writeBundle } from './export-bundle';
import { addEngineFamily, addUnit } from '../fleet/fleet';
import { recordCodes } from '../evidence/codes';
import { recordEvidence } from '../evidence/evidence';
import { addPhoto } from '../evidence/photos';
import { viewJob } from '../jobs/view-job';
import { recordReading } from '../readings/record-reading';
import { job } from '../db/schema';
import { importBundle } from './import-bundle';
import { verifyJob } from '../audit/audit-trail';
import { MOST_PHOTOS } from '../evidence/photo-limits';
import { MOST_BUNDLE_BYTES } from './limits';
import { packZip, sha256, unpackZip } from './zip';
import { workshopId } from '../testing/workshop';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { openJob, startRun } from '../jobs/open-job';

const BY = 'Ines Varga';
const DEPOT = workshopId('depot', 'Quay Yard');
let [here, there] = [] as unknown as [TestDatabase, TestDatabase];
let jobId = '';
let bundle: Buffer = Buffer.alloc(0);

beforeAll(async () => {
  here = await makeTestDatabase();
  there = await makeTestDatabase();
  jobId = await fullJob();
  bundle = (await writeBundle(here.db, jobId))?.bytes ?? bundle;
});
afterAll(async () => {
  await here.drop();
  await there.drop();
});

/** A job with everything in it, on a unit and an engine that only one side knows. */
async function fullJob(): Promise<string> {
  const { db } = here;
  const [family, unit, id, run] = [v7(), v7(), v7(), v7()];
  const good = async (done: Promise<{ ok: boolean }>): Promise<void> => {
    expect(await done).toMatchObject({ ok: true });
  };
  await good(
    addEngineFamily(db, { id: family, code: 'L2-07', engine: { layout: 'inline', cylinders: 2, systemVoltage_V: 12 } }),
  );
  await good(addUnit(db, { id: unit, depotId: DEPOT, engineFamilyId: family, fleetNumber: 'TR-01', kind: 'Pump' }));
  await good(openJob(db, { id, unitId: unit, complaint: 'Slow “cold” start, ½ turn', hours: 812.5, by: BY }));
  await good(startRun(db, { id: run, jobId: id, test: 'glow-plug-resistance', by: BY }));
  const first = v7();
  await good(
    recordReading(db, run, { id: first, position: 1, entry: '0.61', by: BY, takenAt: '2026-11-20T10:00:00.123Z' }),
  );
  await good(
    recordReading(db, run, {
      id: v7(),
      position: 1,
      entry: '201',
      supersedes: first,
      why: 'misread',
      by: BY,
      takenAt: '2026-11-20T10:01:00Z',
    }),
  );
  await good(recordReading(db, run, { id: v7(), position: 2, entry: '0.6', by: BY, takenAt: '2026-11-20T10:02:00Z' }));
  await good(recordCodes(db, id, { id: v7(), by: BY, phase: 'as-found', status: 'active', codes: ['P0671'] }));
  const photo = v7();
  await good(
    addPhoto(db, id, {
      id: photo,
      name: 'plug.jpg',
      by: BY,
      bytes: await sharp({ create: { width: 640, height: 480, channels: 3, background: '#884422' } })
        .jpeg()
        .toBuffer(),
    }),
  );
  await good(
    recordEvidence(db, id, {
      id: v7(),
      by: BY,
      evidence: { kind: 'visual', where: 'plug 1', damaged: true, seen: 'tip burnt', photos: [photo] },
    }),
  );
  return id;
}

const jobsIn = async (t: TestDatabase): Promise<number> => (await t.db.select({ n: count() }).from(job))[0]?.n ?? -1;
/** The bundle with one of its files changed, and a manifest that fits again. */
async function changed(change: (files: Map<string, Buffer>) => void, isListed = true): Promise<Buffer> {
  const files = await unpackZip(bundle);
  if (!files.ok) throw new Error(files.error);
  change(files.value);
  if (isListed) {
    const manifest = JSON.parse(String(files.value.get('manifest.json'))) as { files: unknown[] };
    manifest.files = [...files.value]
      .filter(([n]) => n !== 'manifest.json')
      .map(([path, b]) => ({ path, size: b.length, sha256: sha256(b) }));
    files.value.set('manifest.json', Buffer.from(JSON.stringify(manifest)));
  }
  return packZip(files.value);
}
const withJob = (
  change: (d: {
    version: number;
    tables: Record<string, Record<string, unknown>[]>;
    events: Record<string, unknown>[];
    unit: { id: string };
  }) => void,
): Promise<Buffer> =>
  changed((files) => {
    const d = JSON.parse(String(files.get('job.json'))) as Parameters<typeof change>[0];
    change(d);
    files.set('job.json', Buffer.from(JSON.stringify(d)));
  });

describe('what is refused, with the reason, and nothing of it is stored', () => {
  const cases: [string, () => Promise<Buffer>, RegExp][] = [
    ['no zip', () => Promise.resolve(Buffer.from('not a zip at all')), /no zip file/],
    ['cut off', () => Promise.resolve(bundle.subarray(0, bundle.length - 400)), /no zip file|damaged/],
    [
      'a byte changed',
      () => {
        const b = Buffer.from(bundle);
        const at = b.indexOf('job.json') + 200;
        b[at] = (b[at] ?? 0) ^ 0xff;
        return Promise.resolve(b);
      },
      /damaged|manifest says/,
    ],
    [
      'a path that climbs',
      () =>
        Promise.resolve(Buffer.from(bundle.toString('latin1').replaceAll('readings.csv', '../../up.csv'), 'latin1')),
      /damaged|does not belong/,
    ],
    ['a file that does not belong', () => changed((f) => f.set('photos/evil.js', Buffer.from('x'))), /does not belong/],
    [
      'a file beside the manifest',
      () => changed((f) => f.set(`photos/${v7()}.jpg`, Buffer.from('x')), false),
      /not in its manifest/,
    ],
    [
      'a wrong hash',
      () => changed((f) => f.set('readings.csv', Buffer.from('position,entry\r\n1,0.5\r\n')), false),
      /not what the manifest says/,
    ],
    ['a bomb', () => changed((f) => f.set('readings.csv', Buffer.alloc(60e6))), /more than a bundle can hold/],
    [
      'a manifest that is longer than any list of files',
      () => changed((f) => f.set('manifest.json', Buffer.alloc(3e6, ' ')), false),
      /more than a bundle can hold/,
    ],
    [
      'more values than a file may hold',
      () => changed((f) => f.set('job.json', Buffer.from(`[${'0,'.repeat(1e6)}0]`))),
      /job\.json.*more than 1000000 values/,
    ],
    [
      'something else as JSON',
      () => changed((f) => f.set('job.json', Buffer.from('{"format":"something/else"}'))),
      /Must be|missing/,
    ],
    [
      'another job’s rows',
      () =>
        withJob((d) => {
          for (const r of d.tables.evidence ?? []) r.job_id = workshopId('job', 'PL-14');
        }),
      /belongs to another job/,
    ],
    [
      'a reading that was changed',
      () =>
        withJob((d) => {
          const r = d.tables.reading?.[2];
          if (r) r.entry = '0.9';
        }),
      /trail is not intact.*entry was .*0\.6/,
    ],
    [
      'a verdict that its readings do not give',
      () =>
        withJob((d) => {
          for (const run of d.tables.test_run ?? []) {
            const judgement = run.judgement as { readings?: { verdict: string }[] } | null;
            const bad = judgement?.readings?.find((r) => r.verdict === 'high');
            if (bad) bad.verdict = 'within';
          }
        }),
      /verdicts of a test are not those/,
    ],
    [
      'an event that was left out',
      () =>
        withJob((d) => {
          d.events.splice(2, 1);
        }),
      /trail is not intact/,
    ],
    [
      'a photo that is another one',
      () =>
        changed((f) => {
          const name = [...f.keys()].find((n) => n.startsWith('photos/')) ?? '';
          f.set(name, Buffer.from('other'));
        }),
      /missing or is another one/,
    ],
    [
      'a number that would use up all that come after it',
      () =>
        withJob((d) => {
          const r = d.tables.reading?.[0];
          if (r) r.sequence = 2147483647;
        }),
      /sequence/,
    ],
    [
      'a value that no column takes',
      () =>
        withJob((d) => {
          const r = d.tables.test_run?.[0];
          if (r) r.created_at = '2026-13-45T99:00:00Z';
        }),
      /does not fit/,
    ],
  ];
  test.each(cases)('%s', async (_, make, reason) => {
    const before = await jobsIn(there);
    const taken = await importBundle(there.db, await make(), DEPOT);
    expect(taken).toMatchObject({ ok: false });
    expect(JSON.stringify(taken)).toMatch(reason);
    expect(await jobsIn(there)).toBe(before);
  });
});

test('a large job is read beside what answers', async () => {
  const shared = globalThis as { mudflatRead?: (question: ReadingQuestion) => Promise<ReadingAnswer> };
  const asked: string[] = [];
  shared.mudflatRead = ({ kind }) => {
    asked.push(kind);
    return Promise.resolve({ ended: 'time' });
  };
  const large = await withJob((d) => {
    for (const r of d.tables.reading ?? []) r.why = 'x'.repeat(70_000);
  });
  const taken = await importBundle(there.db, large, DEPOT).finally(() => delete shared.mudflatRead);
  expect(taken).toMatchObject({ ok: false, error: { errors: [{ path: '/job.json' }] } });
  expect(asked).toEqual(['bundledJob']);
});

test('there and back again without loss: rows, moments, trail, photo; written on over there', async () => {
  const taken = await importBundle(there.db, bundle, DEPOT);
  expect(taken).toMatchObject({ ok: true, value: { id: jobId, unit: 'TR-01', duplicate: false } });
  const [ours, theirs] = [await bundleDocument(here.db, jobId), await bundleDocument(there.db, jobId)];
  for (const t of RECORD_KIND_NAMES) expect(theirs?.tables[t]).toEqual(ours?.tables[t]);
  expect(theirs?.events).toEqual(ours?.events);
  expect(theirs?.unit).toEqual(ours?.unit);
  const [a, b] = await Promise.all([
    unpackZip(bundle),
    unpackZip((await writeBundle(there.db, jobId))?.bytes ?? Buffer.alloc(0)),
  ]);
  const photosOf = (u: typeof a) =>
    u.ok ? [...u.value].filter(([n]) => n.startsWith('photos/')).map(([n, p]) => [n, sha256(p)]) : [];
  expect(photosOf(b)).toEqual(photosOf(a));
  expect(photosOf(a)).toHaveLength(1);
  expect(await verifyJob(there.db, jobId)).toMatchObject({ intact: true });
  expect((await viewJob(there.db, jobId))?.job.runs[0]?.judgement?.suspects).toEqual([1]);
  // The same bundle again is the same job.
  expect(await importBundle(there.db, bundle, DEPOT)).toMatchObject({ ok: true, value: { duplicate: true } });
  // It goes on there: what is written comes after what was brought, and the trail holds.
  expect(
    await recordEvidence(there.db, jobId, {
      id: v7(),
      by: BY,
      evidence: { kind: 'wiggle', where: 'lead', outcome: 'held' },
    }),
  ).toMatchObject({ ok: true });
  expect((await viewJob(there.db, jobId))?.evidence.at(-1)?.body.kind).toBe('wiggle');
  expect(await verifyJob(there.db, jobId)).toMatchObject({ intact: true });
  // And from then on the two are not the same any more.
  expect(JSON.stringify(await importBundle(there.db, bundle, DEPOT))).toContain('not the same');
});
test('limits that came along judge that job and nothing else here', async () => {
  const { rows } = await there.db.execute<{ n: number } & Record<string, unknown>>(
    sql`select count(*)::int as n from specification where origin is not null`,
  );
  const [own] = await here.db.select({ number: job.number }).from(job).where(eq(job.id, jobId));
  expect(own?.number).toBeGreaterThan(0);
  expect(rows[0]?.n).toBeLessThanOrEqual(2);
});
test('a bundle of the first version still reads', async () => {
  const third = await makeTestDatabase();
  try {
    const old = await withJob((d) => {
      d.version = 1;
      delete d.tables.job_record;
    });
    expect(await importBundle(third.db, old, DEPOT)).toMatchObject({ ok: true });
    expect(await verifyJob(third.db, jobId)).toMatchObject({ intact: true });
  } finally {
    await third.drop();
  }
});
test('a number that is taken over there: the next one, and the trail knows the old one', async () => {
  const third = await makeTestDatabase();
  try {
    const [own] = await here.db.select({ number: job.number }).from(job).where(eq(job.id, jobId));
    await openJob(third.db, { id: v7(), unitId: workshopId('unit', 'PL-14'), complaint: 'takes the number', by: BY });
    const taken = await importBundle(third.db, bundle, DEPOT);
    expect(taken.ok && taken.value.number).not.toBe(own?.number);
    expect(await verifyJob(third.db, jobId)).toMatchObject({ intact: true });
    expect((await bundleDocument(third.db, jobId))?.tables.job[0]?.number).toBe(own?.number);
  } finally {
    await third.drop();
  }
});

test('a job as full of photos as it may be, and one that is fuller from before, travel whole', async () => {
  const [id, unit] = [v7(), workshopId('unit', 'PL-14')];
  await openJob(here.db, { id, unitId: unit, complaint: 'photos', by: BY });
  const bytes = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#0e5863' } })
    .png()
    .toBuffer();
  for (let i = 0; i < MOST_PHOTOS; i++)
    expect(await addPhoto(here.db, id, { id: v7(), name: `${i}.png`, by: BY, bytes })).toMatchObject({ ok: true });
  // More than may be added: rows as an older version would have left them.
  await here.db.execute(sql`
    with more as (
      insert into photo (id, job_id, name, sha256, size, width, height, recorded_by)
      select gen_random_uuid(), job_id, name, sha256, size, width, height, recorded_by from photo where job_id = ${id} limit 30 returning id
    ) insert into photo_content (id, full_size, small_size)
      select more.id, c.full_size, c.small_size from more, lateral (select full_size, small_size from photo_content join photo using (id) where job_id = ${id} limit 1) c`);
  const written = (await writeBundle(here.db, id))?.bytes ?? Buffer.alloc(0);
  expect(written.length).toBeLessThan(MOST_BUNDLE_BYTES);
  const taken = await importBundle(there.db, written, DEPOT);
  expect(taken.ok ? [] : taken.error.errors).toEqual([]);
  expect(taken).toMatchObject({ ok: true, value: { duplicate: false } });
  expect((await viewJob(there.db, id))?.photos).toHaveLength(MOST_PHOTOS + 30);
});

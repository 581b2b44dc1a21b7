import { createHash } from 'node:crypto';
import { deflateRawSync } from 'node:zlib';
import { v7 } from 'uuid';
import { encodeBlock } from '../../core/signal/block-codec';
import { Samples } from '../../core/signal/samples';
import { drive } from '../../core/signal/testing';
import { blocksOf, clockFrom, type StoredTrace, storedChannel, toStored } from '../../application/traces/stored';
import { writeTraceCsv } from '../../formats/trace/csv-writer';
import { readTrace } from '../../formats/trace/read';
import { workshopId } from '../testing/workshop';
import { verifyJob } from '../audit/audit-trail';
import { writeBundle } from '../bundle/export-bundle';
import { importBundle } from '../bundle/import-bundle';
import { openJob } from '../jobs/open-job';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { keepBlock, keepTrace, noteTrace, pyramidOfStream, traceSamples, viewTrace } from './traces';

const BY = 'Ines Varga';
let [here, there] = [] as unknown as [TestDatabase, TestDatabase];
beforeAll(async () => {
  here = await makeTestDatabase();
  there = await makeTestDatabase();
});
afterAll(async () => {
  await here.drop();
  await there.drop();
});

const VALUES = drive(70_000, 3);
for (let i = 30_000; i < 30_004; i++) VALUES[i] = 0.02;
const CSV = `t (s),a (V)\r\n${Array.from(VALUES, (v, i) => `${(i / 100).toFixed(2)},${v.toFixed(3)}\r\n`).join('')}`;
const hash = (block: Int32Array | Float64Array): string =>
  createHash('sha256').update(encodeBlock(block)).digest('hex');

function stored(): StoredTrace {
  const bytes = new TextEncoder().encode(CSV);
  const original = { name: 'drive.csv', size: bytes.length, sha256: createHash('sha256').update(bytes).digest('hex') };
  return toStored(
    readTrace(bytes),
    [{ column: 'a', name: 'rail sensor', unit: 'V', role: 'rail-pressure', factor: 1 }],
    original,
    hash,
  );
}
const packed = (s: StoredTrace, stream: number, number: number): Buffer =>
  deflateRawSync(encodeBlock(blocksOf(s.streams[stream]!)[number]!));

async function newJob(): Promise<string> {
  const id = v7();
  await openJob(here.db, { id, unitId: workshopId('unit', 'PL-14'), complaint: 'cuts out now and then', by: BY });
  return id;
}

it('keeps a recording block by block, goes on where it stopped, and gives every digit back', async () => {
  const [job, id, s] = [await newJob(), v7(), stored()];
  const keep = () => keepTrace(here.db, job, { id, by: BY, name: 'drive', head: s.head });
  expect(await keep()).toMatchObject({ ok: true, value: { duplicate: false } });
  expect(await keep()).toMatchObject({ ok: true, value: { duplicate: true } });
  expect((await viewTrace(here.db, id))!.missing).toEqual([
    { stream: 0, number: 0 },
    { stream: 0, number: 1 },
  ]);
  expect(await keepBlock(here.db, id, 0, 1, packed(s, 0, 1))).toMatchObject({ ok: true, value: { duplicate: false } });
  // The server was killed here: what is missing is asked for again, and a block that comes twice is one.
  expect((await viewTrace(here.db, id))!.missing).toEqual([{ stream: 0, number: 0 }]);
  expect(await keepBlock(here.db, id, 0, 1, packed(s, 0, 1))).toMatchObject({ ok: true, value: { duplicate: true } });
  expect(await keepBlock(here.db, id, 0, 0, packed(s, 0, 0))).toMatchObject({ ok: true });
  const view = (await viewTrace(here.db, id))!;
  expect(view.missing).toEqual([]);
  expect(view.head.search.findings).toMatchObject([{ kind: 'dropout', from_s: 300, samples: 4 }]);
  const blocks = (await traceSamples(here.db, view))!;
  const samples = Samples.of(blocks.get(0)!, 70_000, 3);
  const clock = clockFrom(view.head.clocks[0]!, new Map());
  expect([...writeTraceCsv(clock, [{ name: 'a', unit: 'V', samples, scale: 1 }])].join('')).toBe(
    CSV.replace(/^(\d+)\.00,|^(\d+\.\d)0,/gm, '$1$2,'),
  );
  expect(storedChannel(view.head, view.head.channels[0]!, samples, clock).values).toEqual(VALUES);
  // Every dropout of one sample is in the pyramid.
  const pyramid = await pyramidOfStream(here.db, id, 0);
  const pairs = new Float32Array(pyramid.buffer.slice(pyramid.byteOffset, pyramid.byteOffset + pyramid.length));
  expect(pairs[2 * Math.floor(30_000 / 64)]).toBe(20);
});

it('refuses a block by its number: of another hash, damaged, or one that nobody announced', async () => {
  const [job, id, s] = [await newJob(), v7(), stored()];
  await keepTrace(here.db, job, { id, by: BY, name: 'drive', head: s.head });
  const refused = async (stream: number, number: number, bytes: Buffer): Promise<string> => {
    const done = await keepBlock(here.db, id, stream, number, bytes);
    return done.ok ? 'kept' : (done.error.errors[0]?.message ?? '');
  };
  expect(await refused(0, 1, packed(s, 0, 0))).toContain('Block 1 is not the one');
  expect(await refused(0, 0, Buffer.from('nonsense'))).toContain('Block 0 cannot be inflated');
  expect(await refused(0, 0, deflateRawSync(Buffer.alloc(50_000_000)))).toContain('Block 0 cannot be inflated');
  expect(await refused(0, 7, packed(s, 0, 0))).toContain('no block 7');
  expect((await viewTrace(here.db, id))!.missing).toHaveLength(2);
});

it('refuses a head that does not hold together', async () => {
  const [job, s] = [await newJob(), stored()];
  const paths = async (head: object): Promise<unknown> => {
    const done = await keepTrace(here.db, job, { id: v7(), by: BY, name: 'x', head: { ...s.head, ...head } });
    return done.ok ? 'kept' : done.error.errors.map((e) => e.path);
  };
  const [channel] = s.head.channels;
  expect(await paths({ streams: [{ ...s.head.streams[0]!, blocks: ['0'.repeat(64)] }] })).toEqual([
    '/head/streams/0/blocks',
  ]);
  expect(await paths({ channels: [{ ...channel!, stream: 4 }] })).toEqual(['/head/channels/0/stream']);
  expect(await paths({ clocks: [{ runs: [{ first: 5, start_s: 0, period_s: 1 }], count: 70_000 }] })).toEqual([
    '/head/clocks/0/runs',
  ]);
  expect(await paths({ size: 5e9 })).toEqual(['/head/size']);
  // More than a bundle can carry.
  const many = { ...s.head.streams[0]!, count: 4001 * 65_536, blocks: Array<string>(4001).fill('0'.repeat(64)) };
  const clocks = [{ runs: [{ first: 0, start_s: 0, period_s: 1 }], count: many.count }];
  expect(await paths({ streams: [many], clocks })).toEqual(['/head/streams']);
});

it('travels in the bundle with its samples, and its trail holds', async () => {
  const [job, id, s] = [await newJob(), v7(), stored()];
  await keepTrace(here.db, job, { id, by: BY, name: 'drive', head: s.head });
  for (const number of [0, 1]) await keepBlock(here.db, id, 0, number, packed(s, 0, number));
  const mark = { kind: 'mark' as const, from_s: 300, to_s: 300.1, channel: 'a', text: 'on the bridge' };
  expect(await noteTrace(here.db, id, { id: v7(), by: BY, ...mark })).toMatchObject({ ok: true });
  expect(await noteTrace(here.db, id, { id: v7(), by: BY, ...mark, channel: 'b' })).toMatchObject({ ok: false });
  expect((await verifyJob(here.db, job))!.intact).toBe(true);
  const bundle = (await writeBundle(here.db, job))!;
  const taken = await importBundle(there.db, bundle.bytes, workshopId('depot', 'Quay Yard'));
  expect(taken).toMatchObject({ ok: true });
  const view = (await viewTrace(there.db, id))!;
  expect(view).toMatchObject({ missing: [], notes: [{ body: mark }] });
  expect(await traceSamples(there.db, view)).toEqual(await traceSamples(here.db, view));
});

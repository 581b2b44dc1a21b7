import fc from 'fast-check';
import { idOf, type QueuedItem, neededBy, packed, readyLanes, unpacked, wordsOf } from './items';

const JOB = '01900000-0000-7000-8000-000000000001';
const RUN = '01900000-0000-7000-8000-000000000002';

const request = (
  seq: number,
  id: string,
  path: string,
  more: Partial<QueuedItem> & { body?: string } = {},
): QueuedItem =>
  ({
    kind: 'request',
    seq,
    id,
    by: 'T',
    at: '2026-11-20T10:00:00Z',
    path,
    type: 'application/json',
    body: JSON.stringify({ id }),
    jobId: JOB,
    ...more,
  }) as QueuedItem;
const reading = (seq: number, id: string, by = 'T'): QueuedItem => ({
  kind: 'reading',
  seq,
  runId: RUN,
  jobId: JOB,
  body: { id, position: 1, entry: '0.6', by, takenAt: '2026-11-20T10:00:00Z' },
});
const newJob = request(1, JOB, '/api/jobs');
const newRun = request(2, RUN, '/api/runs', { body: JSON.stringify({ id: RUN, jobId: JOB }) });
const ids = (lanes: Map<string, readonly QueuedItem[]>) => [...lanes.values()].map((l) => l.map(idOf));

test('a reading waits for its run, a run for its job, whoever made them', () => {
  const of = (item: QueuedItem, all: QueuedItem[]) => neededBy(item, all).map(idOf);
  const all = [newJob, newRun, reading(3, 'r', 'U')];
  expect(of(reading(3, 'r', 'U'), all)).toEqual([RUN]);
  expect(of(newRun, all)).toEqual([JOB]);
  expect(ids(readyLanes(all))).toEqual([[JOB, RUN]]);
  expect(ids(readyLanes([reading(3, 'r', 'U')]))).toEqual([['r']]);
});

test('what a person did in a job goes after what they did there before', () => {
  const finding = request(4, 'f', `/api/jobs/${JOB}/findings`);
  expect(neededBy(finding, [reading(3, 'r'), finding]).map(idOf)).toEqual(['r']);
  expect(neededBy(finding, [reading(3, 'r', 'U'), finding])).toEqual([]);
});

test('what was refused holds up what names it, and nothing else', () => {
  const refused = { title: 'no', status: 409, type: '', detail: '', errors: [] };
  const job = { ...newJob, refused };
  expect(ids(readyLanes([job, newRun]))).toEqual([]);
  expect(ids(readyLanes([{ ...reading(3, 'r'), refused }, request(4, 'e', `/api/jobs/${JOB}/evidence`)]))).toEqual([
    ['e'],
  ]);
});

test('however lanes are drawn, everything goes once, each after all that it needs', () => {
  const anItem = fc.record({
    by: fc.constantFrom('T', 'U', 'V'),
    kind: fc.constantFrom('job', 'run', 'reading', 'evidence'),
    job: fc.nat(2),
    run: fc.nat(3),
  });
  fc.assert(
    fc.property(fc.array(anItem, { maxLength: 25 }), fc.infiniteStream(fc.nat(9)), (drawn, choose) => {
      const job = (n: number): string => `01900000-0000-7000-8000-00000000010${n}`;
      const run = (n: number): string => `01900000-0000-7000-8000-00000000020${n}`;
      const all = drawn.map((d, i): QueuedItem => {
        const seq = i + 1;
        const at = { by: d.by, jobId: job(d.job) };
        if (d.kind === 'job') return request(seq, job(d.job), '/api/jobs', { ...at, body: '{}' });
        if (d.kind === 'run')
          return request(seq, run(d.run), '/api/runs', {
            ...at,
            body: JSON.stringify({ id: run(d.run), jobId: job(d.job) }),
          });
        if (d.kind === 'evidence') return request(seq, `e${seq}`, `/api/jobs/${job(d.job)}/evidence`, at);
        return { ...reading(seq, `r${seq}`, d.by), runId: run(d.run) } as QueuedItem;
      });
      let left = all;
      const sent: QueuedItem[] = [];
      while (left.length) {
        const lanes = [...readyLanes(left).values()];
        expect(lanes.length).toBeGreaterThan(0);
        const lane = lanes[(choose.next().value ?? 0) % lanes.length] ?? [];
        const next = lane[0];
        if (!next) throw new Error('an empty lane');
        for (const needed of neededBy(next, all)) expect(sent).toContain(needed);
        sent.push(next);
        left = left.filter((i) => i !== next);
      }
      expect(sent).toHaveLength(all.length);
    }),
  );
});

test('bytes survive being kept as text', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 300 }), (bytes) => {
      const item = { ...request(1, 'p', '/api/jobs/x/photos'), body: new Uint8Array(bytes).buffer } as QueuedItem;
      const back = unpacked(JSON.parse(JSON.stringify(packed(item))) as never);
      expect(new Uint8Array((back as { body: ArrayBuffer }).body)).toEqual(new Uint8Array(bytes));
    }),
  );
});

test('each kind of entry has a word of its own', () => {
  const words = [
    '/api/jobs',
    '/api/runs',
    '/api/jobs/x/photos',
    '/api/jobs/x/evidence',
    '/api/jobs/x/codes/take-back',
    '/api/jobs/x/records',
  ].map((path) => wordsOf(request(1, 'i', path)));
  expect(new Set(words).size).toBe(words.length);
  expect(words).not.toContain('entry');
});

import { v7 } from 'uuid';
import { followJob, type JobSignal } from './live';
import { recordReading } from '../readings/record-reading';
import { workshopId } from '../testing/workshop';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { openJob, startRun } from '../jobs/open-job';

let test_: TestDatabase;
const before = process.env.DATABASE_URL;
beforeAll(async () => {
  test_ = await makeTestDatabase();
  process.env.DATABASE_URL = test_.url;
});
afterAll(async () => {
  process.env.DATABASE_URL = before;
  await test_.drop();
});

/** Signals of a stream until `wanted` says that it is enough. */
async function listen(
  stream: ReadableStream<Uint8Array>,
  wanted: (all: readonly JobSignal[]) => boolean,
): Promise<JobSignal[]> {
  const reader = stream.getReader();
  const heard: JobSignal[] = [];
  for (;;) {
    const { value, done } = await reader.read();
    if (done) return heard;
    for (const [, data = ''] of new TextDecoder().decode(value).matchAll(/^data: (.*)$/gm))
      heard.push(JSON.parse(data) as JobSignal);
    if (wanted(heard)) {
      await reader.cancel();
      return heard;
    }
  }
}

test('whoever follows a job hears of each write into it, of no other job, and not of what was refused', async () => {
  const [mine, other] = [v7(), v7()];
  for (const id of [mine, other])
    await openJob(test_.db, { id, unitId: workshopId('unit', 'PL-14'), complaint: 'x', by: 'Ines Varga' });
  const ended = new AbortController();
  const heard = listen(followJob(mine, ended.signal), (all) => all.some((s) => s.kind === 'reading'));
  await new Promise((r) => setTimeout(r, 1000));
  const runs = [v7(), v7()];
  for (const [i, jobId] of [other, mine].entries())
    await startRun(test_.db, { id: runs[i] ?? '', jobId, test: 'glow-plug-resistance', by: 'Ines Varga' });
  const reading = (entry: string) => ({
    id: v7(),
    position: 1,
    entry,
    by: 'Tobin Marsh',
    takenAt: '2026-11-20T10:00:00Z',
  });
  await recordReading(test_.db, runs[1] ?? '', reading('florp'));
  await recordReading(test_.db, runs[0] ?? '', reading('0.5'));
  await recordReading(test_.db, runs[1] ?? '', reading('0.6'));
  // The first who follows is told to look once more, when the server has begun to listen.
  const [first, ...rest] = await heard;
  expect(first).toMatchObject({ kind: 'reconnected', job: mine });
  expect(rest.map((s) => [s.kind, s.job === mine, s.run, s.by])).toEqual([
    ['test_run', true, null, 'Ines Varga'],
    ['reading', true, runs[1], 'Tobin Marsh'],
  ]);
  ended.abort();
});

import { countingByJob } from './counting';

const slip = (id: string, jobId: string, takesBack: string | null = null) => ({ id, jobId, takesBack });

test('what was taken back does not count, nor does what took it back; other jobs are untouched', () => {
  const rows = [slip('a', 'one'), slip('b', 'two'), slip('c', 'one'), slip('d', 'one', 'a')];
  const ids = [...countingByJob(rows)].map(([job, own]) => [job, own.map((r) => r.id)]);
  expect(ids).toEqual([
    ['two', ['b']],
    ['one', ['c']],
  ]);
});

test('a job of which all was taken back is not in it', () => {
  expect(countingByJob([slip('a', 'one'), slip('b', 'one', 'a')]).size).toBe(0);
});

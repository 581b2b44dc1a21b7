import { readUnitsCsv } from '../../formats/units-csv';
import { readBeside, type ReadingAnswer, type ReadingQuestion } from './read-beside';

const shared = globalThis as { mudflatRead?: (question: ReadingQuestion) => Promise<ReadingAnswer> };
afterEach(() => delete shared.mudflatRead);

const HEAD = 'fleet_number,kind,depot,family\n';
const SMALL = `${HEAD}PL-1,Tipper,Quay Yard,L4-20\n`;
const LARGE = HEAD + Array.from({ length: 3_000 }, (_, i) => `PL-${i},Tipper,Quay Yard,L4-20\n`).join('');

test('where there is no thread, every file is read here', async () => {
  expect(await readBeside('units', SMALL)).toEqual(readUnitsCsv(SMALL));
  expect(await readBeside('units', LARGE)).toEqual(readUnitsCsv(LARGE));
});

test('only a large file is read beside', async () => {
  const asked: ReadingQuestion[] = [];
  shared.mudflatRead = (question) => {
    asked.push(question);
    return Promise.resolve({ read: { ok: true, value: [] } });
  };
  expect(await readBeside('units', SMALL)).toEqual(readUnitsCsv(SMALL));
  expect(await readBeside('units', LARGE)).toEqual({ ok: true, value: [] });
  expect(asked.map((q) => [q.kind, q.given[0].length])).toEqual([['units', LARGE.length]]);
});

test.each(['time', 'memory'] as const)('a file that takes too much %s is refused in words', async (ended) => {
  shared.mudflatRead = () => Promise.resolve({ ended });
  expect(await readBeside('units', LARGE)).toMatchObject({
    ok: false,
    error: [
      { path: '', message: expect.stringContaining(`too ${ended === 'time' ? 'long' : 'much memory'}`) as string },
    ],
  });
});

import { v7 } from 'uuid';
import { readFittingValuesCsv } from '../../formats/fitting-values-csv';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { importFittingValues, viewServiceData } from './service-data';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
});
afterAll(() => test_.drop());

const BY = 'Odile Brandt';
const HEAD = 'family,sequence,step,value,source\n';
const read = (rows: string) => {
  const list = readFittingValuesCsv(HEAD + rows);
  if (!list.ok) throw new Error(JSON.stringify(list.error));
  return list.value;
};
const take = (rows: string, batch: string | null = v7()) =>
  importFittingValues(test_.db, read(rows), { batch, by: BY });
const valuesOf = async (family: string | null) =>
  (await viewServiceData(test_.db)).lines
    .filter((l) => l.kind === 'fitting' && l.family === family)
    .map((l) => [l.key, (l.body as { value: string }).value, l.source, l.revision]);

test('values are looked at, taken once, changed, and left as they are', async () => {
  const rows = 'L4-20,glow-plugs,torque,17 Nm,sheet 3\n,glow-plugs,torque,15 Nm,sheet 1\n';
  expect(await take(rows, null)).toMatchObject({
    value: { rows: [{ action: 'new' }, { action: 'new' }], stored: 0 },
  });
  expect(await valuesOf('L4-20')).toEqual([]);
  const batch = v7();
  expect(await take(rows, batch)).toMatchObject({ value: { stored: 2 } });
  expect(await take(rows, batch)).toMatchObject({ value: { stored: 0, rows: [{ action: 'unchanged' }, {}] } });
  // A family in other capitals is that family.
  expect(await take('l4-20,glow-plugs,torque,18 Nm,sheet 4\n')).toMatchObject({
    value: { rows: [{ action: 'change' }] },
  });
  expect(await valuesOf('L4-20')).toEqual([['glow-plugs/torque', '18 Nm', 'sheet 4', 2]]);
  expect(await valuesOf(null)).toEqual([['glow-plugs/torque', '15 Nm', 'sheet 1', 1]]);
});

test('what is wrong is told by line, and nothing of the list is taken', async () => {
  const before = await viewServiceData(test_.db);
  const rows =
    'L3-11,glow-plugs,torque,17 Nm,s\nnone,glow-plugs,torque,17 Nm,s\nL3-11,glow-plugs,torque,18 Nm,s\nl3-11,glow-plugs,torque,19 Nm,s\n';
  expect(await take(rows)).toMatchObject({
    error: {
      errors: [
        { path: '/line 3/family', message: 'There is no engine family "none".' },
        { path: '/line 4/step', message: 'This value stands in line 2 already.' },
        { path: '/line 5/step', message: 'This value stands in line 4 already.' },
      ],
    },
  });
  expect(await viewServiceData(test_.db)).toEqual(before);
});

test('another list under the same batch is refused, not left out without a word', async () => {
  const batch = v7();
  expect(await take('L5-27,glow-plugs,torque,17 Nm,s\n', batch)).toMatchObject({ value: { stored: 1 } });
  const other = 'L3-11,glow-plugs,torque,12 Nm,s\nL5-27,glow-plugs,torque,19 Nm,s\n';
  expect(await take(other, batch)).toMatchObject({ error: { status: 409, errors: [{ path: '/line 3/step' }] } });
  expect(await valuesOf('L3-11')).toEqual([]);
  expect(await valuesOf('L5-27')).toEqual([['glow-plugs/torque', '17 Nm', 's', 1]]);
});

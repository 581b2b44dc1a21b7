import { readFittingValuesCsv, writeFittingValuesCsv } from './fitting-values-csv';

const GOOD =
  'family,sequence,step,value,source\nL4-20,glow-plugs,torque,17 Nm,Manual p. 3\n,Glow plugs,torque,20 Nm,=ours\n';

test('out and in again; a sequence may be called by its name, an empty family is any engine', () => {
  const read = readFittingValuesCsv(GOOD);
  expect(read).toMatchObject({
    ok: true,
    value: [
      { line: 2, family: 'L4-20', key: 'glow-plugs/torque', value: '17 Nm' },
      { line: 3, family: null, key: 'glow-plugs/torque', value: '20 Nm', source: '=ours' },
    ],
  });
  if (!read.ok) return;
  const again = readFittingValuesCsv(writeFittingValuesCsv(read.value));
  expect(again.ok && again.value).toEqual(read.value);
});

test.each([
  ['glow-plug,torque,17 Nm,s', '/line 2/sequence', 'Did you mean "glow-plugs"?'],
  ['glow-plugs,torqe,17 Nm,s', '/line 2/step', 'Did you mean "torque"?'],
  ['glow-plugs,warm,17 Nm,s', '/line 2/step', 'There is no step with a value "warm"'],
  ['glow-plugs,torque,seventeen,s', '/line 2/value', ''],
  ['glow-plugs,torque,17 Nm,', '/line 2/source', 'Where is it from?'],
  [`glow-plugs,torque,17 Nm,${'s'.repeat(201)}`, '/line 2/source', 'At most 200 characters.'],
])('%s is named at %s', (row, path, says) =>
  expect(readFittingValuesCsv(`sequence,step,value,source\n${row}\n`)).toMatchObject({
    ok: false,
    error: [{ path, message: expect.stringContaining(says) as string }],
  }),
);

import { sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import type { SpecificationEntry } from '../../formats/specifications';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { workshopActor } from '../testing/workshop';
import { importSpecifications } from './import-specifications';
import { currentEntries, recordSpecification, specificationRows } from './specifications';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
});
afterAll(() => test_.drop());

const LEAD = 'Odile Brandt';
const TECHNICIAN = 'Ines Varga';
const LOOKING: Parameters<typeof importSpecifications>[2] = { batch: null, actor: workshopActor(LEAD) };
const taking = (by = LEAD) => ({ batch: v7(), actor: workshopActor(by) });
const entry: SpecificationEntry = {
  test: 'vane-actuator-coil',
  scope: 'family',
  of: 'L3-11',
  limits: { quantity: 'resistance', unit: 'ohm', lower: 3, upper: 4 },
  source: 'sheet 3',
};
const actionsOf = async (entries: readonly SpecificationEntry[], how = LOOKING) => {
  const done = await importSpecifications(test_.db, entries, how);
  return done.ok ? done.value.rows.map((r) => r.action) : done.error;
};

test('a file is planned, then taken once, all or nothing', async () => {
  const entries: SpecificationEntry[] = [
    { ...entry, of: 'L3-11' },
    { ...entry, of: 'L5-27' },
  ];
  const planned = await importSpecifications(test_.db, entries, LOOKING);
  expect(planned).toMatchObject({ ok: true, value: { stored: 0, rows: [{ action: 'new' }, { action: 'new' }] } });
  const how = taking();
  expect(await importSpecifications(test_.db, entries, how)).toMatchObject({
    ok: true,
    value: { stored: 2 },
  });
  expect(await importSpecifications(test_.db, entries, how)).toMatchObject({
    ok: true,
    value: { stored: 0, rows: [{ action: 'unchanged' }, { action: 'unchanged' }] },
  });
  const before = (await currentEntries(test_.db)).length;
  const mixed: SpecificationEntry[] = [
    { ...entry, of: 'L4-20' },
    { ...entry, of: 'L6-109', status: 'approved' },
  ];
  expect(await importSpecifications(test_.db, mixed, taking(TECHNICIAN))).toMatchObject({
    ok: false,
    error: { status: 403 },
  });
  expect(await importSpecifications(test_.db, [entry, entry], LOOKING)).toMatchObject({
    ok: false,
    error: { errors: [{ path: '/limits/1' }] },
  });
  expect((await currentEntries(test_.db)).length).toBe(before);
});
test('what goes out comes back as nothing new', async () => {
  const out = await currentEntries(test_.db);
  const back = await importSpecifications(test_.db, out, LOOKING);
  expect(back.ok ? new Set(back.value.rows.map((r) => r.action)) : back.error).toEqual(new Set(['unchanged']));
});

test('a look says what taking the file would be refused for: what is named wrongly, all of it, and who may not', async () => {
  const wrong: SpecificationEntry[] = [
    { ...entry, of: 'L9-99' },
    { ...entry, scope: 'depot', of: 'Nowhere' },
    { ...entry, test: 'florp', of: 'L4-20' },
    { ...entry, of: 'L6-109', limits: { quantity: 'voltage', unit: 'V' } },
  ];
  expect(await importSpecifications(test_.db, wrong, LOOKING)).toMatchObject({
    error: {
      errors: [
        { path: '/limits/0/of', message: 'There is no engine family "L9-99".' },
        { path: '/limits/1/of', message: 'There is no depot "Nowhere".' },
        { path: '/limits/2/test' },
        { path: '/limits/3/limits/quantity' },
      ],
    },
  });
  const approved: SpecificationEntry[] = [{ ...entry, of: 'V8-61', status: 'approved' }];
  const look = await importSpecifications(test_.db, approved, { batch: null, actor: workshopActor(TECHNICIAN) });
  expect(look).toMatchObject({ ok: false, error: { status: 403 } });
  expect(await importSpecifications(test_.db, approved, taking(TECHNICIAN))).toEqual(look);
});

test('a family written in other capitals is that family, and its series goes on', async () => {
  const own: SpecificationEntry = { ...entry, of: 'L6-109', school: 'other capitals' };
  expect(await actionsOf([own], taking())).toEqual(['new']);
  expect(await actionsOf([{ ...own, of: 'l6-109' }])).toEqual(['unchanged']);
  const changed = { ...own, of: 'l6-109', source: 'sheet 4' };
  expect(await actionsOf([changed], taking())).toEqual(['revision']);
  expect((await currentEntries(test_.db)).filter((e) => e.school === 'other capitals')).toMatchObject([
    { of: 'L6-109', source: 'sheet 4' },
  ]);
  expect(await actionsOf([own, { ...own, of: 'l6-109' }])).toMatchObject({ errors: [{ path: '/limits/1' }] });
});

test('a draft that a file approves becomes approved, once; what is approved is no draft again for saying the same', async () => {
  const own: SpecificationEntry = { ...entry, of: 'L5-27', school: 'by file' };
  expect(await actionsOf([own], taking(TECHNICIAN))).toEqual(['new']);
  const approved: SpecificationEntry = { ...own, status: 'approved' };
  expect(await actionsOf([approved], taking())).toEqual(['revision']);
  expect(await actionsOf([approved], taking())).toEqual(['unchanged']);
  expect(await actionsOf([own], taking(TECHNICIAN))).toEqual(['unchanged']);
  expect((await currentEntries(test_.db)).filter((e) => e.school === 'by file')).toMatchObject([
    { status: 'approved' },
  ]);
});

test('limits that only moved to another page are the next revision, shown with what differs; a file without pages is not', async () => {
  const bare: SpecificationEntry = { ...entry, of: 'L5-27', school: 'by page' };
  const own: SpecificationEntry = { ...bare, document: 'Manual 4', page: '12' };
  expect(await actionsOf([own], taking())).toEqual(['new']);
  const moved = { ...own, page: '14' };
  expect(await importSpecifications(test_.db, [moved], LOOKING)).toMatchObject({
    value: {
      rows: [{ action: 'revision', clashes: [{ differs: [{ field: 'page', there: '12', here: '14' }] }] }],
    },
  });
  expect(await actionsOf([moved], taking())).toEqual(['revision']);
  expect(await actionsOf([moved])).toEqual(['unchanged']);
  expect(await actionsOf([bare])).toEqual(['unchanged']);
  expect((await currentEntries(test_.db)).filter((e) => e.school === 'by page')).toMatchObject([
    { document: 'Manual 4', page: '14' },
  ]);
});

test('more limits than go into one statement are stored, each once', async () => {
  const many = Array.from({ length: 1_203 }, (_, i): SpecificationEntry => ({
    ...entry,
    scope: 'part',
    of: `part ${i}`,
  }));
  const how = taking();
  expect(await importSpecifications(test_.db, many, how)).toMatchObject({ value: { stored: 1_203 } });
  expect(await importSpecifications(test_.db, many, how)).toMatchObject({ value: { stored: 0 } });
  const rows = (await specificationRows(test_.db)).filter(({ row }) => row.part?.startsWith('part '));
  expect(rows).toHaveLength(1_203);
  expect(new Set(rows.map(({ row }) => row.seriesId)).size).toBe(1_203);
});

test('a file and a person who say the same limits at the same moment make two revisions of one series', async () => {
  const own: SpecificationEntry = { ...entry, of: 'V8-61', school: 'at once' };
  await actionsOf([own], taking());
  for (let i = 0; i < 5; i++) {
    const [file, person] = await Promise.all([
      importSpecifications(test_.db, [{ ...own, source: `file ${i}` }], taking()),
      recordSpecification(
        test_.db,
        { id: v7(), by: LEAD, entry: { ...own, source: `person ${i}` } },
        workshopActor(LEAD),
      ),
    ]);
    expect([file.ok, person.ok]).toEqual([true, true]);
  }
  const rows = (await specificationRows(test_.db)).filter(({ row }) => row.school === 'at once');
  expect(new Set(rows.map(({ row }) => row.seriesId)).size).toBe(1);
  expect(rows.map(({ row }) => row.revision)).toEqual([...rows.keys()].map((i) => i + 1));
  expect(rows).toHaveLength(11);
});

test('an id that another row has is refused, and nothing of the file stays', async () => {
  const how = taking();
  const own: SpecificationEntry = { ...entry, of: 'L4-20', school: 'first of two files' };
  expect(await actionsOf([own], how)).toEqual(['new']);
  const count = async () =>
    (await test_.db.execute<{ n: string }>(sql`select count(*) as n from specification`)).rows[0]?.n;
  const before = await count();
  // Another file under the same batch.
  const other = [
    { ...own, school: 'second of two files' },
    { ...own, school: 'third' },
  ];
  expect(await importSpecifications(test_.db, other, how)).toMatchObject({ ok: false, error: { status: 409 } });
  expect(await count()).toBe(before);
});

import fc from 'fast-check';
import { ROLES } from '../core/foundation/vocabulary';
import { DEPOT_COLUMNS, readDepotsCsv, writeDepotsCsv } from './depots-csv';
import { ALL_DEPOTS, PERSON_COLUMNS, readPeopleCsv, writePeopleCsv } from './people-csv';

const name = fc
  .array(fc.constantFrom('a', 'Ö', '=', "'", '"', ',', ';', '-', '@', ' ', '水', 'x y'), { minLength: 1, maxLength: 8 })
  .map((parts) => parts.join('').trim())
  .filter((n) => n !== '' && n.toLowerCase() !== ALL_DEPOTS);
const said = (read: ReturnType<typeof readPeopleCsv> | ReturnType<typeof readDepotsCsv>): unknown =>
  read.ok ? read.value : read.error.map((p) => `${p.path} ${p.message}`);

describe('a list of people', () => {
  const head = `${PERSON_COLUMNS.join(',')}\n`;
  const person = fc.record({
    name,
    role: fc.constantFrom(...ROLES),
    depot: fc.option(name),
    signsIn: fc.boolean(),
  });

  test('out and in again is the same list without a PIN', () =>
    fc.assert(
      fc.property(fc.array(person, { minLength: 1, maxLength: 6 }), (people) => {
        expect(readPeopleCsv(writePeopleCsv(people))).toEqual({
          ok: true,
          value: people.map((p, i) => ({ line: i + 2, ...p, pin: null })),
        });
      }),
    ));

  test('a PIN is taken as it is written; one that a spreadsheet shortened is refused', () => {
    expect(said(readPeopleCsv(`${head}Wim Reed,LEAD,All Depots,NO,"'=1 2,3"\n`))).toEqual([
      { line: 2, name: 'Wim Reed', role: 'lead', depot: null, signsIn: false, pin: "'=1 2,3" },
    ]);
    expect(said(readPeopleCsv(`${head}Wim Reed,lead,Quay Yard,,"9,02417E+11"\n`))).toEqual([
      '/line 2/pin A spreadsheet has shortened this number to "9,02417E+11".',
    ]);
  });

  test('each cell that says nothing is named with its line', () =>
    expect(said(readPeopleCsv(`${head},boss,,maybe,902417\n`))).toEqual([
      '/line 2/name Nothing stands here.',
      '/line 2/depot Which depot? Write "all depots" for whoever works for all.',
      '/line 2/role Must be one of technician, lead, viewer.',
      '/line 2/signs_in "maybe" is neither yes nor no.',
    ]));
});

describe('a list of depots', () => {
  const depot = fc.record({
    name,
    timeZone: fc.constantFrom('Etc/UTC', 'Etc/GMT+3'),
    currency: fc.option(fc.constantFrom('EUR', 'USD')),
    inUse: fc.boolean(),
  });

  test('out and in again is the same list', () =>
    fc.assert(
      fc.property(fc.array(depot, { minLength: 1, maxLength: 6 }), (depots) => {
        expect(readDepotsCsv(writeDepotsCsv(depots))).toEqual({
          ok: true,
          value: depots.map((d, i) => ({ line: i + 2, ...d })),
        });
      }),
    ));

  test('each cell that says nothing is named with its line', () =>
    expect(said(readDepotsCsv(`${DEPOT_COLUMNS.join(';')}\n;;EURO;2\n`))).toEqual([
      '/line 2/name Nothing stands here.',
      '/line 2/time_zone Nothing stands here.',
      '/line 2/currency Three capital letters, as in EUR (ISO 4217).',
      '/line 2/in_use "2" is neither yes nor no.',
    ]));
});

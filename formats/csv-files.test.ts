import fc from 'fast-check';
import { CATALOGUE } from '../core/catalogue/catalogue';
import type { Limits } from '../core/limits/types';
import { readFittingValuesCsv, writeFittingValuesCsv } from './fitting-values-csv';
import { readDepotsCsv } from './depots-csv';
import { readPeopleCsv } from './people-csv';
import { readReadingsCsv } from './readings-csv';
import { readSpecificationsCsv } from './specifications-csv';
import { active, inert, readTable, writeTable } from './table';
import { readUnitsCsv, UNIT_COLUMNS, writeUnitsCsv } from './units-csv';

/**
 * What a person writes into a cell, and what a spreadsheet makes of it: quotes, delimiters, formulas, other
 * scripts.
 */
const text = (most: number): fc.Arbitrary<string> =>
  fc
    .array(
      fc.oneof(
        fc.constantFrom('"', '""', ',', ';', '\t', "'", "''", '=', '+', '-', '@', ' ', 'Ω', 'é', 'Ж', '水', '=SUM(A1)'),
        fc.string({ unit: 'grapheme-ascii', maxLength: 5 }),
      ),
      { maxLength: 6 },
    )
    .map((parts) => parts.join('').slice(0, most).trim())
    .filter((t) => t !== '');

describe('a cell is never a formula, and is what it was', () => {
  test('for any text', () =>
    fc.assert(
      fc.property(fc.oneof(text(40), fc.string()), (t) => {
        expect(inert(t)).not.toMatch(/^[=+\-@\t\r\n]/);
        expect(active(inert(t))).toBe(t);
      }),
    ));
});

describe('a list of units', () => {
  const unit = fc.record({ fleetNumber: text(30), kind: text(60), depot: text(60), family: text(30) });

  test('out and in again is the same list, each with the line on which it stands', () =>
    fc.assert(
      fc.property(fc.array(unit, { minLength: 1, maxLength: 8 }), (units) => {
        expect(readUnitsCsv(writeUnitsCsv(units))).toEqual({
          ok: true,
          value: units.map((u, i) => ({ line: i + 2, ...u })),
        });
      }),
    ));

  test('an empty cell is named by line and column, wherever it is, beside cells with line breaks and blank lines', () => {
    const broken = fc.record({
      rows: fc.array(
        fc.record({ cells: fc.tuple(text(20), text(20), text(20), text(20)), breaks: fc.nat(3), blanks: fc.nat(2) }),
        { minLength: 1, maxLength: 6 },
      ),
      empty: fc.tuple(fc.nat(5), fc.nat(3)),
    });
    fc.assert(
      fc.property(broken, ({ rows, empty: [r, c] }) => {
        const at = r % rows.length;
        const lines: string[] = [UNIT_COLUMNS.join(',')];
        let wanted = 0;
        for (const [i, { cells, breaks, blanks }] of rows.entries()) {
          lines.push(...Array.from({ length: blanks }, () => ''));
          if (i === at) wanted = lines.length + 1;
          const written = cells.map((cell, k) =>
            k === c && i === at ? '' : k === 0 ? cell + '\nx'.repeat(breaks) : cell,
          );
          lines.push(
            ...written
              .map((cell) => `"${cell.replaceAll('"', '""')}"`)
              .join(',')
              .split('\n'),
          );
        }
        expect(readUnitsCsv(lines.join('\r\n'))).toMatchObject({
          ok: false,
          error: [{ path: `/line ${wanted}/${UNIT_COLUMNS[c]}`, message: 'Nothing stands here.' }],
        });
      }),
    );
  });

  test('what is too long, a column too many and one too few are said', () => {
    const said = (file: string): unknown => {
      const read = readUnitsCsv(file);
      return read.ok ? 'good' : read.error.map((p) => [p.path, p.message]);
    };
    expect(said(`${UNIT_COLUMNS.join(';')}\n${'9'.repeat(31)};Tipper;Quay;L4\n`)).toEqual([
      ['/line 2/fleet_number', 'At most 30 characters.'],
    ]);
    expect(said('fleet_number,kind,depot\n1,Tipper,Quay\n')).toEqual([
      ['/family', 'The header row has no column "family".'],
    ]);
    expect(said('fleet_number,kind,depot,famly\n1,Tipper,Quay,L4\n')).toEqual([
      ['/family', 'The header row has no column "family".'],
      ['/famly', 'The column "famly" is not known. Did you mean "family"?'],
    ]);
    expect(said('')).toEqual([['', 'The file has a header at most and no rows.']]);
  });
});

describe('any bytes as a table', () => {
  const near = fc
    .array(
      fc.constantFrom('test', 'position', ',', ';', '\n', '\r\n', '"', '0.6', '\ufeff', '\u2028', 'é', '-', ' ', '\t'),
    )
    .map((parts) => parts.join(''));

  test('is read or refused with a place and words, never thrown', () =>
    fc.assert(
      fc.property(fc.oneof(near, fc.string()), (t) => {
        for (const read of [
          readTable(t, ['test'], 5),
          readUnitsCsv(t),
          readFittingValuesCsv(t),
          readSpecificationsCsv(t),
          readPeopleCsv(t),
          readDepotsCsv(t),
        ])
          if (!read.ok)
            for (const p of read.error) {
              expect(p.message.length).toBeGreaterThan(5);
              expect(p.path).toMatch(/^(\/.*)?$/s);
            }
      }),
      { numRuns: 300 },
    ));

  test('more rows than are taken are refused as a whole', () => {
    const rows = (n: number): string => `test\n${'a\n'.repeat(n)}`;
    expect(readTable(rows(5), ['test'], 5).ok).toBe(true);
    expect(readTable(rows(6), ['test'], 5)).toEqual({
      ok: false,
      error: [{ path: '', message: 'The file has more than 5 rows.' }],
    });
  });

  test('a number that its comma parted is refused with its line: all behind it stands one column too far', () => {
    const limits = 'test,scope,quantity,unit,upper,source\nx,general,resistance,ohm,1,5,Manual p. 3\n';
    const message =
      '"Manual p. 3" stands under no column of the header. A comma, or what else parts the cells, needs quotes around its cell.';
    expect(readSpecificationsCsv(limits)).toEqual({ ok: false, error: [{ path: '/line 2', message }] });
    expect(readSpecificationsCsv(limits.replace('1,5', '"1,5"')).ok).toBe(true);
    expect(readTable('position,entry\n1,0.6\n2,0,7\n', ['position', 'entry'], 10)).toMatchObject({
      error: [{ path: '/line 3', message: expect.stringContaining('"7" stands under no column') as string }],
    });
  });

  test('empty cells behind the last column, and rows that end early, are what spreadsheets write', () =>
    expect(readTable('a,b,\n1,2,,\n3\n', ['a', 'b'], 10)).toEqual({
      ok: true,
      value: [
        { line: 2, cells: { a: '1', b: '2', '': '' } },
        { line: 3, cells: { a: '3', b: '', '': '' } },
      ],
    }));

  test('a first line that names what parts the cells is none of the table, and counts as a line', () => {
    for (const mark of ['sep=;\r\n', '\ufeff"sep=;"\n', 'SEP=;;;\n'])
      expect(readTable(`${mark}a;b\n"1;5";x,y\n`, ['a', 'b'], 10)).toEqual({
        ok: true,
        value: [{ line: 3, cells: { a: '1;5', b: 'x,y' } }],
      });
    expect(readTable('sep=|\na|b\n1|2\n', ['a'], 10).ok).toBe(false);
  });

  test('a column that is there twice is named: one of the two would be left out', () =>
    expect(readTable('a,B,b\n1,2,3\n', ['a'], 10)).toEqual({
      ok: false,
      error: [{ path: '/b', message: 'The header row has two columns "b".' }],
    }));

  test('a table of any cells is written as it is read', () =>
    fc.assert(
      fc.property(fc.array(fc.record({ a: text(20), b: text(20) }), { minLength: 1, maxLength: 5 }), (rows) => {
        const read = readTable(writeTable(rows, ['a', 'b']), ['a', 'b'], 100);
        expect(read.ok && read.value.map((r) => r.cells)).toEqual(rows);
      }),
    ));
});

describe('readings for a bench', () => {
  const limits: Limits = { quantity: 'resistance', unit: 'ohm', lower: 0.3, upper: 1.5 };
  const target = { test: 'glow-plug-resistance', limits, positions: [1, 2, 3, 'relay'] };
  const read = (file: string): unknown => {
    const outcome = readReadingsCsv(file, target);
    return outcome.ok ? outcome.value : outcome.error;
  };

  test('rows in any order, a unit of its own behind a plain number only, places in any case', () =>
    expect(read('entry,position,unit_of_measure\n0.6,3,ohm\n600,1,mohm\n0.9 ohm,2,kohm\nOL,Relay,\n')).toEqual({
      rows: [
        { line: 2, position: 3, entry: '0.6' },
        { line: 3, position: 1, entry: '600 mohm' },
        { line: 4, position: 2, entry: '0.9 ohm' },
        { line: 5, position: 'relay', entry: 'OL' },
      ],
      problems: [],
    }));

  test.each([
    ['1,0.6,battery-at-rest,', 'This row is of the test "battery-at-rest", not of "glow-plug-resistance".'],
    ['9,0.6,,', 'There is no position "9" here.'],
    ['1,0.6,,furlong', '"furlong" is no unit known here.'],
    ['1,,,', 'The entry is empty.'],
  ])('%s: one row is refused, the others stand', (row, message) =>
    expect(read(`position,entry,test,unit_of_measure\n2,0.7,,\n${row}\n3,0.8,,\n`)).toEqual({
      rows: [
        { line: 2, position: 2, entry: '0.7' },
        { line: 4, position: 3, entry: '0.8' },
      ],
      problems: [{ line: 3, message }],
    }),
  );

  test('a position that stands there twice: the first counts, the second is named with it', () =>
    expect(read('position,entry\n1,0.6\n1,201\n')).toEqual({
      rows: [{ line: 2, position: 1, entry: '0.6' }],
      problems: [{ line: 3, message: 'Position 1 stands in line 2 already.' }],
    }));
});

describe('limits and fitting values', () => {
  test('a test may be called by its name, in any case; a comma stands before decimals where the file says so', () => {
    const names = CATALOGUE.map(({ id, name }) => ({ id, name }));
    const [test] = names;
    const file = `test,scope,quantity,unit,upper,source\n${test?.name.toUpperCase()},general,resistance,ohm,"1,5",s\n`;
    expect(readSpecificationsCsv(file.replace(/"1,5"/, '1.5'), names)).toMatchObject({
      ok: true,
      value: { entries: [{ test: test?.id, limits: { upper: 1.5 } }], lines: [2] },
    });
    expect(readSpecificationsCsv(file, names)).toMatchObject({
      ok: true,
      value: { entries: [{ limits: { upper: 1.5 } }] },
    });
  });

  test('fitting values with any source come back', () =>
    fc.assert(
      fc.property(text(60), fc.oneof(fc.constant(null), text(30)), (source, family) => {
        const row = { family, key: 'glow-plugs/torque', value: '17 Nm', source };
        const read = readFittingValuesCsv(writeFittingValuesCsv([row]));
        expect(read).toEqual({ ok: true, value: [{ line: 2, ...row }] });
      }),
    ));
});

import fc from 'fast-check';
import { CATALOGUE, findTest } from '../core/catalogue/catalogue';
import { readCatalogue, writeCatalogue } from '../formats/catalogue';
import { readReadingsCsv } from '../formats/readings-csv';
import {
  readSpecifications,
  type SpecificationEntry,
  specificationKey,
  writeSpecifications,
} from '../formats/specifications';
import { readSpecificationsCsv, SPECIFICATION_COLUMNS, writeSpecificationsCsv } from '../formats/specifications-csv';
import { judgeDocument } from './judging/judge-document';
import { planCatalogue } from './catalogue-plan';

const ENTRIES: readonly SpecificationEntry[] = [
  {
    test: 'glow-plug-resistance',
    scope: 'family',
    of: 'L4-20',
    limits: { quantity: 'resistance', unit: 'ohm', lower: 0.3, upper: 1, neighbours: { maxRatio: 2.5 } },
    source: 'sheet 1, "page" 2; 3',
    document: 'sheet 1',
    page: '2',
    documentRevision: 'C',
    documentDate: '2024-05-01',
    status: 'approved',
  },
  {
    test: 'sensor-transfer',
    scope: 'general',
    school: 'strict',
    limits: {
      quantity: 'voltage',
      unit: 'V',
      transfer: {
        kind: 'table',
        stimulus: { quantity: 'pressure', unit: 'kPa' },
        points: [
          [0, 0.5],
          [100, 4.5],
        ],
      },
      tolerance: { absolute: 0.1 },
    },
    source: '=SUM(A1)',
    status: 'draft',
  },
  {
    test: 'controller-pins',
    scope: 'depot',
    of: '-Quay',
    when: { systemVoltage_V: 24, key: 'on', fromTemperature_degC: -5 },
    limits: { quantity: 'voltage', unit: 'V', lower: 23, byPosition: { ground: { lower: null, upper: 0.2 } } },
    source: 'line one\nline two',
    status: 'rule-of-thumb',
  },
];

describe('the shelf as a file', () => {
  test('JSON and back', () =>
    expect(readSpecifications(JSON.stringify(writeSpecifications(ENTRIES)))).toEqual({ ok: true, value: ENTRIES }));
  test('CSV and back, formulas inert on the way', () => {
    const csv = writeSpecificationsCsv(ENTRIES);
    expect(csv).toContain("'=SUM(A1)");
    expect(readSpecificationsCsv(csv)).toMatchObject({ ok: true, value: { entries: ENTRIES } });
  });
  test('as a spreadsheet saves it: byte-order mark, semicolons, decimal commas, capitals in the header', () => {
    const read = readSpecificationsCsv(
      '\uFEFFTest;Scope;Quantity;Unit;Lower;Upper;Source\r\nvoltage-drop;general;voltage;V;;0,4;ours\r\n',
    );
    expect(read).toEqual({
      ok: true,
      value: {
        entries: [
          {
            test: 'voltage-drop',
            scope: 'general',
            limits: { quantity: 'voltage', unit: 'V', upper: 0.4 },
            source: 'ours',
          },
        ],
        lines: [2],
      },
    });
  });
  test('a test may be called by its name; thousands and days as a spreadsheet writes them', () => {
    const tests = [{ id: 'voltage-drop', name: 'Voltage drop' }];
    const read = readSpecificationsCsv(
      'test;scope;quantity;unit;upper;open_above;source;document_date\nVoltage DROP;general;voltage;V;0,4;1.500;ours;3.11.2026\n',
      tests,
    );
    expect(read).toMatchObject({
      ok: true,
      value: {
        entries: [{ test: 'voltage-drop', limits: { upper: 0.4, openAbove: 1500 }, documentDate: '2026-11-03' }],
      },
    });
    expect(
      readSpecificationsCsv('test,scope,quantity,unit,upper,source\nVoltage drp,general,voltage,V,1,s\n', tests),
    ).toEqual({
      ok: false,
      error: [{ path: '/line 2/test', message: 'There is no test "Voltage drp". Did you mean "Voltage drop"?' }],
    });
    expect(readSpecificationsCsv('test,scope,quantity,unit,uper,source\na,general,voltage,V,1,s\n')).toMatchObject({
      ok: false,
      error: [{ path: '/uper', message: expect.stringContaining('Did you mean "upper"?') as string }],
    });
  });
  test('what is wrong is named by line and column, and nothing is taken', () => {
    const read = readSpecificationsCsv(
      'test,scope,quantity,unit,lower,upper,source,more\na,general,voltage,V,1,2,s,\nb,family,voltage,V,x,2,s,\nc,general,voltage,V,3,2,s,\nd,general,voltage,V,,2,,\ne,general,voltage,V,,2,s,"{""x"":1}"\n',
    );
    expect(read.ok ? [] : read.error.map((p) => p.path)).toEqual([
      '/line 3/lower',
      '/line 4/limits/lower',
      '/line 5/source',
      '/line 6/more',
    ]);
    expect(readSpecificationsCsv('test,scope\na,b\n')).toMatchObject({
      ok: false,
      error: [{ path: '/quantity' }, { path: '/unit' }, { path: '/source' }],
    });
  });
  test.each<[object, string]>([
    [{ scope: 'family' }, '/limits/0/of'],
    [{ scope: 'general', of: 'x' }, '/limits/0/of'],
    [{ colour: 'red' }, '/limits/0/colour'],
    [{ when: { fromTemperature_degC: 30, toTemperature_degC: 10 } }, '/limits/0/when/fromTemperature_degC'],
    [{ limits: { quantity: 'voltage', unit: 'ohm' } }, '/limits/0/limits/unit'],
    [
      { limits: { quantity: 'voltage', unit: 'V', transfer: { kind: 'table', points: [[0, 1]] } } },
      '/limits/0/limits/transfer/stimulus',
    ],
  ])('%j is refused at its path', (change, path) => {
    const read = readSpecifications(
      JSON.stringify(
        writeSpecifications([
          { test: 't', scope: 'general', limits: { quantity: 'voltage', unit: 'V' }, source: 's', ...change },
        ]),
      ),
    );
    expect(read.ok ? [] : read.error.map((p) => p.path)).toContain(path);
  });
  test('any limits survive the table', () => {
    const number = fc.double({ min: 0, max: 1e6, noNaN: true });
    const text = fc
      .string({ minLength: 1, maxLength: 12 })
      .filter((s) => s.trim() === s && s !== '' && !/[\0\r]/.test(s));
    fc.assert(
      fc.property(fc.record({ lower: number, span: number, steady: number, source: text, of: text }), (x) => {
        const entry: SpecificationEntry = {
          test: 't',
          scope: 'part',
          of: x.of,
          limits: {
            quantity: 'resistance',
            unit: 'ohm',
            lower: x.lower,
            upper: x.lower + x.span,
            steadyWithin: x.steady,
          },
          source: x.source,
          status: 'draft',
        };
        expect(readSpecificationsCsv(writeSpecificationsCsv([entry]))).toEqual({
          ok: true,
          value: { entries: [entry], lines: [2] },
        });
      }),
    );
  });
  test('the key of what an entry is about does not hang on its numbers', () => {
    const [first] = ENTRIES as [SpecificationEntry];
    expect(specificationKey({ ...first, source: 'other', limits: { quantity: 'resistance', unit: 'ohm' } })).toBe(
      specificationKey(first),
    );
    expect(specificationKey({ ...first, of: 'L5-27' })).not.toBe(specificationKey(first));
    expect(SPECIFICATION_COLUMNS).toContain('when_system_voltage');
  });
});

describe('the catalogue as a file', () => {
  test('all that ships goes out and comes back', () =>
    expect(readCatalogue(JSON.stringify(writeCatalogue(CATALOGUE)))).toEqual({ ok: true, value: CATALOGUE }));
  const test_ = findTest('harness-pins')!;
  const paths = (tests: readonly object[]): string[] => {
    const read = readCatalogue(JSON.stringify({ format: 'mudflat/catalogue', version: 1, tests }));
    return read.ok ? [] : read.error.map((p) => p.path);
  };
  test('every problem is named, and a test is there once', () => {
    expect(paths([{ ...test_, colour: 1 }])).toEqual(['/tests/0/colour']);
    expect(paths([test_, { ...test_, states: [] }])).toEqual(['/tests/1/states', '/tests/1/id']);
    expect(paths([{ ...test_, layout: 'heap' }])).toEqual(['/tests/0/layout']);
    expect(readCatalogue('{"format":"mudflat/shelf"}').ok).toBe(false);
  });
  test('what a file would do', () => {
    expect(
      planCatalogue([test_, { ...test_, name: 'Other' }, { ...test_, id: 'new-one' }], CATALOGUE).map((r) => r.action),
    ).toEqual(['unchanged', 'changed', 'new']);
  });
});

describe('fifty thousand rows', () => {
  test('are read, with the quirks of a spreadsheet, and each bad one is named', () => {
    const rows = Array.from({ length: 50_000 }, (_, i) =>
      `pin ${i + 1};"${(i % 90) / 100 + 0.1}";"a note\r\nover two lines"`.replace('.', ','),
    );
    rows[41_000] = 'pin 41001;florp;x';
    const text = `\uFEFFPosition;Entry;Note\r\n${rows.join('\r\n')}\r\n`;
    const positions = Array.from({ length: 50_000 }, (_, i) => `pin ${i + 1}`);
    const read = readReadingsCsv(text, {
      test: 'x',
      limits: { quantity: 'resistance', unit: 'ohm', upper: 2 },
      positions,
    });
    if (!read.ok) throw new Error(JSON.stringify(read.error));
    expect(read.value.rows).toHaveLength(49_999);
    expect(read.value.problems).toEqual([
      { line: 2 + 2 * 41_000, message: expect.stringContaining('florp') as string },
    ]);
    expect(read.value.rows.at(-1)).toMatchObject({ position: 'pin 50000', line: 2 + 2 * 49_999 - 1 });
  });
});

describe('a file to be judged', () => {
  const document = (more: object) =>
    judgeDocument({
      format: 'mudflat/test-set',
      version: 1,
      test: 'x',
      limits: { quantity: 'resistance', unit: 'ohm', upper: 2 },
      readings: [{ position: 'pin 1', entry: '1.0' }],
      ...more,
    });
  test('groups of pins, a decision rule, repeats and another meter', () => {
    expect(
      document({
        decision: 'simple',
        groups: { left: ['pin 1', 'pin 3'] },
        engine: { layout: 'inline', cylinders: 4, groups: { right: ['pin 2', 'pin 4'] } },
        readings: [
          { position: 'pin 1', entry: 'OL' },
          { position: 'pin 2', entry: '0.4', earlier: ['0.5'] },
          { position: 'pin 3', entry: 'OL', instrument: { kind: 'multimeter', leadZero: '0.1' } },
          { position: 'pin 4', entry: '0.3' },
        ],
      }),
    ).toMatchObject({ ok: true, value: { pattern: 'group', group: 'left' } });
  });
  test.each<[object, string]>([
    [{ decision: 'hope' }, '/decision'],
    [
      { readings: [{ position: 'a', entry: '1', instrument: { kind: 'm', leadZero: 'OL' } }] },
      '/readings/0/instrument/leadZero',
    ],
    [{ readings: [{ position: 'a', entry: '1', earlier: ['x'] }] }, '/readings/0/earlier/0'],
    [
      {
        limits: { quantity: 'current', unit: 'A' },
        instrument: { kind: 'clamp', clamp_mVperA: 10, clampZero: '3 V kaputt' },
        readings: [],
      },
      '/instrument/clampZero',
    ],
  ])('%j', (more, path) => {
    const judged = document(more);
    expect(judged.ok ? [] : judged.error.map((p) => p.path)).toEqual([path]);
  });
  test('a clamp with its zero', () => {
    expect(
      document({
        limits: { quantity: 'current', unit: 'A', lower: 8 },
        instrument: { kind: 'clamp', clamp_mVperA: 10, clampZero: '2 mV' },
        readings: [{ position: 1, entry: '131 mV' }],
      }),
    ).toMatchObject({
      ok: true,
      value: { readings: [{ corrected: expect.closeTo(12.9, 9) as number, verdict: 'within' }] },
    });
  });
});

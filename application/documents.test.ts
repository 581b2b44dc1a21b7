import fc from 'fast-check';
import { findTest } from '../core/catalogue/catalogue';
import { readReadingsCsv } from '../formats/readings-csv';
import { judgeRun } from './judging/judge-run';
import { readInstrument, readLeadZero } from '../formats/instrument';
import { problemDetails } from '../formats/problem';
import { schema } from '../formats/schemas';
import { readJson, validate } from '../formats/validate';
import { currentReadings } from './judging/corrections';
import { OPEN_JOB } from '../formats/requests/jobs';
import { RECORD_SPECIFICATION } from '../formats/requests/specifications';
import { RECORD_READING } from '../formats/requests/runs';

const paths = (check: ReturnType<typeof schema>, document: unknown): string[] => {
  const result = validate(check, document);
  return result.ok ? [] : result.error.map((e) => e.path).sort();
};
const ID = '01935b2e-7f3a-7000-8000-000000000001';

describe('validation names the place', () => {
  const reading = { id: ID, position: 1, entry: '0.6', by: 'Ines', takenAt: '2026-11-20T10:00:00Z' };
  const check = schema(RECORD_READING);
  test.each<[string, object, string[]]>([
    ['as it should be', {}, []],
    ['no uuid', { id: 'x' }, ['/id']],
    ['position 0', { position: 0 }, ['/position']],
    ['a position of half', { position: 1.5 }, ['/position']],
    ['a pin', { position: 'pin 26' }, []],
    ['blank entry', { entry: '  ' }, ['/entry']],
    ['no time', { takenAt: 'today' }, ['/takenAt']],
    ['nobody', { by: ' ' }, ['/by']],
    ['more', { extra: 1, other: 2 }, ['/extra', '/other']],
    ['a long reason', { why: 'x'.repeat(501) }, ['/why']],
  ])('%s', (_, change, expected) => expect(paths(check, { ...reading, ...change })).toEqual(expected));
  test('what is missing', () => expect(paths(check, {})).toEqual(['/by', '/entry', '/id', '/position', '/takenAt']));
  test('names with slashes are escaped as JSON Pointer says (RFC 6901)', () =>
    expect(paths(check, { ...reading, 'a/b~c': 1 })).toEqual(['/a~1b~0c']));
  test('a job', () => {
    const job = schema(OPEN_JOB);
    expect(paths(job, { id: ID, unitId: ID, complaint: 'x', by: 'y', hours: -1 })).toEqual(['/hours']);
    expect(paths(job, [])).toEqual(['']);
  });
  test('limits inside another document', () => {
    const spec = {
      id: ID,
      by: 'Ines',
      entry: { test: 't', scope: 'general', limits: { quantity: 'colour', unit: 'ohm' }, source: 's' },
    };
    expect(paths(schema(RECORD_SPECIFICATION), spec)).toEqual(['/entry/limits/quantity']);
  });
  test.each(['{"a":"x\\u0000"}', '{"a":["\\ud800"]}'])('text that no database keeps: %s', (text) =>
    expect(readJson(text).ok).toBe(false),
  );
  test.each(['{"a":"\\\\u0000"}', '{"a":"\\ud83d\\ude00 Ω"}'])('text that only looks so: %s', (text) =>
    expect(readJson(text).ok).toBe(true),
  );
  test('an id in capitals would be another text for the same row', () =>
    expect(paths(check, { ...reading, id: ID.toUpperCase().replace('8000', '800A') })).toEqual(['/id']));
  test('JSON that is none', () => expect(readJson('{"a":')).toMatchObject({ ok: false, error: [{ path: '' }] }));
  test('problem details carry path and words', () => {
    expect(problemDetails('t', [{ path: '/a', message: 'b.' }])).toEqual({
      type: 'about:blank',
      title: 't',
      status: 422,
      detail: '/a: b.',
      errors: [{ path: '/a', message: 'b.' }],
    });
  });
});

describe('instruments of a file', () => {
  test('the lead zero is read like any entry', () => {
    expect(readInstrument({ kind: 'm', leadZero: '0,20' })).toMatchObject({
      ok: true,
      value: { leadZero_ohm: 0.2, leadZeroResolution_ohm: 0.01 },
    });
    expect(readInstrument({ kind: 'm', leadZero: '200 mΩ' })).toMatchObject({ ok: true, value: { leadZero_ohm: 0.2 } });
    expect(readInstrument({ kind: 'm' })).toMatchObject({ ok: true, value: { leadZero_ohm: null } });
  });
  test.each(['OL', '0.1~0.2', '>1', '-1', 'x', '1 V'])('%s is no lead zero', (entry) =>
    expect(readLeadZero(entry).ok).toBe(false),
  );
});

test('of a chain of corrections the last counts, whatever the order in which they are listed', () => {
  const chain = [
    { id: 'a', supersedes: null },
    { id: 'b', supersedes: 'a' },
    { id: 'c', supersedes: 'b' },
    { id: 'x', supersedes: null },
  ];
  expect(currentReadings(chain).map((r) => r.id)).toEqual(['c', 'x']);
  expect(currentReadings(chain.toReversed()).map((r) => r.id)).toEqual(['x', 'c']);
});

describe('CSV, any file', () => {
  const target = {
    test: 't',
    positions: [1, 2, 3, 4, 5, 6, 7, 8],
    limits: { quantity: 'resistance' as const, unit: 'ohm' },
  };
  test('never throws; a row is read or named by its line', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'position,entry;\t\n\r"0123456789.OLk~ ') }), (text) => {
        const read = readReadingsCsv(`position,entry\n${text}`, target);
        if (!read.ok) return read.error.length > 0;
        return [...read.value.rows, ...read.value.problems].every((r) => r.line >= 2);
      }),
      { numRuns: 500 },
    );
  });
  test('entries come back through any delimiter, quoting and line end', () => {
    const entry = fc.constantFrom('0.6', '0,7', 'OL', '4k5', '0.4~0.9', '>20M', '97,8 kΩ');
    fc.assert(
      fc.property(
        fc.array(entry, { minLength: 1, maxLength: 8 }),
        fc.constantFrom(',', ';', '\t'),
        fc.constantFrom('\n', '\r\n'),
        (entries, delimiter, end) => {
          const rows = entries.map((e, i) => `"${e}"${delimiter}"a ""note"" over${end}two lines"${delimiter}${i + 1}`);
          const read = readReadingsCsv(
            `\uFEFFEntry${delimiter}note${delimiter}Position${end}${rows.join(end)}${end}`,
            target,
          );
          if (!read.ok) throw new Error(JSON.stringify(read.error));
          expect(read.value.problems).toEqual([]);
          expect(read.value.rows.map((r) => r.entry)).toEqual(entries);
          expect(read.value.rows.map((r) => r.line)).toEqual(entries.map((_, i) => 2 + 2 * i));
        },
      ),
    );
  });
});

test('a position that the catalogue has dropped since does not hide what was read there', () => {
  const judged = judgeRun({
    definition: findTest('injector-module-supply')!,
    decision: 'three-way',
    engine: { layout: 'inline', cylinders: 4 },
    limits: { quantity: 'voltage', unit: 'V', lower: 45 },
    instruments: [],
    circumstance: { instrumentId: null, leadZero: null, zeros: {}, states: [], condition: {} },
    readings: [{ position: 'once a state', entry: '44.0', instrumentId: null, earlier: [] }],
  });
  expect(judged).toMatchObject({ ok: true, value: { pattern: 'incomplete', suspects: ['once a state'] } });
});

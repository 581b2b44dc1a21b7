import { CATALOGUE, findTest } from '../../core/catalogue/catalogue';
import type { AccuracyRange } from '../../core/metrology/instrument';
import type { SpecificationEntry } from '../../formats/specifications';
import { copyOf, draftOfTest, testOfDraft } from '../catalogue/draft';
import { draftOfInstrument, instrumentOfDraft, rangeWordsOf } from '../instruments/draft';
import { errorAt } from '../kit/draft';
import { draftOf, entryOfDraft, TEMPLATES } from './draft';
import { forWords, limitWords, predictionWords, valueWords, whenWords } from './words';

const paths = (result: { ok: true } | { ok: false; error: readonly { path: string }[] }): string[] =>
  result.ok ? [] : result.error.map((p) => p.path);

test.each(CATALOGUE.map((t) => [t.id, t] as const))('%s goes into the form and comes back as it was', (_, t) =>
  expect(testOfDraft(draftOfTest(t))).toEqual({ ok: true, value: t }),
);

describe('a test in the form', () => {
  const draft = draftOfTest(findTest('harness-pins')!);
  test('a blank one says what is missing, and nothing else is wrong with it', () => {
    const blank = { id: '', name: '', purpose: '', part: '', probe: '', proves: '', cannotProve: '' };
    expect(paths(testOfDraft({ ...draft, ...blank }))).toEqual([
      '/test/id',
      '/test/name',
      '/test/purpose',
      '/test/part',
      '/test/probe',
      '/test/proves',
      '/test/cannotProve',
    ]);
  });
  test('a copy has an id of its own', () =>
    expect(copyOf(findTest('harness-pins')!)).toMatchObject({ id: 'harness-pins-copy' }));
  test.each<[object, string]>([
    [{ name: ' ' }, '/test/name'],
    [{ positions: '' }, '/test/positions'],
    [{ states: 'wet weather' }, '/test/states'],
    [{ cautions: 'nonsense' }, '/test/cautions'],
    [{ minutes: 'ten' }, '/test/minutes'],
    [{ more: '[1]' }, '/test/more'],
    [{ uses: 'a washer' }, '/test/uses'],
    [{ uses: 'a washer; -3' }, '/test/uses'],
  ])('%j', (change, path) => expect(paths(testOfDraft({ ...draft, ...change }))).toEqual([path]));
  test('what it uses up is said with the minutes that it is worth', () => {
    expect(testOfDraft({ ...draft, uses: 'sealing washers; 5\ncleaner: 1.5 min' })).toMatchObject({
      ok: true,
      value: {
        uses: [
          { what: 'sealing washers', worth_min: 5 },
          { what: 'cleaner', worth_min: 1.5 },
        ],
      },
    });
    expect(testOfDraft({ ...draft, uses: ' \n' })).toMatchObject({ ok: true, value: { id: draft.id } });
  });
  test('a copy keeps that it is planned by itself', () =>
    expect(testOfDraft(draftOfTest({ ...findTest('harness-pins')!, firstLine: true }))).toMatchObject({
      ok: true,
      value: { firstLine: true },
    }));
  test('a state and a caution of the workshop’s own', () => {
    const read = testOfDraft({
      ...draft,
      states: 'key-off\ndry: connector dry: Water conducts: a little.',
      cautions: 'dead-circuit\ndefer\nours: Mind the step.',
    });
    expect(read).toMatchObject({
      ok: true,
      value: {
        states: [{ id: 'key-off' }, { id: 'dry', label: 'connector dry', why: 'Water conducts: a little.' }],
        cautions: [{ id: 'dead-circuit' }, { id: 'defer' }, { id: 'ours', text: 'Mind the step.' }],
      },
    });
  });
});

const ENTRY: SpecificationEntry = {
  test: 'glow-plug-resistance',
  scope: 'family',
  of: 'L4-20',
  when: { systemVoltage_V: 12, connection: 'at-part', toTemperature_degC: 40 },
  school: 'strict',
  source: 'sheet',
  document: 'doc',
  page: '4',
  documentDate: '2025-01-31',
  status: 'approved',
  limits: {
    quantity: 'resistance',
    unit: 'ohm',
    lower: 0.3,
    upper: 1,
    neighbours: { maxRatio: 2 },
    material: 'copper',
    byPosition: { '1': { upper: 2 } },
  },
};
describe('limits in the form', () => {
  test('come back as they were', () => expect(entryOfDraft(draftOf(ENTRY))).toEqual({ ok: true, value: ENTRY }));
  test.each<[object, string]>([
    [{ upper: 'one' }, '/entry/limits/upper'],
    [{ source: '' }, '/entry/source'],
    [{ more: '{' }, '/entry/limits/more'],
    [{ more: '{"colour":1}' }, '/entry/limits/more'],
    [{ 'when.systemVoltage_V': 'x' }, '/entry/when/systemVoltage_V'],
  ])('%j', (change, path) => {
    expect(paths(entryOfDraft({ ...draftOf(ENTRY), ...change }))).toEqual([path]);
  });
  test('a decimal comma is read', () =>
    expect(entryOfDraft({ ...draftOf(ENTRY), upper: '1,2' })).toMatchObject({ value: { limits: { upper: 1.2 } } }));
  test.each(Object.keys(TEMPLATES))('the beginning “%s” can be taken and says what it predicts', (name) => {
    const volts = name.startsWith('NTC') ? { quantity: 'resistance', unit: 'ohm' } : { quantity: 'voltage', unit: 'V' };
    const read = entryOfDraft({
      ...draftOf({ ...ENTRY, limits: { quantity: 'voltage', unit: 'V' } }),
      ...volts,
      more: JSON.stringify(TEMPLATES[name]),
    });
    expect(read.ok).toBe(true);
    if (read.ok) expect(predictionWords(read.value.limits).length > 0).toBe('transfer' in (TEMPLATES[name] ?? {}));
  });
  test('half a function predicts nothing', () =>
    expect(predictionWords({ quantity: 'voltage', unit: 'V', transfer: { kind: 'table' } as never })).toBe(''));
});

test('the shelf in words', () => {
  expect([forWords(ENTRY), forWords({ ...ENTRY, scope: 'general' }), whenWords(ENTRY.when), limitWords(ENTRY)]).toEqual(
    [
      'Engine family L4-20',
      'Any engine',
      '12 V, at-part, up to 40 °C',
      '0.3 to 1.0 Ω; by position, against neighbours',
    ],
  );
  expect([
    whenWords({ fromTemperature_degC: 5 }),
    whenWords({ fromTemperature_degC: 5, toTemperature_degC: 9 }),
    whenWords(),
  ]).toEqual(['from 5 °C', '5 to 9 °C', '']);
  expect([valueWords(null), valueWords('a'), valueWords({ b: 1 })]).toEqual(['–', 'a', '{"b":1}']);
});

describe('an instrument in the form', () => {
  const range: AccuracyRange = { quantity: 'resistance', upTo: 200, percentOfReading: 0.8, counts: 3, resolution: 0.1 };
  const view = {
    id: 'i',
    name: 'Meter',
    kind: 'multimeter',
    calibrationDue: '2027-01-31',
    accuracy: [range, { ...range, quantity: 'voltage' as const, upTo: 0.2, resolution: 1e-4 }],
    clamp_mVperA: 10,
    leadRepeatability_ohm: 0.02,
    retired: false,
  };
  test.each([
    { kind: 'network', host: '10.0.0.31', port: 5025 },
    { kind: 'serial', baud: 9600, speaks: 'unasked' },
    { kind: 'serial', baud: 1200, speaks: 'pattern', pattern: '(?P<value>[0-9]+)' },
  ] as const)('keeps its way in: %p', (link) => {
    const read = instrumentOfDraft(draftOfInstrument({ ...view, link }));
    expect(read.ok && read.value.link).toEqual(link);
  });
  test('says at its field what is wrong with the way in', () => {
    const draft = draftOfInstrument(view);
    expect(instrumentOfDraft({ ...draft, way: 'network', host: 'a b' })).toMatchObject({
      ok: false,
      error: [{ path: '/link/host' }],
    });
    expect(instrumentOfDraft({ ...draft, way: 'serial', speaks: 'pattern', pattern: '(' })).toMatchObject({
      ok: false,
      error: [{ path: '/link/pattern' }],
    });
  });
  test('comes back as it was', () => {
    expect(instrumentOfDraft(draftOfInstrument(view))).toEqual({
      ok: true,
      value: {
        link: null,
        name: 'Meter',
        calibrationDue: '2027-01-31',
        instrument: { kind: 'multimeter', accuracy: view.accuracy, clamp_mVperA: 10, leadRepeatability_ohm: 0.02 },
      },
    });
  });
  test('ranges are typed as meters are read', () => {
    expect(instrumentOfDraft({ ...draftOfInstrument(view), accuracy: 'resistance 2M 1,2% 5 1k' })).toMatchObject({
      value: {
        instrument: {
          accuracy: [{ quantity: 'resistance', upTo: 2e6, percentOfReading: 1.2, counts: 5, resolution: 1000 }],
        },
      },
    });
  });
  test.each([
    'colour 200 0.8% 3 0.1',
    'resistance 200 0.8%',
    'resistance x 0.8% 3 0.1',
    'resistance 200 0.8% 3 0',
    'resistance 200 much 3 0.1',
    'resistance 200 1% 3 0.1 more',
  ])('%s is no range', (accuracy) => {
    expect(paths(instrumentOfDraft({ ...draftOfInstrument(view), accuracy }))).toEqual(['/instrument/accuracy']);
  });
  test.each<[object, string]>([
    [{ name: '' }, '/name'],
    [{ calibrationDue: '31.1.2027' }, '/calibrationDue'],
    [{ clamp_mVperA: 'ten' }, '/instrument/clamp_mVperA'],
  ])('%j', (change, path) =>
    expect(paths(instrumentOfDraft({ ...draftOfInstrument(view), ...change }))).toEqual([path]),
  );
  test('in words', () => expect(rangeWordsOf(range)).toBe('to 200 Ω: 0.8 % + 3 counts of 0.1 Ω'));
});

test('an error below a field is shown at it', () => {
  const problems = [
    { path: '/test/steps/3', message: 'too short' },
    { path: '/test/step', message: 'other' },
  ];
  expect([errorAt(problems, '/test/steps'), errorAt(problems, '/test/step'), errorAt(problems, '/test/st')]).toEqual([
    'too short',
    'other',
    undefined,
  ]);
});

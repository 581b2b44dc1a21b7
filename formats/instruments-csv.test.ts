import fc from 'fast-check';
import { INSTRUMENT_COLUMNS, readInstrumentsCsv, writeInstrumentsCsv } from './instruments-csv';

const HEAD = `${INSTRUMENT_COLUMNS.join(',')}\n`;
const said = (rows: string): unknown => {
  const read = readInstrumentsCsv(HEAD + rows);
  return read.ok ? read.value : read.error.map((p) => `${p.path} ${p.message}`);
};

test('a row for each range; what is about the instrument stands in the first row and may be repeated', () =>
  expect(
    said(
      'Quay Yard,DMM 1,multimeter,1.3.2027,,0.02,resistance,600,0.8,3,0.1\n' +
        'quay yard,DMM 1,,,,,resistance,6000,0.9,5,1\n' +
        'Quay Yard,Clamp,clamp,,10,,,,,,\n' +
        'Quay Yard,DMM 1,multimeter,,,0.02,Voltage,60,0.5,2,0.01\n',
    ),
  ).toEqual([
    {
      line: 2,
      depot: 'Quay Yard',
      name: 'DMM 1',
      kind: 'multimeter',
      calibrationDue: '2027-03-01',
      clamp_mVperA: null,
      leadRepeatability_ohm: 0.02,
      accuracy: [
        { quantity: 'resistance', upTo: 600, percentOfReading: 0.8, counts: 3, resolution: 0.1 },
        { quantity: 'resistance', upTo: 6000, percentOfReading: 0.9, counts: 5, resolution: 1 },
        { quantity: 'voltage', upTo: 60, percentOfReading: 0.5, counts: 2, resolution: 0.01 },
      ],
    },
    {
      line: 4,
      depot: 'Quay Yard',
      name: 'Clamp',
      kind: 'clamp',
      calibrationDue: null,
      clamp_mVperA: 10,
      leadRepeatability_ohm: null,
      accuracy: [],
    },
  ]));

test.each([
  ['Quay Yard,,multimeter,,,,,,,,', '/line 2/name Nothing stands here.'],
  ['Quay Yard,DMM,,,,,,,,,', '/line 2/kind Nothing stands here.'],
  ['Quay Yard,DMM,multimeter,31.2.2027,,,,,,,', '/line 2/calibration_due There is no day "31.2.2027".'],
  ['Quay Yard,DMM,multimeter,,0,,,,,,', '/line 2/clamp_mv_per_a More than 0.'],
  ['Quay Yard,DMM,multimeter,,,-1,,,,,', '/line 2/lead_repeatability_ohm At least 0.'],
  ['Quay Yard,DMM,multimeter,,,,,600,,,', '/line 2/quantity Of which quantity is this range?'],
  ['Quay Yard,DMM,multimeter,,,,resistance,600,0.8,,0.1', '/line 2/counts Nothing stands here.'],
  ['Quay Yard,DMM,multimeter,,,,resistance,600,101,3,0.1', '/line 2/percent_of_reading At most 100.'],
  ['Quay Yard,DMM,multimeter,,,,resistance,x,1,3,0.1', '/line 2/up_to "x" is no number.'],
  ['Quay Yard,DMM,multimeter,,,,resistance,600,1,3,0', '/line 2/resolution More than 0.'],
])('%s: %s', (row, message) => expect(said(`${row}\n`)).toEqual([message]));

test('a quantity that nothing measures is named with those that there are', () =>
  expect(said('Quay Yard,DMM,multimeter,,,,observation,1,1,1,1\n')).toEqual([
    expect.stringMatching(/^\/line 2\/quantity There is no quantity "observation". There are: resistance, voltage,/),
  ]));

test('rows of one instrument that contradict each other are named, and a range that is there twice', () =>
  expect(
    said(
      'Quay Yard,DMM,multimeter,,,,resistance,600,0.8,3,0.1\n' +
        'Quay Yard,DMM,scope,,,,voltage,60,0.5,2,0.01\n' +
        'Quay Yard,DMM,,,,,resistance,600,1,3,0.1\n',
    ),
  ).toEqual([
    '/line 3/kind Line 2 says something else of this instrument.',
    '/line 4/up_to This range stands there already.',
  ]));

test('whatever is in use comes out as a list that says the same', () => {
  const text = (most: number) =>
    fc
      .string({ minLength: 1, maxLength: most })
      .map((t) => t.trim())
      .filter((t) => t !== '' && !/[\0\r]/.test(t));
  const amount = fc.double({ min: 1e-6, max: 1e6, noNaN: true });
  const range = fc.record({
    quantity: fc.constantFrom('resistance' as const, 'voltage' as const, 'current' as const),
    upTo: amount,
    percentOfReading: fc.double({ min: 0, max: 100, noNaN: true }),
    counts: fc.nat(50),
    resolution: amount,
  });
  const instrument = fc.record({
    depot: text(60),
    name: text(100),
    kind: text(60),
    calibrationDue: fc.constantFrom(null, '2027-03-01'),
    clamp_mVperA: fc.option(amount),
    leadRepeatability_ohm: fc.option(amount),
    accuracy: fc.uniqueArray(range, { maxLength: 4, selector: (r) => `${r.quantity} ${r.upTo}` }),
  });
  const list = fc.uniqueArray(instrument, {
    minLength: 1,
    maxLength: 5,
    selector: (i) => `${i.depot.toLowerCase()} ${i.name}`,
  });
  fc.assert(
    fc.property(list, (all) => {
      const read = readInstrumentsCsv(writeInstrumentsCsv(all));
      expect(read).toMatchObject({ ok: true, value: all });
    }),
  );
});

import fc from 'fast-check';
import { seededRandom } from '../../core/numerics/random';
import { understand } from './dialect';
import { readTrace } from './read';
import { type ReadRecording, TraceProblem } from './types';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const read = (text: string, piece?: number): ReadRecording => readTrace(bytes(text), {}, piece);
const rows = (count: number, row: (i: number) => string): string =>
  Array.from({ length: count }, (_, i) => `${row(i)}\n`).join('');
const at = (i: number): string => (i / 100).toFixed(2);
const value = (i: number): string => (2 + (i % 7) / 1000).toFixed(3);

/** Name, unit, number of samples, the second time and the second value. */
const facts = (r: ReadRecording): unknown[] =>
  r.columns.map((c) => [c.name, c.unit, c.samples.count, Number(c.clock.at(1).toFixed(6)), c.samples.at(1)]);
const problemOf = (text: string): string => {
  try {
    read(text);
    return 'no problem';
  } catch (error) {
    if (!(error instanceof TraceProblem)) throw error;
    return `${error.path} ${error.message}`;
  }
};

const EXPECTED = [['a', null, 100, 0.01, 2.001]];
const IN_V = [['a', 'V', 100, 0.01, 2.001]];

it.each([
  ['commas', `t,a\n${rows(100, (i) => `${at(i)},${value(i)}`)}`, EXPECTED],
  [
    'a decimal comma and CRLF',
    `Zeit (s);a (V)\r\n${rows(100, (i) => `${at(i)};${value(i)}\r`.replaceAll('.', ','))}`,
    IN_V,
  ],
  ['a row of units', `Time,a\n(ms),(V)\n\n${rows(100, (i) => `${i * 10},${value(i)}`)}`, IN_V],
  [
    'a preamble with a rate',
    `Logger 7\nSerial: 12\nSample rate: 100 Hz\n\nNo.,a\n${rows(100, (i) => `${i + 1},${value(i)}`)}`,
    EXPECTED,
  ],
  ['a time of day', `Time,a\n${rows(100, (i) => `08:30:0${at(i)},${value(i)}`)}`, EXPECTED],
  [
    'day and time apart, quoted',
    `"Date","Time","a [V]"\n${rows(100, (i) => `"29.11.2026","08:30:0${at(i)}","${value(i)}"`)}`,
    IN_V,
  ],
  ['ISO 8601 and tabs', `ts\ta\n${rows(100, (i) => `2026-11-29T08:30:0${at(i)}Z\t${value(i)}`)}`, EXPECTED],
  [
    'seconds since 1970',
    `timestamp,a\n${rows(100, (i) => `${(1764400000 + i / 100).toFixed(2)},${value(i)}`)}`,
    EXPECTED,
  ],
  ['exponents', `t,a\n${rows(100, (i) => `${at(i)},${Number(value(i)).toExponential(3)}`)}`, EXPECTED],
  [
    'quoted thousands',
    `t,a\n${rows(100, (i) => `${at(i)},"${i === 1 ? '1,234.5' : value(i)}"`)}`,
    [['a', null, 100, 0.01, 1234.5]],
  ],
  ['a delimiter at the end', `t,a,\n${rows(100, (i) => `${at(i)},${value(i)},`)}`, EXPECTED],
  ['a byte-order mark', `\uFEFFt,a\n${rows(100, (i) => `${at(i)},${value(i)}`)}`, EXPECTED],
  ['a footer', `t,a\n${rows(100, (i) => `${at(i)},${value(i)}`)}End of data\nTotal,100\n`, EXPECTED],
])('reads a table with %s', (_, text, expected) => {
  const whole = read(text);
  expect(facts(whole)).toEqual(expected);
  // The pieces in which a file comes make no difference.
  for (const piece of [29, 640]) expect(facts(read(text, piece))).toEqual(expected);
});

it('reads UTF-16 and Windows-1252', () => {
  const text = `t;a\n${rows(100, (i) => `${at(i)};${value(i)}`)}`;
  const wide = new Uint8Array(2 + 2 * text.length);
  wide.set([0xff, 0xfe]);
  for (let i = 0; i < text.length; i++) wide[2 + 2 * i] = text.charCodeAt(i);
  expect(facts(readTrace(wide, {}, 333))).toEqual(EXPECTED);
  const western = Uint8Array.from(`t;Temp (°C)\n${rows(100, (i) => `${at(i)};${value(i)}`)}`, (c) => c.charCodeAt(0));
  expect(readTrace(western).columns[0]!.unit).toBe('°C');
});

it('passes midnight, keeps gaps and clocks that step back', () => {
  const night = read(`Time,a\n23:59:59.0,1\n23:59:59.5,2\n00:00:00.0,3\n00:00:00.5,4\n`);
  expect(night.columns[0]!.clock.at(3)).toBeCloseTo(1.5, 9);
  const jump = read(`t,a\n${rows(100, (i) => `${(i / 100 + (i > 50 ? 5 : 0)).toFixed(2)},1`)}`);
  expect(jump.columns[0]!.clock.jumps).toMatchObject([{ missing: 500 }]);
  const back = read(`t,a\n${rows(100, (i) => `${(i / 100 - (i > 50 ? 0.3 : 0)).toFixed(2)},1`)}`);
  expect(back.columns[0]!.clock.jumps).toMatchObject([{ after: 50, missing: 0 }]);
});

it('keeps what is no value as a gap', () => {
  const { samples } = read(`t,a\n0,1\n1,OL\n2,\n3,NaN\n4,---\n5,2\n`).columns[0]!;
  expect(Array.from(samples.values())).toEqual([1, NaN, NaN, NaN, NaN, 2]);
});

it.each([
  ['', ' The file is empty.'],
  ['<html><body>Error</body></html>', ' No table was found'],
  [`t,a\n0,1\n1,2\n2,oops\n3,4\n`, '/line 4/column 2 "oops" is no number.'],
  [`t,a\n0,1\n,2\n2,3\n`, '/line 3/column 1 The row has no time.'],
  [rows(3, () => Array(500).fill('1').join(',')), '/line 1 There are 500 columns'],
  ['a\0b,c\n1,2\n', '/line 1 There are NUL characters'],
  ['PK\u0003\u0004zip', ' This is a ZIP'],
  ['RIFF....AVI LIST', ' This is no WAV file.'],
])('refuses %j with a reason', (text, reason) => {
  expect(problemOf(text)).toContain(reason);
});

it('shows what it understood', () => {
  const d = understand(bytes('Zeit (s);Druck [bar];x\n0,00;1,5;a\n0,01;1,6;b\n'), true);
  expect(d).toMatchObject({
    delimiter: ';',
    decimal: ',',
    headerLine: 1,
    firstDataLine: 2,
    time: { kind: 'number', column: 0, unit: 's' },
  });
  expect(d.columns.map((c) => [c.name, c.unit, c.kind])).toEqual([
    ['Zeit', 's', 'time'],
    ['Druck', 'bar', 'value'],
    ['x', null, 'text'],
  ]);
});

function wav(bits: 8 | 16 | 24 | 32, code: 1 | 3, values: readonly (readonly number[])[]): Uint8Array {
  const channels = values[0]!.length;
  const size = (values.length * channels * bits) / 8;
  const view = new DataView(new ArrayBuffer(44 + size));
  const ascii = (offset: number, text: string): void =>
    [...text].forEach((c, i) => view.setUint8(offset + i, c.charCodeAt(0)));
  ascii(0, 'RIFF');
  view.setUint32(4, 36 + size, true);
  ascii(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, code, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, 1000, true);
  view.setUint32(28, (1000 * channels * bits) / 8, true);
  view.setUint16(32, (channels * bits) / 8, true);
  view.setUint16(34, bits, true);
  ascii(36, 'data');
  view.setUint32(40, size, true);
  values.flat().forEach((v, i) => {
    const offset = 44 + (i * bits) / 8;
    if (code === 3) view.setFloat32(offset, v, true);
    else if (bits === 8) view.setUint8(offset, v + 128);
    else if (bits === 16) view.setInt16(offset, v, true);
    else if (bits === 32) view.setInt32(offset, v, true);
    else {
      view.setUint16(offset, v & 0xffff, true);
      view.setInt8(offset + 2, v >> 16);
    }
  });
  return new Uint8Array(view.buffer);
}

it.each([
  [8, 1, 127, 128],
  [16, 1, -32_768, 32_768],
  [24, 1, -8_388_608, 8_388_608],
  [32, 1, 2_000_000_000, 2_147_483_648],
  [32, 3, 0.25, 1],
] as const)('reads WAV of %i bits, code %i', (bits, code, sample, full) => {
  for (const piece of [5, 4096]) {
    const { columns } = readTrace(
      wav(bits, code, [
        [0, sample],
        [1, 0],
      ]),
      {},
      piece,
    );
    expect(columns.map((c) => [c.name, c.samples.count, c.samples.at(0) * c.scale])).toEqual([
      ['1', 2, 0],
      ['2', 2, sample / full],
    ]);
    expect(columns[0]!.clock.at(1)).toBeCloseTo(0.001, 9);
  }
});

it('reads J1939 signals and codes from a CAN log', () => {
  // Engine speed 1,500 rpm is 12,000 eighths, 0x2EE0; coolant 85 °C is 125, 0x7D (SAE J1939-71, from memory).
  const log = [
    '(1690000000.000000) can0 0CF00400#FFFFFFE02EFFFFFF',
    '(1690000000.100000) can0 18FEEE00#7DFFFFFFFFFFFFFF',
    '(1690000000.200000) can0 0CF00400#FFFFFFFFFFFFFFFF',
    '(1690000000.300000) can0 18FECA00#04FF660004050000',
    // The same kind of message with two codes comes in parts: announced, then sent.
    '(1690000000.400000) can0 1CECFF00#200A0002FFCAFE00',
    '(1690000000.410000) can0 1CEBFF00#0104FF6600040564',
    '(1690000000.420000) can0 1CEBFF00#02000303FFFFFFFF',
    '(1690000000.500000) can0 123#11',
  ].join('\n');
  const { columns, codes, notes, began_s } = readTrace(bytes(log));
  expect(columns.map((c) => [c.name, c.unit, c.samples.at(0), Number(c.clock.at(0).toFixed(6))])).toEqual([
    ['engine speed', 'rpm', 1500, 0],
    ['coolant temperature', 'degC', 85, 0.1],
  ]);
  expect(codes.map((c) => [c.spn, c.fmi, c.count])).toEqual([
    [102, 4, 5],
    [100, 3, 3],
  ]);
  expect(began_s).toBe(1690000000);
  expect(notes).toHaveLength(1);
  expect(() => readTrace(bytes('(1.0) can0 0CF00400#FFFF\nnonsense\n'))).toThrow('no frame');
});

it('keeps a column of times where one of its cells is none, and says so of that line', () => {
  const times = ['time,V', '08:00:00.0,1', '08:00:00.1,2', '08:00:00.2,3'];
  const below = read([...times, 'end of log', ''].join('\n'));
  expect(facts(below)).toEqual([['V', null, 3, 0.1, 2]]);
  expect(below.notes).toEqual(['What stands after the last row was left out: line 5, column 1.']);
  expect(problemOf([...times, 'noon,4', '08:00:00.4,5'].join('\n'))).toBe('/line 5/column 1 "noon" is no time.');
});

it('answers any damage with a recording or a reason', () => {
  const seeds = [
    bytes(`Logger\nTime;a (V);b\n${rows(40, (i) => `${at(i)};${value(i)};1,5`)}`),
    wav(
      16,
      1,
      Array.from({ length: 40 }, (_, i) => [i, -i]),
    ),
    bytes(rows(20, (i) => `(1690000000.${String(100000 + i)}) can0 0CF00400#FFFFFFE02EFFFFFF`)),
  ];
  const random = seededRandom(4);
  fc.assert(
    fc.property(fc.constantFrom(...seeds), fc.nat(1_000_000), (seed, n) => {
      const data = seed.slice(0, Math.max(1, seed.length - (n % 3 ? 0 : Math.floor(random() * seed.length))));
      for (let k = 0; k < 1 + (n % 9); k++) data[Math.floor(random() * data.length)] = Math.floor(random() * 256);
      try {
        expect(readTrace(data, {}, 1 + (n % 200)).columns.length).toBeGreaterThanOrEqual(0);
      } catch (error) {
        expect(error).toBeInstanceOf(TraceProblem);
      }
    }),
    { numRuns: 500 },
  );
});

it.each([
  ['a value with an unquoted comma for thousands', '0.30,1,234.5', 'the first in line 32'],
  ['two columns more from there on', '0.30,2,3,4', 'the first in line 32'],
])('%s: the cell that no column is there for is said, with its line', (_, row, says) => {
  const table = `t,a\n${rows(30, (i) => `${at(i)},${value(i)}`)}${row}\n${rows(30, (i) => `${at(31 + i)},${value(i)}`)}`;
  expect(read(table).notes.join()).toContain(`Rows with more cells than the table has columns: 1, ${says}.`);
  // In pieces too, wherever they end.
  expect(read(table, 7).notes).toEqual(read(table).notes);
});

it('delimiters and blanks at the ends of lines are no cells', () => {
  expect(read(`t,a\n${rows(60, (i) => `${at(i)},${value(i)}${i > 55 ? ',, ' : ''}`)}`).notes).toEqual([]);
  expect(read(`t a\n${rows(60, (i) => `${at(i)} ${value(i)}${i > 55 ? '   ' : ''}`)}`).notes).toEqual([]);
});

it('cells that are missing at the ends of lines are gaps, and counted', () => {
  const table = `t,a,b\n${rows(60, (i) => (i % 10 === 9 ? at(i) : `${at(i)},${value(i)},1`))}`;
  const { columns, notes } = read(table);
  expect(columns.map((c) => c.samples.count)).toEqual([60, 60]);
  expect(Number.isNaN(columns[0]!.samples.at(9))).toBe(true);
  expect(notes).toEqual(['12 cells are missing at the ends of lines; they are gaps.']);
});

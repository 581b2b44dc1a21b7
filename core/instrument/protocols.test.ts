import fc from 'fast-check';
import { LineCutter } from './lines';
import { readNumber } from './number';
import { readIdentity, readScpi } from './scpi';
import type { ReadLine } from './types';
import { readUnasked } from './unasked';

const value = (read: ReadLine) => (read.ok ? read.value.value : read.why);
const bytes = (text: string) => new TextEncoder().encode(text);

describe('numbers as they are sent', () => {
  it.each([
    ['+6.12300E-01', 0.6123],
    ['12', 12],
    ['.5', 0.5],
    ['-0,65', -0.65],
    ['9.9E37', 9.9e37],
    ['- 3.2', -3.2],
  ])('%s', (text, expected) => expect(readNumber(text)?.value).toBeCloseTo(expected, 12));
  it.each(['', '.', 'e5', '1e', '1.2.3', '0x12', '1e999', '٣', '1 2'])('%s is none', (text) =>
    expect(readNumber(text)).toBeNull(),
  );
  it('says one step of the last digit', () => {
    expect(readNumber('0.650')?.step).toBeCloseTo(0.001);
    expect(readNumber('12e3')?.step).toBeCloseTo(1000);
  });
});

describe('SCPI', () => {
  it('reads what READ? answers, infinity as overload', () => {
    expect(readScpi('+6.12300000E-01', 'resistance')).toMatchObject({ ok: true, value: { value: 0.6123, step: 0 } });
    expect(readScpi('12.345', 'voltage')).toMatchObject({ ok: true, value: { value: 12.345, step: 0.001 } });
    expect(value(readScpi('+9.90000000E+37', 'resistance'))).toBeNull();
    expect(value(readScpi('-9.9E37', 'voltage'))).toBeNull();
    expect(value(readScpi('9.91E37', 'resistance'))).toBe('not a number');
    expect(value(readScpi('+1.0,+2.0', 'voltage'))).toBe(1);
    expect(value(readScpi('1.5 V', 'voltage'))).toBe(1.5);
  });
  it.each(['', 'hello', '-113', '**ERROR: -113', 'NaN'])('%s is no value', (line) =>
    expect(readScpi(line, 'voltage').ok).toBe(false),
  );
  it('knows who answers', () => {
    expect(readIdentity('Invented Works,Bench Six,0001,1.0')).toEqual({
      name: 'Invented Works Bench Six',
      serial: '0001',
    });
    expect(readIdentity('what')).toBeNull();
  });
});

describe('lines that come unasked', () => {
  it.each([
    ['0.652 OHM AUTO', 0.652, 'resistance', 0.001],
    ['DC 12.34 V', 12.34, 'voltage', 0.01],
    ['12.34VDC', 12.34, 'voltage', 0.01],
    ['97.8kΩ', 97_800, 'resistance', 100],
    ['-1.5 mV', -0.0015, 'voltage', 1e-4],
    ['MOHM 2.201', 2_201_000, 'resistance', 1000],
    ['0,65 Ohm', 0.65, 'resistance', 0.01],
    ['3;+0.611;OHM', 0.611, 'resistance', 0.001],
    ['- 0.05 V', -0.05, 'voltage', 0.01],
    ['+1.0000E+00,ADC', 1, 'current', 1e-4],
  ] as const)('%s', (line, expected, quantity, step) => {
    const read = readUnasked(line);
    if (!read.ok) throw new Error(read.why);
    expect(read.value.quantity).toBe(quantity);
    expect(read.value.value).toBeCloseTo(expected, 9);
    expect(read.value.step / step).toBeCloseTo(1, 6);
  });
  it.each(['OL OHM', '0L MΩ', 'O.L kOHM', '+OL', 'OVLD'])('%s is overload', (line) =>
    expect(value(readUnasked(line))).toBeNull(),
  );
  it('sees flags', () => {
    expect(readUnasked('0.61 OHM HOLD LOBAT')).toMatchObject({ value: { hold: true, lowBattery: true } });
    expect(readUnasked('230.1 V AC')).toMatchObject({ value: { alternating: true, quantity: 'voltage' } });
    expect(readUnasked('0.10 OHM REL')).toMatchObject({ value: { relative: true } });
  });
  it('does not choose between two numbers', () => {
    expect(value(readUnasked('1.2 3.4'))).toBe('several numbers');
    expect(value(readUnasked('AUTO OHM'))).toBe('no number');
    expect(value(readUnasked('ERR 5'))).toBe('an error of the meter');
  });
});

describe('bytes into lines', () => {
  const cut = (...pieces: string[]) => {
    const cutter = new LineCutter();
    return pieces.flatMap((p) => cutter.push(bytes(p)).lines);
  };
  it('cuts at any end of line, whatever the pieces', () => {
    expect(cut('0.6', '1 OHM\r\n0.62 O', 'HM\n', '\r\n0.63 OHM\r')).toEqual(['0.61 OHM', '0.62 OHM', '0.63 OHM']);
    expect(cut('1 kΩ\n')).toEqual(['1 kΩ']);
    const latin = new LineCutter().push(Uint8Array.from([0x31, 0x20, 0xb5, 0x56, 10]));
    expect(latin.lines).toEqual(['1 µV']);
  });
  it('drops what is longer than a line, and goes on behind it', () => {
    const cutter = new LineCutter();
    for (let i = 0; i < 1000; i++) expect(cutter.push(bytes('x'.repeat(1000))).lines).toEqual([]);
    const after = cutter.push(bytes('y\n0.6 OHM\n'));
    expect(after.lines).toEqual(['0.6 OHM']);
  });
  it('keeps the newest of very many at once', () => {
    const { lines, leftOut } = new LineCutter().push(
      bytes(Array.from({ length: 10_000 }, (_, i) => `${i}\n`).join('')),
    );
    expect(lines.length).toBeLessThanOrEqual(64);
    expect(lines.at(-1)).toBe('9999');
    expect(leftOut + lines.length).toBe(10_000);
  });
  it('gives a value or a reason, whatever is sent', () => {
    fc.assert(
      fc.property(fc.array(fc.uint8Array({ maxLength: 400 }), { maxLength: 8 }), (pieces) => {
        const cutter = new LineCutter();
        for (const piece of pieces)
          for (const line of cutter.push(piece).lines)
            for (const read of [readUnasked(line), readScpi(line, 'resistance')])
              if (read.ok) expect(read.value.value === null || Number.isFinite(read.value.value)).toBe(true);
              else expect(read.why.length).toBeGreaterThan(3);
      }),
      { numRuns: 300 },
    );
  });
});

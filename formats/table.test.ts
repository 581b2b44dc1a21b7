import fc from 'fast-check';
import { nearest } from '../core/foundation/text';
import { readTable } from './table';
import { type DecimalSign, decimalSignOf, readTableDay, readTableNumber } from './table-values';
import { decodeText } from './text';

const bytes = (...codes: number[]): Uint8Array => Uint8Array.from(codes);

describe('how a file was written', () => {
  test('UTF-8 where the bytes are that, else Windows-1252; a mark decides', () => {
    expect(decodeText(new TextEncoder().encode('Ω, µ'))).toEqual({ text: 'Ω, µ', encoding: 'UTF-8' });
    // "Prüfung °C" as a spreadsheet writes it.
    expect(decodeText(bytes(0x50, 0x72, 0xfc, 0x66, 0x75, 0x6e, 0x67, 0x20, 0xb0, 0x43))).toEqual({
      text: 'Prüfung °C',
      encoding: 'Windows-1252',
    });
    expect(decodeText(bytes(0xff, 0xfe, 0xa9, 0x03)).text.trim()).toBe('Ω');
    expect(decodeText(bytes(0xfe, 0xff, 0x03, 0xa9)).text.trim()).toBe('Ω');
  });
});

describe('columns', () => {
  const known = ['test', 'lower', 'upper', 'unit', 'watch_lower'];
  test.each([
    ['uper', 'Did you mean "upper"?'],
    ['Lower (ohm)', 'Did you mean "lower"? The unit has a column of its own.'],
    ['watch lower', 'Did you mean "watch_lower"?'],
    ['colour', 'There are: test, lower, upper, unit, watch_lower.'],
  ])('%s is not silently left out', (column, hint) =>
    expect(readTable(`test,${column}\na,1\n`, ['test'], 10, known)).toMatchObject({
      ok: false,
      error: [{ message: expect.stringContaining(hint) as string }],
    }),
  );
  test('what nobody checks may be there, and empty headers are no columns', () => {
    expect(readTable('test,colour\na,1\n', ['test'], 10).ok).toBe(true);
    expect(readTable('test,\na,\n', ['test'], 10, known).ok).toBe(true);
  });
  test('a NUL is said with its line', () =>
    expect(readTable('test\na\nb\0\n', ['test'], 10)).toMatchObject({ ok: false, error: [{ path: '/line 3' }] }));
});

describe('numbers of a table', () => {
  test.each<[string, DecimalSign, number]>([
    ['0.6', null, 0.6],
    ['0,6', null, 0.6],
    ['0,600', null, 0.6],
    ['-1,5', null, -1.5],
    ['1 250', null, 1250],
    ['1\u202f250,5', null, 1250.5],
    ["1'250.5", null, 1250.5],
    ['1.250,5', null, 1250.5],
    ['1,250.5', null, 1250.5],
    ['1.234.567', null, 1234567],
    ['1.234', null, 1.234],
    ['1.234', ',', 1234],
    ['1,234', ',', 1.234],
    ['1,234', '.', 1234],
    ['1e3', null, 1000],
  ])('%s under %s is %s', (text, sign, value) => expect(readTableNumber(text, sign)).toEqual({ ok: true, value }));
  test.each(['', 'x', '1,2,3', '1.2.3', '1,23.456,7', '--1', '0x10x', '1 25'])('%s is none', (text) =>
    expect(readTableNumber(text, null).ok).toBe(false),
  );
  test('what can be read in two ways is asked about', () =>
    expect(readTableNumber('1,234', null)).toEqual({
      ok: false,
      error: '"1,234" can be read in two ways. Write 1234 or 1.234.',
    }));
  test('the other numbers of the file say which sign it uses', () => {
    expect(decimalSignOf(['1,234', '0,6', ''])).toBe(',');
    expect(decimalSignOf(['1,234.5', '2'])).toBe('.');
    expect(decimalSignOf(['1.250,5'])).toBe(',');
    expect(decimalSignOf(['1,234', '5'])).toBeNull();
    expect(decimalSignOf(['0.6', '0,6'])).toBeNull();
  });
  test('whatever a program prints with a point is read as that, and no text throws', () => {
    fc.assert(
      fc.property(fc.integer({ min: -999_999, max: 999_999 }), fc.integer({ min: 1, max: 99 }), (whole, cents) => {
        const text = `${whole}.${String(cents).padStart(2, '0')}`;
        expect(readTableNumber(text, null)).toEqual({ ok: true, value: Number(text) });
        expect(readTableNumber(text.replace('.', ','), null)).toEqual({ ok: true, value: Number(text) });
      }),
    );
    fc.assert(
      fc.property(fc.string({ maxLength: 20 }), (text) => {
        const read = readTableNumber(text, null);
        if (read.ok) expect(Number.isFinite(read.value)).toBe(true);
      }),
    );
  });
});

describe('days of a table', () => {
  test.each([
    ['2026-11-29', '2026-11-29'],
    ['29.11.2026', '2026-11-29'],
    ['9. 1.2026', '2026-01-09'],
    ['29/11/2026', '2026-11-29'],
    ['11/29/2026', '2026-11-29'],
  ])('%s is %s', (text, day) => expect(readTableDay(text)).toEqual({ ok: true, value: day }));
  test.each(['31.2.2026', '11/10/2026', '2026', '29-11-2026'])('%s is none', (text) =>
    expect(readTableDay(text).ok).toBe(false),
  );
});

test('what was probably meant', () => {
  expect(nearest('uper', ['lower', 'upper'])).toBe('upper');
  expect(nearest('Glow plug, at the plug', ['Glow plugs, at the plug', 'Battery'])).toBe('Glow plugs, at the plug');
  expect(nearest('zzz', ['lower', 'upper'])).toBeNull();
});

import fc from 'fast-check';
import type { MeterLink } from '../core/instrument/link';
import type { ReadLine } from '../core/instrument/types';
import { checkLink, lineReader } from './meter-link';
import { linePattern } from './meter-pattern';

const value = (read: ReadLine) => (read.ok ? read.value.value : read.why);

describe('a pattern of the workshop', () => {
  const made = (source: string) => {
    const pattern = linePattern(source);
    if (!pattern.ok) throw new Error(pattern.error);
    return pattern.value;
  };
  it('reads by its named groups', () => {
    const read = made('^R=(?P<value>[-+.0-9]+|OL)(?P<unit>k?ohm)? *(?P<flag>HOLD)?');
    expect(read('R=4.7kohm')).toMatchObject({ ok: true, value: { value: 4700, quantity: 'resistance' } });
    expect(read('R=OLkohm')).toMatchObject({ ok: true, value: { value: null } });
    expect(read('R=1ohm HOLD')).toMatchObject({ value: { hold: true } });
    expect(value(read('U=4.7'))).toBe('no match');
  });
  it.each(['', '(', '[0-9]+', '(?P<number>.)', 'x'.repeat(300)])('refuses %s with a sentence', (source) =>
    expect(linePattern(source)).toMatchObject({ ok: false, error: expect.stringMatching(/\w{3,}/) as string }),
  );
  it('needs no more time for one that would hang another matcher', () => {
    const read = made('^(?P<value>(?:(?:[0-9]+)*)*)x$');
    const began = performance.now();
    read(`${'1'.repeat(190)}!`);
    expect(performance.now() - began).toBeLessThan(1000);
    expect(value(read('1'.repeat(500)))).toBe('too long');
  });
});

it('reads each link by its own protocol', () => {
  const serial = (speaks: 'unasked' | 'scpi' | 'pattern', pattern?: string): MeterLink => ({
    kind: 'serial',
    baud: 9600,
    speaks,
    pattern,
  });
  expect(lineReader({ kind: 'network', host: 'a', port: 1 }, 'voltage')('9.9E37')).toMatchObject({
    value: { value: null },
  });
  expect(lineReader(serial('unasked'), 'voltage')('1 V')).toMatchObject({ value: { value: 1 } });
  expect(lineReader(serial('pattern', 'R(?P<value>[0-9]+)'), 'voltage')('R12')).toMatchObject({ value: { value: 12 } });
});

it('refuses a link at its field', () => {
  const paths = (link: MeterLink) => checkLink(link).map((p) => p.path);
  expect(paths({ kind: 'network', host: '10.0.0.31', port: 5025 })).toEqual([]);
  expect(paths({ kind: 'network', host: '::1', port: 5025 })).toEqual([]);
  expect(paths({ kind: 'network', host: 'a b', port: 5025 })).toEqual(['/link/host']);
  expect(paths({ kind: 'network', host: 'http://x', port: 0 })).toEqual(['/link/host', '/link/port']);
  expect(paths({ kind: 'serial', baud: 9600, speaks: 'pattern', pattern: '(' })).toEqual(['/link/pattern']);
});

it('a pattern gives a value or a reason, whatever the line is', () => {
  const pattern = linePattern('(?P<value>[0-9.]+|OL) *(?P<unit>[A-Za-z]*)');
  if (!pattern.ok) throw new Error(pattern.error);
  fc.assert(
    fc.property(fc.string({ maxLength: 250 }), (line) => {
      const read = pattern.value(line);
      if (read.ok) expect(read.value.value === null || Number.isFinite(read.value.value)).toBe(true);
      else expect(read.why.length).toBeGreaterThan(3);
    }),
    { numRuns: 300 },
  );
});

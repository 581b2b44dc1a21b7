import type { Quantity } from '../quantity/units';
import { readNumber } from './number';
import { NO_FLAGS, type ReadLine, unread } from './types';

/**
 * SCPI over a line: IEC 60488-2 for `*IDN?` and the form of numbers, SCPI-99 volume 1 for 9.9E37 as infinity
 * and 9.91E37 as "not a number", volume 2 for `CONFigure` and `READ?`. All of it written from memory.
 */
export const IDENTIFY = '*IDN?';
export const READ = 'READ?';
const INFINITY = 9.9e37;
const NOT_A_NUMBER = 9.91e37;

/** What a meter is told before it is read. A quantity that is not here no meter of this kind measures. */
export const CONFIGURE: Partial<Readonly<Record<Quantity, string>>> = {
  resistance: 'CONF:RES',
  voltage: 'CONF:VOLT:DC',
  current: 'CONF:CURR:DC',
  frequency: 'CONF:FREQ',
  temperature: 'CONF:TEMP',
};

/** The answer to `READ?` after `CONFIGURE[quantity]`. Of several readings the first counts. */
export function readScpi(line: string, quantity: Quantity): ReadLine {
  const [first = ''] = line.split(',');
  if (/^\s*(?:\*\*|-\d{3}\s*$|ERR)/i.test(first)) return unread('an error of the meter');
  const number = readNumber(first.replace(/[A-Za-zΩ]+$/, (unit) => (/^e$/i.test(unit) ? unit : '')));
  if (!number) return unread('no number');
  // Both are sent with as many digits as the meter has: compared with room for them.
  const size = Math.abs(number.value);
  if (Math.abs(size - NOT_A_NUMBER) < 1e34) return unread('not a number');
  if (Math.abs(size - INFINITY) < 1e34) return { ok: true, value: { ...NO_FLAGS, value: null, step: 0, quantity } };
  return { ok: true, value: { ...NO_FLAGS, value: number.value, step: stepShown(first, number.step), quantity } };
}

/** An exponent with all its digits is how the number is sent, not how exactly it was measured. */
const stepShown = (text: string, step: number): number => (/e/i.test(text) ? 0 : step);

/** Maker, model, serial number and revision of the answer to `*IDN?`; `null`: it is no such answer. */
export function readIdentity(line: string): { readonly name: string; readonly serial: string } | null {
  const [maker = '', model = '', serial = ''] = line.split(',').map((part) => part.trim().slice(0, 60));
  return model === '' ? null : { name: `${maker} ${model}`.trim(), serial };
}

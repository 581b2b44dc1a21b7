import { readEntry } from './entry';
import type { Limits } from './types';

const of = (quantity: Limits['quantity'], unit: string): Limits => ({ quantity, unit, lower: 0, upper: 100 });

test.each([
  ['-5', of('resistance', 'ohm'), /not negative/],
  ['-5 k', of('resistance', 'ohm'), /not negative/],
  ['99999', of('voltage', 'V'), /No hand-held meter/],
  ['2~99999', of('voltage', 'V'), /No hand-held meter/],
  ['12000', of('current', 'A'), /No clamp/],
  ['88633813', of('ratio', '%'), /no percentage/],
])('%s is refused with a reason', (entry, limits, why) => {
  const read = readEntry(entry, limits);
  expect(read.ok ? null : read.error).toMatch(why);
});

test.each([
  ['-0.1', of('resistance', 'ohm')],
  ['0', of('resistance', 'ohm')],
  ['>20M', of('resistance', 'ohm')],
  ['OL', of('voltage', 'V')],
  ['-12.4', of('voltage', 'V')],
  ['950 mV', of('voltage', 'V')],
  ['104', of('ratio', '%')],
])('%s is read', (entry, limits) => expect(readEntry(entry, limits).ok).toBe(true));

import fc from 'fast-check';
import { fromMinor } from '../../core/repair/money';
import { EMPTY, problemsOf, readLines, totalOfRead } from './quotation-draft';

const typed = (text: string, quantity: string, price: string) => ({ text, partNumber: '', quantity, price });

describe('the lines of a quotation as they are typed', () => {
  it('leaves out lines in which nothing is typed, and keeps the place of the others', () => {
    const read = readLines([EMPTY, typed('Plug', '2', '25,50'), EMPTY, typed(' Labour ', '1.25', '60')]);
    expect(read.map((l) => [l.place, l.text, l.quantity, l.price])).toEqual([
      [1, 'Plug', 2, 25.5],
      [3, 'Labour', 1.25, 60],
    ]);
    expect(problemsOf(read)).toEqual([]);
    expect(totalOfRead(read, 'EUR')).toBe(2 * 2550 + 7500);
  });

  it.each([
    ['nothing at all', [EMPTY], '/record/lines/0/text'],
    ['a price without words', [EMPTY, typed(' ', '1', '3')], '/record/lines/1/text'],
    ['none of something', [typed('Plug', '0', '3')], '/record/lines/0/quantity'],
    ['words for a number', [typed('Plug', 'two', '3')], '/record/lines/0/quantity'],
    ['no price yet', [typed('Plug', '2', '')], '/record/lines/0/price'],
    ['a price below zero', [typed('Plug', '2', '-1')], '/record/lines/0/price'],
  ])('names the field of %s', (_, lines, path) => {
    expect(problemsOf(readLines(lines)).map((p) => p.path)).toEqual([path]);
  });

  it.each(['EUR', 'JPY', 'TND'])('comes to the sum of the amounts in the smallest coin of %s', (currency) => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 99 }), fc.nat(10_000_000)), { minLength: 1 }),
        (lines) => {
          const read = readLines(lines.map(([n, minor]) => typed('x', String(n), fromMinor(minor, currency))));
          expect(totalOfRead(read, currency)).toBe(lines.reduce((sum, [n, minor]) => sum + n * minor, 0));
        },
      ),
    );
  });

  it('counts a line that is no number yet as nothing', () => {
    expect(totalOfRead(readLines([typed('Plug', '2', '25.'), typed('Wire', '1', '3')]), 'EUR')).toBe(300);
  });
});

import fc from 'fast-check';
import type { OneOrSetInputs } from '../../core/repair/one-or-set';
import { costsOf, draftFrom, inputsOf } from './decision-draft';

const money = fc.nat(100_000_000);
const tenths = (most: number) => fc.nat(most * 10).map((n) => n / 10);
const inputs: fc.Arbitrary<OneOrSetInputs> = fc
  .record({
    positions: fc.integer({ min: 1, max: 16 }),
    failed: fc.nat(16),
    part: money,
    access_min: tenths(600),
    each_min: tenths(600),
    labour: money,
    age_h: tenths(20_000),
    horizon_h: tenths(20_000),
    life: fc.record({
      shape: fc.integer({ min: 2, max: 50 }).map((n) => n / 10),
      scale_h: fc.integer({ min: 1, max: 1e6 }),
    }),
    breakage: fc.nat(100).map((percent) => percent / 100),
    breakageCost: money,
    comeback: money,
  })
  .map((i) => ({ ...i, failed: Math.min(i.failed, i.positions) }));

describe('the inputs of a decision as a form', () => {
  it.each(['EUR', 'JPY', 'TND'])('reads back what it shows, with the coins of %s', (currency) => {
    fc.assert(
      fc.property(inputs, (i) => {
        const read = inputsOf(draftFrom(i, currency), currency);
        expect(read.problems).toEqual([]);
        const { breakage, ...rest } = i;
        expect(read.inputs).toMatchObject(rest);
        expect(read.inputs?.breakage).toBeCloseTo(breakage, 12);
      }),
    );
  });

  const draft = draftFrom(fc.sample(inputs, { numRuns: 1, seed: 7 })[0] as OneOrSetInputs, 'EUR');
  it.each([
    ['words for a number', { part: 'dear' }, '/record/inputs/part'],
    ['an empty field', { age_h: '' }, '/record/inputs/age_h'],
    ['a number below zero', { comeback: '-1' }, '/record/inputs/comeback'],
    ['more failed than there are', { failed: '7', positions: '6' }, '/record/inputs/failed'],
    ['a life without a scale', { shape: '1', scale_h: '0' }, '/record/inputs/shape'],
  ])('names the field of %s, and gives nothing to reckon with', (_, change, path) => {
    const read = inputsOf({ ...draft, ...change }, 'EUR');
    expect(read.inputs).toBeNull();
    expect(read.problems.map((p) => p.path)).toContain(path);
  });

  it('keeps of them as costs of the workshop what does not belong to this one engine', () => {
    fc.assert(
      fc.property(inputs, (i) => {
        const costs = costsOf(i, 'EUR');
        expect(costs).toMatchObject({ part: i.part, labour: i.labour, shape: i.life.shape, currency: 'EUR' });
        expect(Object.keys(costs)).not.toEqual(expect.arrayContaining(['failed']));
        expect(Object.keys(costs)).not.toEqual(expect.arrayContaining(['age_h']));
      }),
    );
  });
});

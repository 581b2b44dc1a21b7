import { tr } from '../../core/locale/translate';
import type { OneOrSetInputs } from '../../core/repair/one-or-set';
import { minorDigits } from '../../core/repair/money';
import type { Costs, StartInputs } from '../../core/repair/suggest';
import { type Draft, DraftReader, numberShown } from '../kit/draft';

/**
 * Field, label, hint, and what one unit of it is in the arithmetic; `money`: as many minor units as the
 * currency has.
 */
export const FIELDS = [
  ['failed', 'Failed', '', 1],
  ['positions', 'of positions', '', 1],
  ['part', 'A part', 'money', 'money'],
  ['access_min', 'Access, once', 'min', 1],
  ['each_min', 'Labour, each', 'min', 1],
  ['labour', 'Labour', 'money an hour', 'money'],
  ['age_h', 'Age of the others', 'hours', 1],
  ['horizon_h', 'Looked ahead', 'hours', 1],
  ['shape', 'Weibull shape', '1: at random', 1],
  ['scale_h', 'Weibull scale', 'hours', 1],
  ['breakage', 'Breaks on removal', '%', 0.01],
  ['breakageCost', 'A broken one costs', 'money', 'money'],
  ['comeback', 'A return costs beside', 'money', 'money'],
] as const;

type Unit = (typeof FIELDS)[number][3];
const unitOf = (unit: Unit, currency: string): number => (unit === 'money' ? 10 ** minorDigits(currency) : unit);

/** What is reckoned with, as the form shows it; what nobody knows is empty. */
export const draftFrom = (i: StartInputs, currency: string): Draft =>
  Object.fromEntries(
    FIELDS.map(([f, , , unit]) => {
      const value = f === 'shape' ? i.life.shape : f === 'scale_h' ? i.life.scale_h : i[f];
      return [f, value === null ? '' : numberShown(Number((value / unitOf(unit, currency)).toPrecision(9)))];
    }),
  );

/** The form read again, in minor units of money, or what is wrong with it. */
export function inputsOf(
  draft: Draft,
  currency: string,
): { inputs: OneOrSetInputs | null; problems: DraftReader['problems'] } {
  const read = new DraftReader(draft);
  const v = Object.fromEntries(
    FIELDS.map(([f, , , unit]) => {
      const value = read.number(f, `/record/inputs/${f}`);
      if (value === undefined || value < 0)
        read.problems.push({ path: `/record/inputs/${f}`, message: 'A number of 0 or more.' });
      return [f, (value ?? 0) * unitOf(unit, currency)];
    }),
  ) as Record<(typeof FIELDS)[number][0], number>;
  if (v.failed > v.positions)
    read.problems.push({ path: '/record/inputs/failed', message: tr`There are ${v.positions} positions.` });
  if (!(v.shape >= 0.2) || !(v.scale_h > 0))
    read.problems.push({ path: '/record/inputs/shape', message: 'A shape of 0.2 or more and a scale above 0.' });
  const { shape, scale_h, ...rest } = v;
  const whole = Object.fromEntries(
    Object.entries(rest).map(([k, n]) => [
      k,
      ['part', 'labour', 'breakageCost', 'comeback', 'failed', 'positions'].includes(k) ? Math.round(n) : n,
    ]),
  ) as Omit<OneOrSetInputs, 'life'>;
  return { inputs: read.problems.length ? null : { ...whole, life: { shape, scale_h } }, problems: read.problems };
}

/** The part of it that a workshop keeps as its own costs. */
export const costsOf = (
  { part, access_min, each_min, labour, breakage, breakageCost, comeback, horizon_h, life }: OneOrSetInputs,
  currency: string,
): Costs => ({
  part,
  access_min,
  each_min,
  labour,
  breakage,
  breakageCost,
  comeback,
  horizon_h,
  shape: life.shape,
  scale_h: life.scale_h,
  currency,
});

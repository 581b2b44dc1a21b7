import { tr } from '../locale/translate';
import { capital } from '../foundation/text';
import type { Problem } from '../foundation/result';
import { requireUnit } from '../quantity/units';
import { limitsAt } from './at';
import { checkTransfer } from './transfer';
import type { Limits } from './types';

/** Numbers that are bounded as well, at positions of their own too. */
export const LIMIT_NUMBERS = [
  'lower',
  'upper',
  'watchLower',
  'watchUpper',
  'recheckMargin',
  'shortBelow',
  'openAbove',
  'steadyWithin',
  'referenceTemperature_degC',
  'temperatureCoefficient_perK',
] as const;

/** Beyond what anybody measures in any unit with its prefix; arithmetic on it stays finite. */
const LARGEST = 1e15;

/** Pairs that must not be out of order: the first may not be above the second. */
const ORDER: readonly (readonly [keyof Limits, keyof Limits])[] = [
  ['lower', 'upper'],
  ['watchLower', 'watchUpper'],
  ['lower', 'watchLower'],
  ['lower', 'watchUpper'],
  ['watchLower', 'upper'],
  ['watchUpper', 'upper'],
  ['shortBelow', 'lower'],
  ['shortBelow', 'upper'],
  ['lower', 'openAbove'],
  ['upper', 'openAbove'],
  ['shortBelow', 'openAbove'],
];

/**
 * All that is wrong with a set of limits, each with its path below `base`. A limit is finite or it is absent:
 * NaN would make every comparison false and let a reading pass.
 */
export function checkLimits(limits: Limits, base = ''): Problem[] {
  if (SOUND.has(limits)) return [];
  const unsound = checkNumbers(limits, base);
  // Comparisons below mean nothing where a number is none.
  const problems = unsound.length
    ? unsound
    : [...checkPlain(limits, base), ...checkPositions(limits, base), ...checkPrediction(limits, base)];
  if (problems.length === 0) SOUND.add(limits);
  return problems;
}

/** Limits that were found sound: they are never changed, and each keystroke judges by the same ones. */
const SOUND = new WeakSet<Limits>();

/**
 * Every number in the limits, however deep, is finite, and nothing is `null`: that would act as 0. At single
 * positions `null` takes a limit of the set away.
 */
function checkNumbers(value: unknown, path: string, mayBeNull = false): Problem[] {
  if (value === null) return mayBeNull ? [] : [{ path, message: 'null is no limit: leave it out.' }];
  if (typeof value === 'number')
    return Number.isFinite(value) ? [] : [{ path, message: tr`${fieldOf(path)} must be a finite number or absent.` }];
  if (typeof value !== 'object') return [];
  return Object.entries(value).flatMap(([key, inner]) =>
    checkNumbers(inner, `${path}/${pointerPart(key)}`, mayBeNull || key === 'byPosition'),
  );
}

const fieldOf = (path: string): string => path.split('/').at(-1) ?? '';
const pointerPart = (key: string): string => key.replaceAll('~', '~0').replaceAll('/', '~1');

/** The limits themselves, without what differs by position. */
function checkPlain(limits: Limits, base: string): Problem[] {
  const problems: Problem[] = [];
  const say = (field: string, message: string): void => void problems.push({ path: `${base}/${field}`, message });
  const unit = requireUnit(limits.unit, limits.quantity);
  if (!unit.ok) say('unit', sentence(unit.error));
  if (limits.pair !== undefined && (limits.transfer || limits.stimulus))
    say('pair', 'Behind the at sign stands one thing: a second instrument, or what acted on the sensor.');
  if (limits.stimulus) {
    const acting = requireUnit(limits.stimulus.unit, limits.stimulus.quantity);
    if (!acting.ok) say('stimulus/unit', sentence(acting.error));
  }
  for (const field of LIMIT_NUMBERS) {
    const value = limits[field];
    if (value !== undefined && !(Math.abs(value) <= LARGEST))
      say(field, tr`${field} must be a finite number up to ${LARGEST} or absent.`);
  }
  for (const [small, large] of ORDER) {
    const [a, b] = [limits[small], limits[large]];
    if (typeof a === 'number' && typeof b === 'number' && a > b) {
      say(small, tr`${small} (${a}) is above ${large} (${b}).`);
    }
  }
  for (const field of ['recheckMargin', 'steadyWithin'] as const) {
    if ((limits[field] ?? 0) < 0) say(field, tr`${field} cannot be negative.`);
  }
  if ((limits.neighbours?.maxRatio ?? 2) <= 1) say('neighbours/maxRatio', 'maxRatio must be above 1.');
  if ((limits.neighbours?.maxDifference ?? 1) <= 0) say('neighbours/maxDifference', 'maxDifference must be above 0.');
  return problems;
}

function checkPositions(limits: Limits, base: string): Problem[] {
  if (!limits.byPosition) return [];
  return Object.keys(limits.byPosition).flatMap((position) =>
    checkPlain(limitsAt(limits, position), `${base}/byPosition/${pointerPart(position)}`),
  );
}

function checkPrediction(limits: Limits, base: string): Problem[] {
  const { transfer, tolerance, sequence } = limits;
  const problems = transfer ? checkTransfer(transfer, limits.quantity, `${base}/transfer`) : [];
  if (
    transfer &&
    !((tolerance?.absolute ?? 0) + (tolerance?.percentOfExpected ?? 0) + (tolerance?.stimulus ?? 0) > 0)
  ) {
    problems.push({ path: `${base}/tolerance`, message: 'A transfer function needs a tolerance above 0.' });
  }
  if (transfer && (limits.lower !== undefined || limits.upper !== undefined)) {
    problems.push({
      path: `${base}/transfer`,
      message: 'The transfer function gives the limits: leave lower and upper out.',
    });
  }
  if (sequence && (sequence.maxStep ?? 1) <= 0)
    problems.push({ path: `${base}/sequence/maxStep`, message: 'maxStep must be above 0.' });
  if (sequence && (sequence.leastChange ?? 1) <= 0)
    problems.push({ path: `${base}/sequence/leastChange`, message: 'leastChange must be above 0.' });
  return problems;
}

const sentence = (text: string): string => `${capital(text)}.`;

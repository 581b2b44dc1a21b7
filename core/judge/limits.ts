import type { Problem } from '../result';
import { requireUnit } from '../quantity/units';
import type { Limits } from './types';

const NUMBERS = [
  'lower', 'upper', 'watchLower', 'watchUpper', 'recheckMargin', 'shortBelow', 'openAbove', 'steadyWithin',
  'referenceTemperature_degC', 'temperatureCoefficient_perK',
] as const;

/** Pairs that must not be out of order: the first may not be above the second. */
const ORDER: readonly (readonly [keyof Limits, keyof Limits])[] = [
  ['lower', 'upper'], ['watchLower', 'watchUpper'], ['lower', 'watchLower'], ['lower', 'watchUpper'],
  ['watchLower', 'upper'], ['watchUpper', 'upper'], ['shortBelow', 'lower'], ['shortBelow', 'upper'], ['lower', 'openAbove'],
  ['upper', 'openAbove'], ['shortBelow', 'openAbove'],
];

/**
 * All that is wrong with a set of limits, each with its path below `base`. A limit is finite or it is absent: NaN would
 * make every comparison false and let a reading pass.
 */
export function checkLimits(limits: Limits, base = ''): Problem[] {
  const problems: Problem[] = [];
  const say = (field: string, message: string): void => void problems.push({ path: `${base}/${field}`, message });
  const unit = requireUnit(limits.unit, limits.quantity);
  if (!unit.ok) say('unit', sentence(unit.error));
  for (const field of NUMBERS) {
    const value = limits[field];
    if (value !== undefined && !Number.isFinite(value)) say(field, `${field} must be a finite number or absent.`);
  }
  for (const [small, large] of ORDER) {
    const [a, b] = [limits[small], limits[large]];
    if (typeof a === 'number' && typeof b === 'number' && a > b) {
      say(small, `${small} (${a}) is above ${large} (${b}).`);
    }
  }
  for (const field of ['recheckMargin', 'steadyWithin'] as const) {
    if ((limits[field] ?? 0) < 0) say(field, `${field} cannot be negative.`);
  }
  if ((limits.neighbours?.maxRatio ?? 2) <= 1) say('neighbours/maxRatio', 'maxRatio must be above 1.');
  if ((limits.neighbours?.maxDifference ?? 1) <= 0) say('neighbours/maxDifference', 'maxDifference must be above 0.');
  return problems;
}

const sentence = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;

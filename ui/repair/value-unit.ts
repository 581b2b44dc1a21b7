import { readerUnit } from '../../core/quantity/reader-unit';
import type { ReachedValue } from '../../core/repair/values';

const UNITS: Readonly<Record<ReachedValue['quantity'], readonly string[]>> = {
  torque: ['Nm', 'lbf ft'],
  angle: ['°'],
  length: ['mm'],
  voltage: ['V'],
  resistance: ['Ω'],
};

/** Units that a bare number may be meant in, the reader's own first. */
export const bareUnits = (quantity: ReachedValue['quantity']): readonly string[] =>
  UNITS[quantity].toSorted((a, b) => Number(readerUnit(a).isOther) - Number(readerUnit(b).isOther));

/** A bare number gets the unit that stands beside the field; what has a unit keeps it. */
export const valueWithUnit = (typed: string, unit: string): string => {
  const value = typed.trim();
  return /^[+-]?\d+([.,]\d+)?$/.test(value) && unit ? `${value}${unit === '°' ? '' : ' '}${unit}` : value;
};

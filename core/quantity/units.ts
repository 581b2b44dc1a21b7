import { tr } from '../locale/translate';
import { fail, ok, type Result } from '../foundation/result';
import { baseValue, type BaseValue, type EnteredValue, unitValue, type UnitValue } from './values';

/**
 * Quantities and units. The number inside core is always in the first unit of its quantity (SI, or the
 * field's own base such as percent). A unit is `base = value * factor + offset`.
 *
 * Factors: SI Brochure (9th ed.) for SI units; psi = 6894.757 293 168 Pa and inHg = 3386.389 Pa after NIST SP
 * 811, appendix B.8; lbf ft = 1.355 817 948 N m, same table. Written from memory of those tables.
 */
export const QUANTITIES = [
  'resistance',
  'voltage',
  'current',
  'time',
  'frequency',
  'temperature',
  'pressure',
  'ratio',
  'torque',
  'volume',
  'length',
  'observation',
] as const;
export type Quantity = (typeof QUANTITIES)[number];

export interface MeasureUnit {
  /** How the unit is written in files: plain ASCII, without a prefix. */
  readonly symbol: string;
  readonly quantity: Quantity;
  readonly factor: number;
  readonly offset: number;
  /** Whether SI prefixes may stand before it. */
  readonly prefixable: boolean;
  /** How the unit is written for people. */
  readonly shown: string;
  /** Other spellings that a person types or a meter sends. */
  readonly spellings: readonly string[];
}

const unit = (
  symbol: string,
  quantity: Quantity,
  shown: string,
  spellings: string[],
  factor = 1,
  prefixable = true,
  offset = 0,
): MeasureUnit => ({ symbol, quantity, factor, offset, prefixable, shown, spellings });

export const UNITS: readonly MeasureUnit[] = [
  unit('ohm', 'resistance', 'Ω', ['Ω', 'Ω', 'Ohm', 'ohms', 'Ohms', 'OHM']),
  unit('V', 'voltage', 'V', ['v', 'volt', 'volts', 'Volt', 'Volts', 'VDC', 'Vdc']),
  unit('A', 'current', 'A', ['amp', 'amps', 'Amp', 'Amps', 'ADC']),
  unit('s', 'time', 's', ['sec', 'second', 'seconds']),
  unit('min', 'time', 'min', [], 60, false),
  unit('Hz', 'frequency', 'Hz', ['hz', 'HZ']),
  unit('rpm', 'frequency', 'rpm', ['RPM', '1/min', 'r/min'], 1 / 60, false),
  unit('degC', 'temperature', '°C', ['°C', '℃', 'deg C', 'celsius'], 1, false),
  unit('K', 'temperature', 'K', ['kelvin'], 1, false, -273.15),
  unit('degF', 'temperature', '°F', ['°F', 'deg F', 'fahrenheit'], 5 / 9, false, -160 / 9),
  unit('Pa', 'pressure', 'Pa', ['pascal']),
  unit('bar', 'pressure', 'bar', ['Bar', 'BAR'], 1e5),
  unit('psi', 'pressure', 'psi', ['PSI', 'Psi', 'lbf/in2'], 6894.757293168, false),
  unit('inHg', 'pressure', 'inHg', ['inhg'], 3386.389, false),
  unit('%', 'ratio', '%', ['percent', 'pct'], 1, false),
  unit('Nm', 'torque', 'Nm', ['N m', 'N.m', 'N·m'], 1, false),
  unit('lbf ft', 'torque', 'lbf ft', ['lbf·ft', 'ft lbf', 'lb ft', 'lbft', 'ft-lb'], 1.355817948, false),
  unit('L', 'volume', 'L', ['l', 'litre', 'liter'], 1e-3),
  unit('m', 'length', 'm', ['metre', 'meter']),
  // What is seen, felt or heard and has no number: 1 is a pass, 0 a fail.
  unit('seen', 'observation', '', [], 1, false),
];

/** SI prefixes that occur at a bench. `K` for kilo is what people type; IEC 60062 writes it so. */
export const PREFIXES: Readonly<Record<string, number>> = {
  p: 1e-12,
  n: 1e-9,
  µ: 1e-6,
  μ: 1e-6,
  u: 1e-6,
  m: 1e-3,
  k: 1e3,
  K: 1e3,
  M: 1e6,
  G: 1e9,
  T: 1e12,
};

/** A unit with its prefix: `base = (value * scale) * unit.factor + unit.offset`. */
export interface ScaledUnit {
  readonly unit: MeasureUnit;
  readonly scale: number;
}

const SPELLINGS: ReadonlyMap<string, MeasureUnit> = new Map(
  UNITS.flatMap((u) => [u.symbol, ...u.spellings].map((spelling) => [spelling, u] as const)),
);

/** Finds a unit by any spelling, with or without an SI prefix. `undefined` where there is none. */
export function findUnit(text: string): ScaledUnit | undefined {
  const spelled = text.trim();
  const plain = SPELLINGS.get(spelled);
  if (plain) return { unit: plain, scale: 1 };
  const [first = ''] = spelled;
  const scale = Object.hasOwn(PREFIXES, first) ? PREFIXES[first] : undefined;
  const rest = SPELLINGS.get(spelled.slice(first.length).trim());
  return scale !== undefined && rest?.prefixable ? { unit: rest, scale } : undefined;
}

/** As `findUnit`, for a unit that must be of the given quantity; the failure is a sentence. */
export function requireUnit(text: string, quantity: Quantity): Result<ScaledUnit, string> {
  const found = findUnit(text);
  if (found && found.unit.quantity === quantity) return ok(found);
  const known = UNITS.filter((u) => u.quantity === quantity)
    .map((u) => u.symbol)
    .join(', ');
  if (!found) return fail(tr`unknown unit "${text}"; ${quantity} is given in ${known}`);
  return fail(tr`"${text}" is a unit of ${found.unit.quantity}; ${quantity} is given in ${known}`);
}

/**
 * Value in a (prefixed) unit to the base unit of its quantity. Throws RangeError where the result is not
 * finite, as the three below.
 */
export const toBase = (value: UnitValue | EnteredValue, { unit: u, scale }: ScaledUnit): BaseValue =>
  baseValue(value * scale * u.factor + u.offset);

/** Value in the base unit of its quantity to a (prefixed) unit. RangeError where the result is not finite. */
export const fromBase = (base: BaseValue, { unit: u, scale }: ScaledUnit): UnitValue =>
  unitValue((base - u.offset) / (u.factor * scale));

/** A difference (uncertainty, resolution, span) to the base unit: no offset. */
export const spanToBase = (span: UnitValue | EnteredValue, { unit: u, scale }: ScaledUnit): BaseValue =>
  baseValue(span * scale * u.factor);

/** A difference in the base unit to a (prefixed) unit: no offset. */
export const spanFromBase = (span: BaseValue, { unit: u, scale }: ScaledUnit): UnitValue =>
  unitValue(span / (u.factor * scale));

/** The base unit of a quantity: the first in the table. */
export function baseUnit(quantity: Quantity): MeasureUnit {
  const found = UNITS.find((u) => u.quantity === quantity);
  if (!found) throw new Error(`no unit for quantity ${quantity}`);
  return found;
}

import { tr } from '../locale/translate';
import { interpolateLinear } from '../numerics/interpolate';
import { fromBase, type Quantity, requireUnit, type ScaledUnit } from '../quantity/units';
import { baseValue, unitValue, type UnitValue } from '../quantity/values';
import type { Problem } from '../foundation/result';

/** What acts on a sensor: its quantity and the unit in which the function is written. */
export interface Stimulus {
  readonly quantity: Quantity;
  readonly unit: string;
}

/** A point of a ratiometric sensor: at this stimulus it gives this share of its reference voltage. */
export interface RatioPoint {
  readonly at: number;
  readonly ratio: number;
}

/**
 * What a sensor should show at a stimulus.
 * - `ratiometric`: a straight line between two shares of the reference voltage;
 * - `table`: straight lines between points [stimulus, reading], stimulus rising; nothing is said outside;
 * - `ntc-steinhart-hart`: 1/T = a + b ln R + c (ln R)³, T in kelvin, R in ohm (Steinhart and Hart, Deep-Sea
 *   Research 15 (1968) 497);
 * - `ntc-beta`: R = R0 exp(β (1/T - 1/T0)), kelvin. Citation from memory.
 */
export type Transfer =
  | {
      readonly kind: 'ratiometric';
      readonly stimulus: Stimulus;
      readonly supply_V: number;
      readonly low: RatioPoint;
      readonly high: RatioPoint;
    }
  | { readonly kind: 'table'; readonly stimulus: Stimulus; readonly points: readonly (readonly [number, number])[] }
  | { readonly kind: 'ntc-steinhart-hart'; readonly a: number; readonly b: number; readonly c: number }
  | { readonly kind: 'ntc-beta'; readonly resistance_ohm: number; readonly at_degC: number; readonly beta_K: number };

const KELVIN = 273.15;
const CELSIUS: Stimulus = { quantity: 'temperature', unit: 'degC' };

export const stimulusOf = (t: Transfer): Stimulus => ('stimulus' in t ? t.stimulus : CELSIUS);

/**
 * Resistance of a thermistor at a temperature: the Steinhart-Hart equation solved for R, R = exp(∛(x - y/2) -
 * ∛(x + y/2)), y = (a - 1/T)/c, x = √((b/3c)³ + y²/4). `c` = 0 leaves ln R = (1/T - a)/b. NaN below absolute
 * zero.
 */
export function steinhartHartResistance_ohm(
  { a, b, c }: { a: number; b: number; c: number },
  temperature_degC: number,
): number {
  const kelvin = temperature_degC + KELVIN;
  if (!(kelvin > 0)) return NaN;
  if (c === 0) return Math.exp((1 / kelvin - a) / b);
  const y = (a - 1 / kelvin) / c;
  const x = Math.sqrt((b / (3 * c)) ** 3 + (y * y) / 4);
  return Math.exp(Math.cbrt(x - y / 2) - Math.cbrt(x + y / 2));
}

/**
 * Temperature of a thermistor by the Steinhart-Hart equation, degC: 1/T = a + b ln R + c (ln R)³.
 * `resistance_ohm` above 0; NaN for nothing or less, and for NaN. Steinhart and Hart (1968), from memory.
 */
export function steinhartHart_degC({ a, b, c }: { a: number; b: number; c: number }, resistance_ohm: number): number {
  const ln = Math.log(resistance_ohm);
  return 1 / (a + b * ln + c * ln ** 3) - KELVIN;
}

/**
 * Resistance of a thermistor by its β, ohm: R = R0 exp(β (1/T - 1/T0)), temperatures in °C here and in kelvin
 * there. NaN below absolute zero and for NaN.
 */
export function betaResistance_ohm(
  t: { resistance_ohm: number; at_degC: number; beta_K: number },
  temperature_degC: number,
): number {
  const kelvin = temperature_degC + KELVIN;
  return kelvin > 0 ? t.resistance_ohm * Math.exp(t.beta_K * (1 / kelvin - 1 / (t.at_degC + KELVIN))) : NaN;
}

/**
 * What should be read at a stimulus (in the transfer's own unit), in the unit of the limits; `null` where the
 * function says nothing.
 */
export function expectedAt(t: Transfer, x: number, asked: ScaledUnit): UnitValue | null {
  if (!Number.isFinite(x)) return null;
  switch (t.kind) {
    case 'ratiometric': {
      const slope = (t.high.ratio - t.low.ratio) / (t.high.at - t.low.at);
      const ratio = t.low.ratio + slope * (x - t.low.at);
      return ratio >= 0 && ratio <= 1 ? fromBase(baseValue(t.supply_V * ratio), asked) : null;
    }
    case 'table':
      return finiteUnit(interpolateLinear(t.points, x));
    case 'ntc-steinhart-hart':
      return fromFinite(steinhartHartResistance_ohm(t, x), asked);
    case 'ntc-beta':
      return fromFinite(betaResistance_ohm(t, x), asked);
  }
}

/**
 * The stimulus at which a sensor shows a reading (in the unit of the limits, for a thermistor in ohm), in the
 * transfer's own unit: the inverse of `expectedAt`. `null` where no stimulus, or more than one, leads to it.
 */
export function stimulusAt(t: Transfer, reading: number): number | null {
  if (!Number.isFinite(reading)) return null;
  switch (t.kind) {
    case 'ratiometric': {
      const slope = (t.high.ratio - t.low.ratio) / (t.high.at - t.low.at);
      const at = t.low.at + (reading / t.supply_V - t.low.ratio) / slope;
      return Number.isFinite(at) ? at : null;
    }
    case 'table': {
      const turned = t.points.map(([x, y]) => [y, x] as const);
      const first = turned[0]?.[0] ?? NaN;
      const isFalling = (turned[1]?.[0] ?? NaN) < first;
      if (isFalling) turned.reverse();
      const isMonotone = turned.every(([y], i) => i === 0 || y > (turned[i - 1]?.[0] ?? NaN));
      return isMonotone ? interpolateLinear(turned, reading) : null;
    }
    case 'ntc-steinhart-hart':
      return reading > 0 ? finite(steinhartHart_degC(t, reading)) : null;
    case 'ntc-beta':
      return reading > 0
        ? finite(1 / (1 / (t.at_degC + KELVIN) + Math.log(reading / t.resistance_ohm) / t.beta_K) - KELVIN)
        : null;
  }
}

const finite = (n: number): number | null => (Number.isFinite(n) ? n : null);
const finiteUnit = (n: number | null): UnitValue | null => (n !== null && Number.isFinite(n) ? unitValue(n) : null);
const fromFinite = (base: number, asked: ScaledUnit): UnitValue | null =>
  Number.isFinite(base) ? fromBase(baseValue(base), asked) : null;

/**
 * Slope of the reading over the stimulus, in the limits' unit per unit of stimulus, by the difference of a
 * small step (1e-6 of the stimulus, at least 1e-6) to either side; 0 where the function says nothing.
 */
export function slopeAt(t: Transfer, x: number, asked: ScaledUnit): number {
  const h = Math.max(1e-6, Math.abs(x) * 1e-6);
  const [low, high] = [expectedAt(t, x - h, asked), expectedAt(t, x + h, asked)];
  return low === null || high === null ? 0 : (high - low) / (2 * h);
}

const READS: Readonly<Record<Transfer['kind'], Quantity | null>> = {
  ratiometric: 'voltage',
  table: null,
  'ntc-steinhart-hart': 'resistance',
  'ntc-beta': 'resistance',
};

/** All that is wrong with a transfer function for limits of `quantity`, each with its path below `base`. */
export function checkTransfer(t: Transfer, quantity: Quantity, base: string): Problem[] {
  const problems: Problem[] = [];
  const say = (field: string, message: string): void => void problems.push({ path: `${base}/${field}`, message });
  const reads = READS[t.kind];
  if (reads !== null && reads !== quantity)
    say('kind', tr`This kind of function gives a ${reads}; the limits are of ${quantity}.`);
  const { quantity: of, unit } = stimulusOf(t);
  const known = requireUnit(unit, of);
  if (!known.ok) say('stimulus/unit', known.error);
  if (t.kind === 'ratiometric') {
    if (!(t.supply_V > 0)) say('supply_V', 'The reference voltage is above 0.');
    if (!(t.high.at > t.low.at)) say('high/at', 'The upper point lies above the lower one.');
    for (const [name, p] of [
      ['low', t.low],
      ['high', t.high],
    ] as const)
      if (!(p.ratio >= 0 && p.ratio <= 1)) say(`${name}/ratio`, 'It lies between 0 and 1.');
  }
  if (t.kind === 'table') {
    if (t.points.length < 2) say('points', 'A table has two points at least.');
    t.points.forEach(([x], i) => {
      if (i && !(x > (t.points[i - 1]?.[0] ?? NaN))) say(`points/${i}/0`, 'The stimulus rises from point to point.');
    });
  }
  if (t.kind === 'ntc-beta' && !(t.resistance_ohm > 0 && t.beta_K > 0)) say('beta_K', 'Resistance and β are above 0.');
  if (t.kind === 'ntc-steinhart-hart' && !(t.b > 0 && t.c >= 0)) say('b', 'b is above 0, c is 0 or more.');
  return problems;
}

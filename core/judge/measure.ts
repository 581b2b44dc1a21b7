import { type Instrument, rangeFor, UNZEROED_LEADS_MOST_OHM } from '../metrology/instrument';
import { toReferenceFactor } from '../metrology/temperature';
import { combine, uncertaintyParts } from '../metrology/uncertainty';
import { fromBase, type ScaledUnit, spanFromBase } from '../quantity/units';
import type { Condition, Limits, Reason } from './types';

const DEFAULT_REFERENCE_DEGC = 20;

/** What the readings of one set have in common. */
export interface Context {
  readonly limits: Limits;
  readonly condition: Condition;
  readonly instrument: Instrument | null;
  /** Unit of the limits. */
  readonly asked: ScaledUnit;
}

/** A reading after corrections, in the unit of the limits. */
export interface Measured {
  readonly corrected: number;
  readonly standardUncertainty: number;
  readonly resolution: number;
  /** Half the span in which the typed digits, and those of the lead zero, leave the value. */
  readonly digitsHalfWidth: number;
  /** The meter has stated its accuracy in this quantity. */
  readonly accuracyKnown: boolean;
  /** The typed digits are coarser than those the meter shows. */
  readonly coarseDigits: boolean;
  readonly leadsDoubt: number;
  readonly reasons: readonly Reason[];
}

/** Applies lead zero and temperature to a value in the base unit, and states how well it is known. */
export function measure(base: number, resolution: number, halfWander: number, context: Context): Measured {
  const { limits, instrument, asked } = context;
  const ohms = limits.quantity === 'resistance';
  const zero = ohms ? instrument?.leadZero_ohm ?? null : null;
  const net = base - (zero ?? 0);
  const reasons: Reason[] = [];
  if (zero !== null && zero !== 0) reasons.push({ rule: 'lead-zero-subtracted', leadZero_ohm: zero });
  if (zero !== null && net < -(resolution + (instrument?.leadZeroResolution_ohm ?? 0)) / 2) {
    reasons.push({ rule: 'below-lead-zero', leadZero_ohm: zero });
  }
  const temperature = temperatureFactor(context);
  if (temperature.reason) reasons.push(temperature.reason);
  const { factor } = temperature;
  const uncertainty = combine(uncertaintyParts({
    quantity: limits.quantity, value: base, net, resolution, halfWander, zeroed: zero !== null, instrument,
  }));
  const range = instrument && rangeFor(instrument, limits.quantity, base);
  const leadStep = zero !== null ? instrument?.leadZeroResolution_ohm ?? 0 : 0;
  return {
    corrected: fromBase(net * factor, asked),
    standardUncertainty: spanFromBase(uncertainty * factor, asked),
    resolution: spanFromBase(resolution, asked),
    digitsHalfWidth: spanFromBase((resolution / 2 + leadStep / 2 + halfWander) * factor, asked),
    accuracyKnown: range !== null,
    coarseDigits: range !== null && range.upTo >= Math.abs(base) && resolution > range.resolution * 1.5,
    leadsDoubt: spanFromBase(leadsDoubt(base, context) * factor, asked),
    reasons,
  };
}

/** How much of the reading may belong to leads that nobody has zeroed, ohm; 0 where it does not matter. */
function leadsDoubt(base: number, { limits, instrument }: Context): number {
  if (limits.quantity !== 'resistance' || !instrument || instrument.leadZero_ohm !== null) return 0;
  return UNZEROED_LEADS_MOST_OHM >= 0.01 * Math.abs(base) ? UNZEROED_LEADS_MOST_OHM : 0;
}

function temperatureFactor({ limits, condition }: Context): { factor: number; reason: Reason | null } {
  const coefficient = limits.temperatureCoefficient_perK ?? 0;
  if (coefficient === 0 || limits.quantity !== 'resistance') return { factor: 1, reason: null };
  const reference = limits.referenceTemperature_degC ?? DEFAULT_REFERENCE_DEGC;
  const part = condition.partTemperature_degC;
  if (part === undefined) {
    return { factor: 1, reason: { rule: 'temperature-unknown', reference_degC: reference, coefficient_perK: coefficient } };
  }
  const factor = toReferenceFactor(part, reference, coefficient);
  // Refused by checkSet before any reading is judged.
  if (factor === null) throw new RangeError(`temperature ${part} degC is outside the linear law of ${coefficient} per K`);
  return {
    factor,
    reason: { rule: 'temperature-corrected', from_degC: part, to_degC: reference, coefficient_perK: coefficient, factor },
  };
}

/**
 * Whether leads that nobody has zeroed could change a verdict against these limits: they may add more than a
 * twentieth of the nearest limit.
 */
export function leadZeroMatters(limits: Limits, ohmsPerUnit = 1): boolean {
  const nearest = limits.upper ?? limits.lower;
  return limits.quantity === 'resistance' && nearest !== undefined
    && UNZEROED_LEADS_MOST_OHM > 0.05 * Math.abs(nearest) * ohmsPerUnit;
}

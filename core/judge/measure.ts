import { type Instrument, rangeFor, UNZEROED_LEADS_MOST_OHM } from '../metrology/instrument';
import type { At } from '../limits/entry';
import type { DecisionRule } from '../metrology/conformity';
import {
  CONDUCTORS,
  TEMPERATURE_HALF_WIDTH_K,
  temperatureSensitivity_perK,
  toReferenceFactor,
} from '../metrology/temperature';
import { combine, uncertaintyParts, type UncertaintyParts } from '../metrology/uncertainty';
import { fromBase, type ScaledUnit, spanFromBase, spanToBase } from '../quantity/units';
import { baseValue, type BaseValue, unitValue, type UnitValue } from '../quantity/values';
import type { LimitsInForce } from '../limits/types';
import type { Condition, Limits, Reason } from './types';

const DEFAULT_REFERENCE_DEGC = 20;

/** What the readings of one set have in common. */
export interface Context {
  readonly limits: LimitsInForce;
  readonly condition: Condition;
  readonly instrument: Instrument | null;
  /** Unit of the limits. */
  readonly limitUnit: ScaledUnit;
  readonly decision: DecisionRule;
  /** What stands behind the at sign of this reading. */
  readonly at: At | null;
  /** Reading per unit of stimulus, in the unit of the limits, where a transfer function judges. */
  readonly slope: number;
  /** The limits are this position's own. */
  readonly ofPosition: boolean;
  /** What is measured: "plug". */
  readonly part: string;
}

/** A reading after corrections, in the unit of the limits. */
export interface CorrectedValue {
  readonly corrected: UnitValue;
  readonly standardUncertainty: UnitValue;
  readonly resolution: UnitValue;
  /** Half the span in which the typed digits, and those of the lead zero, leave the value. */
  readonly digitsHalfWidth: UnitValue;
  /** The meter has stated its accuracy in this quantity. */
  readonly accuracyKnown: boolean;
  /** The typed digits are coarser than those the meter shows. */
  readonly coarseDigits: boolean;
  readonly leadsDoubt: UnitValue;
  readonly reasons: readonly Reason[];
  /** Standard uncertainties by where they come from, in the unit of the limits. */
  readonly parts: UncertaintyParts;
}

/**
 * Applies lead zero and temperature to a value, and states how well it is known (GUM, see
 * `metrology/uncertainty.ts`). `base`, `resolution` (one step of the digits) and `halfWander` in the base
 * unit of the quantity; all that comes out is in the unit of the limits. Throws RangeError for a temperature
 * at which the linear law leaves no resistance: `checkSet` refuses that before.
 */
export function measure(
  base: BaseValue,
  resolution: BaseValue,
  halfWander: BaseValue,
  context: Context,
): CorrectedValue {
  const { limits, instrument, limitUnit: asked } = context;
  const ohms = limits.quantity === 'resistance';
  const zero = ohms ? (instrument?.leadZero_ohm ?? null) : null;
  const clampZero = limits.quantity === 'current' ? (instrument?.clampZero_A ?? 0) : 0;
  const net = base - (zero ?? 0) - clampZero;
  const reasons: Reason[] = [];
  if (clampZero !== 0) reasons.push({ rule: 'clamp-zero-subtracted', clampZero_A: clampZero });
  if (zero !== null && zero !== 0) reasons.push({ rule: 'lead-zero-subtracted', leadZero_ohm: zero });
  if (zero !== null && net < -(resolution + (instrument?.leadZeroResolution_ohm ?? 0)) / 2) {
    reasons.push({ rule: 'below-lead-zero', leadZero_ohm: zero });
  }
  const temperature = temperatureFactor(context);
  if (temperature.reason) reasons.push(temperature.reason);
  const { factor } = temperature;
  const parts = scaleParts(
    uncertaintyParts({
      quantity: limits.quantity,
      value: base,
      net,
      resolution,
      halfWander,
      zeroed: zero !== null,
      instrument,
      temperature: temperature.perK === 0 ? null : { perK: temperature.perK, halfWidth_K: TEMPERATURE_HALF_WIDTH_K },
      stimulusHalfWidth: Math.abs(spanToBase(unitValue(context.slope * (context.at?.resolution ?? 0)), asked)) / 2,
    }),
    factor,
    asked,
  );
  const range = instrument && rangeFor(instrument, limits.quantity, base);
  const leadStep = zero !== null ? (instrument?.leadZeroResolution_ohm ?? 0) : 0;
  return {
    corrected: fromBase(baseValue(net * factor), asked),
    standardUncertainty: unitValue(combine(parts)),
    parts,
    resolution: spanFromBase(resolution, asked),
    digitsHalfWidth: spanFromBase(baseValue((resolution / 2 + leadStep / 2 + halfWander) * factor), asked),
    accuracyKnown: range !== null,
    coarseDigits: range !== null && range.upTo >= Math.abs(base) && resolution > range.resolution * 1.5,
    leadsDoubt: spanFromBase(baseValue(leadsDoubt_ohm(base, context) * factor), asked),
    reasons,
  };
}

/** How much of the reading may belong to leads that nobody has zeroed, ohm; 0 where it does not matter. */
function leadsDoubt_ohm(base: BaseValue, { limits, instrument }: Context): number {
  if (limits.quantity !== 'resistance' || !instrument || instrument.leadZero_ohm !== null) return 0;
  return UNZEROED_LEADS_MOST_OHM >= 0.01 * Math.abs(base) ? UNZEROED_LEADS_MOST_OHM : 0;
}

function scaleParts(p: UncertaintyParts, factor: number, asked: ScaledUnit): UncertaintyParts {
  const scale = (u: number): UnitValue => spanFromBase(baseValue(u * factor), asked);
  return {
    digits: scale(p.digits),
    gain: scale(p.gain),
    counts: scale(p.counts),
    leadZero: scale(p.leadZero),
    wander: scale(p.wander),
    contact: scale(p.contact),
    temperature: scale(p.temperature),
    stimulus: scale(p.stimulus),
  };
}

/**
 * The coefficient that brings a resistance to its reference temperature: as stated, or that of the conductor;
 * 0 for none.
 */
export const coefficientOf = (limits: Limits): number =>
  limits.quantity !== 'resistance' || limits.transfer
    ? 0
    : (limits.temperatureCoefficient_perK ?? (limits.material ? CONDUCTORS[limits.material] : 0));

/** How warm the part was at this reading; `undefined` where nobody has said. */
export const temperatureOf = ({
  condition,
  at,
  limits,
}: Pick<Context, 'condition' | 'at'> & { readonly limits: Limits }): number | undefined =>
  at && !limits.transfer && at.stimulus.quantity === 'temperature' ? at.value : condition.partTemperature_degC;

function temperatureFactor(context: Context): { factor: number; perK: number; reason: Reason | null } {
  const { limits } = context;
  const coefficient = coefficientOf(limits);
  if (coefficient === 0) return { factor: 1, perK: 0, reason: null };
  const reference = limits.referenceTemperature_degC ?? DEFAULT_REFERENCE_DEGC;
  const part = temperatureOf(context);
  if (part === undefined) {
    return {
      factor: 1,
      perK: 0,
      reason: { rule: 'temperature-unknown', reference_degC: reference, coefficient_perK: coefficient },
    };
  }
  const factor = toReferenceFactor(part, reference, coefficient);
  // Refused by checkSet before any reading is judged.
  if (factor === null)
    throw new RangeError(`temperature ${part} degC is outside the linear law of ${coefficient} per K`);
  return {
    factor,
    perK: temperatureSensitivity_perK(part, reference, coefficient),
    reason: {
      rule: 'temperature-corrected',
      from_degC: part,
      to_degC: reference,
      coefficient_perK: coefficient,
      factor,
    },
  };
}

/**
 * Whether leads that nobody has zeroed could change a verdict against these limits: they may add more than a
 * twentieth of the nearest limit.
 */
export function leadZeroMatters(limits: Limits, ohmsPerUnit = 1): boolean {
  const nearest = limits.upper ?? limits.lower;
  return (
    limits.quantity === 'resistance' &&
    nearest !== undefined &&
    UNZEROED_LEADS_MOST_OHM > 0.05 * Math.abs(nearest) * ohmsPerUnit
  );
}

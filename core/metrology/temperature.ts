import { bisectRising } from '../numerics/bisect';

/**
 * Resistance at a reference temperature, for a conductor whose resistance is linear in temperature:
 * R_ref = R_t / (1 + α (t - t_ref)), α being the coefficient at t_ref.
 * For annealed copper α = 0.00393 per K at 20 °C (IEC 60028:1925, clause 3 of the recommendation).
 */
export const COPPER_COEFFICIENT_PER_K = 0.00393;

export type Conductor = 'copper' | 'aluminium' | 'platinum';

/**
 * Coefficients at 20 °C, per K. Copper IEC 60028. Aluminium 0.00403, IEC 60889 (from memory). Platinum: slope
 * of the IEC 60751 curve at 20 °C over its value there, (A + 2·B·20)/(1 + A·20 + B·400) with A = 3.9083e-3, B
 * = -5.775e-7.
 */
export const CONDUCTORS: Readonly<Record<Conductor, number>> = {
  copper: COPPER_COEFFICIENT_PER_K,
  aluminium: 0.00403,
  platinum: (3.9083e-3 - 2 * 5.775e-7 * 20) / (1 + 3.9083e-3 * 20 - 5.775e-7 * 400),
};

/**
 * How well a part's temperature is known when somebody states it: half width, kelvin. Common practice, no
 * source.
 */
export const TEMPERATURE_HALF_WIDTH_K = 2;

/**
 * Relative change of the brought-back resistance per kelvin that the temperature is wrong: |α/(1 + α (t -
 * t_ref))|, per K, the derivative of the law above. Infinity where the law leaves no resistance, NaN for NaN.
 */
export function temperatureSensitivity_perK(
  temperature_degC: number,
  reference_degC: number,
  coefficient_perK: number,
): number {
  return Math.abs(coefficient_perK / (1 + coefficient_perK * (temperature_degC - reference_degC)));
}

/**
 * Resistance of a platinum thermometer of 100 ohm at 0 °C, ohm, IEC 60751: R = 100 (1 + A t + B t²) from 0 to
 * 850 °C, with C (t - 100) t³ added below, down to -200 °C. NaN outside. Constants from memory of the
 * standard.
 */
export function pt100_ohm(t_degC: number): number {
  if (!(t_degC >= -200 && t_degC <= 850)) return NaN;
  const [A, B, C] = [3.9083e-3, -5.775e-7, t_degC < 0 ? -4.183e-12 : 0];
  return 100 * (1 + A * t_degC + B * t_degC ** 2 + C * (t_degC - 100) * t_degC ** 3);
}

/**
 * Factor that brings a resistance read at `temperature_degC` to `reference_degC`. Returns `null` where the
 * linear law has no meaning (it would give a resistance of nothing or less).
 */
export function toReferenceFactor(
  temperature_degC: number,
  reference_degC: number,
  coefficient_perK: number,
): number | null {
  const growth = 1 + coefficient_perK * (temperature_degC - reference_degC);
  return growth > 0 ? 1 / growth : null;
}

/**
 * Temperature of such a thermometer, degC, to a millionth: the curve rises all the way, so halving finds it.
 * NaN for a resistance outside of its range (-200 to 850 °C), and for NaN.
 */
export function pt100_degC(resistance_ohm: number): number {
  const [low, high] = [-200, 850];
  if (!(resistance_ohm >= pt100_ohm(low) && resistance_ohm <= pt100_ohm(high))) return NaN;
  return bisectRising(pt100_ohm, resistance_ohm, { low, high, tolerance: 1e-6 });
}

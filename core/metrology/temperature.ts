/**
 * Resistance at a reference temperature, for a conductor whose resistance is linear in temperature:
 * R_ref = R_t / (1 + α (t - t_ref)), α being the coefficient at t_ref.
 * For annealed copper α = 0.00393 per K at 20 °C (IEC 60028:1925, clause 3 of the recommendation).
 */
export const COPPER_COEFFICIENT_PER_K = 0.00393;

/**
 * Factor that brings a resistance read at `temperature_degC` to `reference_degC`. Returns `null` where the linear law
 * has no meaning (it would give a resistance of nothing or less).
 */
export function toReferenceFactor(temperature_degC: number, reference_degC: number, coefficient_perK: number): number | null {
  const growth = 1 + coefficient_perK * (temperature_degC - reference_degC);
  return growth > 0 ? 1 / growth : null;
}

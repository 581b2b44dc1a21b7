import type { Limits } from '../limits/types';
import { findUnit, toBase } from '../quantity/units';
import { unitValue } from '../quantity/values';
import type { CircuitValue, LibraryCircuit } from './types';

/** Limits lie about two standard deviations either side of good parts. Common practice, no source. */
const SIGMAS = 2;

/**
 * The circuit with values and spreads as the shelf's limits have them, where a value names a test and its
 * limits have both ends; itself where there are none.
 */
export function withLimits(circuit: LibraryCircuit, limitsOf: (test: string) => Limits | undefined): LibraryCircuit {
  const values = Object.fromEntries(
    Object.entries(circuit.values).map(([key, v]) => {
      const limits = v.shelf && limitsOf(v.shelf.test);
      const better = limits && fromLimits(v, limits);
      return [key, better ?? v];
    }),
  );
  return Object.entries(values).some(([key, v]) => v !== circuit.values[key]) ? { ...circuit, values } : circuit;
}

function fromLimits(v: CircuitValue, limits: Limits): CircuitValue | null {
  const own = { ...limits, ...(v.shelf?.position === undefined ? {} : limits.byPosition?.[v.shelf.position]) };
  const unit = findUnit(limits.unit);
  if (!unit || own.lower == null || own.upper == null) return null;
  const [lower, upper] = [toBase(unitValue(own.lower), unit), toBase(unitValue(own.upper), unit)];
  if (!(lower > 0 && upper > lower)) return null;
  // Spreads are relative, and those of ohms lie evenly about the geometric middle.
  const value = Math.sqrt(lower * upper);
  return { ...v, value, types: 0, spread: Math.min(0.5, Math.log(upper / lower) / (2 * SIGMAS)) };
}

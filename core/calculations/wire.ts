import { COPPER_COEFFICIENT_PER_K } from '../metrology/temperature';

/**
 * Resistivity of annealed copper at 20 °C, ohm metre: 1/58 ohm mm2/m, IEC 60028:1925.
 */
export const COPPER_RESISTIVITY_OHM_M = 1 / 58e6;

/**
 * Diameter of a solid wire of an AWG size, metre: 0.005 in × 92^((36 - n)/39), ASTM B258; 00 is -1, 000 is
 * -2, 0000 is -3. Any number is taken, whole or not. NaN for NaN.
 */
export const awgDiameter_m = (size: number): number => 0.005 * 0.0254 * 92 ** ((36 - size) / 39);

/**
 * Area of an AWG size, square millimetre: π d² / 4 with the diameter of ASTM B258 above. NaN for NaN.
 */
export const awgArea_mm2 = (size: number): number => (Math.PI / 4) * (awgDiameter_m(size) * 1000) ** 2;

/**
 * Resistance of a copper conductor, ohm: R = ρ l / A × (1 + α (t - 20)), by its area (above 0), its one-way
 * length and its temperature. Infinity for no area, NaN for NaN. Source: IEC 60028:1925 for ρ and α at 20 °C.
 */
export function wireResistance_ohm(area_mm2: number, length_m: number, temperature_degC: number): number {
  return (
    ((COPPER_RESISTIVITY_OHM_M * length_m) / (area_mm2 * 1e-6)) *
    (1 + COPPER_COEFFICIENT_PER_K * (temperature_degC - 20))
  );
}

/**
 * Largest resistance of a stranded conductor (class 5 flexible, plain copper) at 20 °C, ohm per km, by
 * nominal area: IEC 60228, table 3. From memory of the table.
 */
export const IEC_60228_CLASS_5: readonly (readonly [number, number])[] = [
  [0.5, 39],
  [0.75, 26],
  [1, 19.5],
  [1.5, 13.3],
  [2.5, 7.98],
  [4, 4.95],
  [6, 3.3],
  [10, 1.91],
  [16, 1.21],
  [25, 0.78],
  [35, 0.554],
  [50, 0.386],
  [70, 0.272],
  [95, 0.206],
];

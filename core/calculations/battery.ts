/**
 * Rested open-circuit voltage of a 12 V lead-acid battery with liquid electrolyte at 25 °C against its state
 * of charge, percent. Common practice, no source; makers' tables differ by a tenth of a volt.
 */
const TABLE: readonly (readonly [number, number])[] = [
  [11.9, 0],
  [12.06, 25],
  [12.24, 50],
  [12.45, 75],
  [12.65, 100],
];

/**
 * State of charge, percent, clamped to 0 and 100, by straight lines between the points of the table above.
 * `voltage_V` at rest, no load for hours; `cells12` batteries of 12 V in series, 1 or more. NaN for NaN.
 * Common practice, no source.
 */
export function stateOfCharge_percent(voltage_V: number, cells12: number): number {
  const v = voltage_V / cells12;
  const above = TABLE.findIndex(([at]) => at >= v);
  if (above === 0) return 0;
  const [high, low] = [TABLE[above], TABLE[above - 1]];
  if (!high || !low) return 100;
  return low[1] + ((high[1] - low[1]) * (v - low[0])) / (high[0] - low[0]);
}

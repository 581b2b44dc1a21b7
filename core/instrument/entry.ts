import { PREFIXES, type Quantity } from '../quantity/units';

const SYMBOLS: Partial<Readonly<Record<Quantity, string>>> = {
  resistance: 'Ω',
  voltage: 'V',
  current: 'A',
  frequency: 'Hz',
  temperature: '°C',
  time: 's',
};
/** Those that an entry is written with, largest first; a degree has none. */
const WRITTEN = ['M', 'k', '', 'm', 'µ'] as const;

/**
 * A value of a meter as an entry, with the digits that were shown: "0.62 Ω", "97.8 kΩ", "OL", "0.4~0.9 Ω".
 * Values and the step of the last digit are in the base unit; `null` is an overload. An entry says its
 * resolution by its digits: a step that no digit can say, such as 100 ohm, gets a prefix.
 */
export function entryOf(value: number | null, step: number, quantity: Quantity): string {
  if (value === null) return 'OL';
  const { digits, unit } = written(value, step, quantity);
  return `${digits(value)} ${unit}`;
}

/** A value that wanders; `high` is `null` where it breaks. */
export function wanderEntry(low: number, high: number | null, step: number, quantity: Quantity): string {
  const { digits, unit } = written(Math.max(Math.abs(low), Math.abs(high ?? 0)), step, quantity);
  return high === null ? `${digits(low)} ${unit}~OL` : `${digits(low)}~${digits(high)} ${unit}`;
}

function written(value: number, step: number, quantity: Quantity): { digits: (v: number) => string; unit: string } {
  const symbol = SYMBOLS[quantity] ?? '';
  // The exponent of the last digit: what an exact step of 0 does not say, six digits do.
  const last = step > 0 ? Math.round(Math.log10(step)) : Math.floor(Math.log10(Math.abs(value) || 1)) - 5;
  const prefix = quantity === 'temperature' ? '' : prefixFor(magnitude(value), last);
  const decimals = Math.max(0, exponentOf(prefix) - last);
  return { digits: (v) => (v / 10 ** exponentOf(prefix)).toFixed(Math.min(12, decimals)), unit: `${prefix}${symbol}` };
}

/**
 * The largest that the number is not below (0.6 needs no prefix yet); but none that the last digit is a
 * multiple of, for it would be lost.
 */
function prefixFor(size: number, last: number): string {
  const saying = WRITTEN.filter((p) => exponentOf(p) >= last);
  return saying.find((p) => exponentOf(p) <= (p === '' ? size + 1 : size)) ?? saying.at(-1) ?? 'M';
}

const magnitude = (value: number): number => Math.floor(Math.log10(Math.abs(value) || 1) + 1e-9);
const exponentOf = (prefix: string): number => (prefix === '' ? 0 : Math.round(Math.log10(PREFIXES[prefix] ?? 1)));

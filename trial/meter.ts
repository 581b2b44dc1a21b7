import type { Random } from './random';

/** What happens to a reading besides the meter's error. */
export type Slip = 'thousandfold' | 'thousandth' | 'no-contact' | 'other-place' | 'leads' | 'meter-fuse';

/** One technician's meter and leads. */
export interface Meter {
  readonly gain: Readonly<Record<'resistance' | 'voltage' | 'current', number>>;
  readonly leads_ohm: number;
  readonly isZeroed: boolean;
  readonly clampZero_A: number;
}

export const drawMeter = (r: Random): Meter => ({
  gain: {
    resistance: 1 + 0.006 * r.normal(),
    voltage: 1 + 0.004 * r.normal(),
    current: 1 + 0.02 * r.normal(),
  },
  leads_ohm: r.between(0.05, 0.35),
  isZeroed: r.chance(0.85),
  clampZero_A: 0.08 * r.normal(),
});

const OVERLOAD_ohm = 4e7;

const digits = (value: number, least: number): string => {
  const size = Math.abs(value);
  const decimals = size >= 400 ? 0 : size >= 40 ? 1 : size >= 4 ? 2 : 3;
  return value.toFixed(Math.min(decimals, least));
};

/** What the display shows, as it is typed: `0.62 ohm`, `4.51 kohm`, `OL`, `12.41 V`. */
export function display(mode: 'resistance' | 'voltage' | 'current', value: number): string {
  if (mode === 'voltage') return `${digits(value, 2)} V`;
  if (mode === 'current') return `${digits(value, 1)} A`;
  if (!(value < OVERLOAD_ohm)) return 'OL';
  if (value >= 1e6) return `${digits(value / 1e6, 2)} Mohm`;
  if (value >= 1e3) return `${digits(value / 1e3, 2)} kohm`;
  return `${digits(Math.max(0, value), 2)} ohm`;
}

/** What the meter makes of what is there. */
export function metered(meter: Meter, mode: 'resistance' | 'voltage' | 'current', there: number, r: Random): number {
  if (mode === 'resistance') return there * meter.gain.resistance + meter.leads_ohm + 0.03 * r.exponential();
  if (mode === 'voltage') return there * meter.gain.voltage + 0.006 * r.normal();
  return there * meter.gain.current + meter.clampZero_A + 0.05 * r.normal();
}

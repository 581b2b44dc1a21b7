import type { Limits } from '../../core/judge/types';
import { findUnit, toBase } from '../../core/quantity/units';

/**
 * Heights on a post. Resistances stand on a logarithmic post, so that 0.6, 201 and 4.5 k are told apart at a glance;
 * everything else on a linear one that leaves room above and below the channel.
 */
export interface Scale {
  /** Height of a value in the unit of the limits: 0 at the foot, 1 at the top, clamped. */
  readonly height: (value: number) => number;
  readonly ticks: readonly { readonly height: number; readonly label: string }[];
}

const FOOT_OHM = 0.1;
const TOP_OHM = 1e6;

export function scaleFor(limits: Limits): Scale {
  return limits.quantity === 'resistance' ? ohmScale(limits) : linearScale(limits);
}

const clamp = (h: number): number => Math.min(1, Math.max(0, h));

function ohmScale(limits: Limits): Scale {
  const unit = findUnit(limits.unit);
  const decades = Math.log10(TOP_OHM / FOOT_OHM);
  const heightOhm = (ohm: number): number => (ohm <= FOOT_OHM ? 0 : clamp(Math.log10(ohm / FOOT_OHM) / decades));
  const labels = ['0.1', '1', '10', '100', '1k', '10k', '100k', '1M'];
  return {
    height: (value) => heightOhm(unit ? toBase(value, unit) : value),
    ticks: labels.map((label, i) => ({ label, height: i / decades })),
  };
}

function linearScale({ lower, upper }: Limits): Scale {
  const [low, high] = [lower ?? upper ?? 0, upper ?? lower ?? 1];
  // As much room on either side as the channel is high; beside a single limit a fifth of its value.
  const span = Math.max(high - low, lower === undefined || upper === undefined ? Math.abs(high) * 0.2 : 0, Math.abs(high) * 0.1, 1e-9);
  const [foot, top] = [low - span, high + span];
  const at = (v: number): number => clamp((v - foot) / (top - foot));
  const step = niceStep((top - foot) / 9);
  const first = Math.ceil(foot / step);
  const ticks = Array.from({ length: Math.floor(top / step) - first + 1 }, (_, i) => (first + i) * step);
  return { height: at, ticks: ticks.map((v) => ({ height: at(v), label: String(Number(v.toPrecision(6))) })) };
}

/** 1, 2 or 5 times a power of ten, at least `rough`. */
function niceStep(rough: number): number {
  const power = 10 ** Math.floor(Math.log10(rough));
  return ([1, 2, 5, 10].find((m) => m * power >= rough) ?? 10) * power;
}

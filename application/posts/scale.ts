import { significant } from '../../core/locale/numbers';
import { type ReaderUnit, readerUnit } from '../../core/quantity/reader-unit';
import { limitsAt, predict } from '../../core/limits/at';
import type { Limits } from '../../core/limits/types';
import { findUnit, toBase } from '../../core/quantity/units';
import { unitValue } from '../../core/quantity/values';

/**
 * Heights on a post. Resistances stand on a logarithmic post, so that 0.6, 201 and 4.5 k are told apart at a
 * glance; everything else on a linear one that leaves room above and below the channel.
 */
export interface Scale {
  /** Height of a value in the unit of the limits: 0 at the foot, 1 at the top, clamped. */
  readonly height: (value: number) => number;
  readonly ticks: readonly { readonly height: number; readonly label: string }[];
}

const FOOT_OHM = 0.1;
const TOP_OHM = 1e6;

export function scaleFor(limits: Limits, values: readonly number[] = []): Scale {
  if (limits.quantity === 'observation') return { height: (value) => (value > 0 ? 0.75 : 0.25), ticks: [] };
  if (limits.quantity === 'resistance') return ohmScale(limits);
  const differs = limits.byPosition !== undefined || limits.transfer !== undefined;
  return linearScale(boundsOf(limits, values), differs ? WIDE_CHANNELS : LEVEL_CHANNEL, readerUnit(limits.unit));
}

/**
 * Room below and above, as shares of the span: one channel stands in the middle; many channels need the
 * height, and the text above them.
 */
const LEVEL_CHANNEL = { below: 1, above: 1 };
const WIDE_CHANNELS = { below: 0.12, above: 0.5 };

interface Bounds {
  readonly lower?: number | undefined;
  readonly upper?: number | undefined;
}

/** The lowest and the highest limit of any position; where there is none, what was read. */
function boundsOf(limits: Limits, values: readonly number[]): Bounds {
  if (limits.transfer) return transferBounds(limits);
  const all = [limits, ...Object.keys(limits.byPosition ?? {}).map((p) => limitsAt(limits, p))];
  const edges = all.flatMap((l) => [l.lower, l.upper]).filter((v) => v !== undefined);
  if (limits.byPosition && edges.length) return { lower: Math.min(...edges), upper: Math.max(...edges) };
  if (edges.length || values.length === 0) return limits;
  return { lower: Math.min(0, ...values), upper: Math.max(...values) };
}

/** What the function can show at all. */
function transferBounds(limits: Limits): Bounds {
  const { transfer } = limits;
  if (transfer?.kind === 'ratiometric') return { lower: 0, upper: transfer.supply_V };
  const at = transfer?.kind === 'table' ? transfer.points.map(([x]) => x) : [];
  const shown = at.map((x) => predict(limits, unitValue(x))?.expected ?? 0);
  return shown.length ? { lower: Math.min(...shown), upper: Math.max(...shown) } : {};
}

const clamp = (h: number): number => Math.min(1, Math.max(0, h));

function ohmScale(limits: Limits): Scale {
  const unit = findUnit(limits.unit);
  const decades = Math.log10(TOP_OHM / FOOT_OHM);
  const heightOhm = (ohm: number): number => (ohm <= FOOT_OHM ? 0 : clamp(Math.log10(ohm / FOOT_OHM) / decades));
  const labels = ['0.1', '1', '10', '100', '1k', '10k', '100k', '1M'];
  return {
    height: (value) => heightOhm(unit ? toBase(unitValue(value), unit) : value),
    ticks: labels.map((label, i) => ({ label, height: i / decades })),
  };
}

/** Marks stand at round values of the reader's unit. */
function linearScale({ lower, upper }: Bounds, room: { below: number; above: number }, unit: ReaderUnit): Scale {
  const [low, high] = [lower ?? upper ?? 0, upper ?? lower ?? 1];
  // Beside a single limit a fifth of its value.
  const span = Math.max(
    high - low,
    lower === undefined || upper === undefined ? Math.abs(high) * 0.2 : 0,
    Math.abs(high) * 0.1,
    1e-9,
  );
  const [foot, top] = [low - room.below * span, high + room.above * span];
  const at = (v: number): number => clamp((v - foot) / (top - foot));
  const one = unit.of(1);
  const step = niceStep((one * (top - foot)) / 9);
  const first = Math.ceil((one * foot) / step);
  const ticks = Array.from({ length: Math.floor((one * top) / step) - first + 1 }, (_, i) => (first + i) * step);
  return { height: at, ticks: ticks.map((v) => ({ height: at(v / one), label: significant(v, 6) })) };
}

/** 1, 2 or 5 times a power of ten, at least `rough`. */
function niceStep(rough: number): number {
  const power = 10 ** Math.floor(Math.log10(rough));
  return ([1, 2, 5, 10].find((m) => m * power >= rough) ?? 10) * power;
}

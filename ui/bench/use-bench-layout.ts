import { useMemo } from 'react';
import { rowsOf } from '../../application/posts/rows';
import { scaleFor } from '../../application/posts/scale';
import type { RunView } from '../../application/views';
import { leadZeroMatters } from '../../core/judge/measure';
import type { JudgedReading, Judgement, Position } from '../../core/judge/types';
import { findUnit, toBase } from '../../core/quantity/units';
import { unitValue } from '../../core/quantity/values';

/** What stands where on the bench, and what of the meter matters there. */
export interface BenchLayout {
  readonly rows: ReturnType<typeof rowsOf>;
  /** In which the positions are read. */
  readonly order: readonly Position[];
  readonly readings: ReadonlyMap<Position, JudgedReading>;
  readonly scale: ReturnType<typeof scaleFor>;
  /** Ratio of the clamp in use, mV per A; `null` without one. */
  readonly clamp: number | null;
  /** The leads, or the clamp, can weigh in a verdict: their zero is asked for. */
  readonly zeroWanted: boolean;
}

export function useBenchLayout(view: RunView, judgement: Judgement, instrumentId: string | null): BenchLayout {
  const { limits } = view.specification;
  const rows = useMemo(() => rowsOf(view.unit.engine, view.definition), [view]);
  const order = useMemo(() => rows.flatMap((r) => r.positions), [rows]);
  const readings = useMemo(() => new Map(judgement.readings.map((r) => [r.position, r])), [judgement]);
  const bare = limits.lower === undefined && limits.upper === undefined;
  const scale = useMemo(
    () => scaleFor(limits, bare ? judgement.readings.flatMap((r) => (r.corrected === null ? [] : [r.corrected])) : []),
    [limits, bare, judgement],
  );
  const meter = view.instruments.find((i) => i.id === instrumentId);
  const clamp = limits.quantity === 'current' ? (meter?.clamp_mVperA ?? null) : null;
  const zeroWanted = useMemo(
    () => clamp !== null || leadZeroMatters(limits, ohmsPerUnit(limits.unit)),
    [clamp, limits],
  );
  return { rows, order, readings, scale, clamp, zeroWanted };
}

function ohmsPerUnit(symbol: string): number {
  const unit = findUnit(symbol);
  return unit ? toBase(unitValue(1), unit) : 1;
}

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

const NONE: readonly JudgedReading[] = [];

export function useBenchLayout(
  view: RunView,
  judgement: Judgement,
  instrumentId: string | null,
  showsAll = false,
): BenchLayout {
  const { limits } = view.specification;
  const all = useMemo(() => rowsOf(view.unit.engine, view.definition), [view]);
  const rows = useMemo(() => withoutOthers(all, view, judgement, showsAll), [all, view, judgement, showsAll]);
  const order = useMemo(() => rows.flatMap((r) => r.positions), [rows]);
  const readings = useMemo(() => new Map(judgement.readings.map((r) => [r.position, r])), [judgement]);
  const bare = limits.lower === undefined && limits.upper === undefined;
  // Limits alone make the scale where there are any: another reading changes it only where there are none.
  const spread = bare ? judgement.readings : NONE;
  const scale = useMemo(
    () =>
      scaleFor(
        limits,
        spread.flatMap((r) => (r.corrected === null ? [] : [r.corrected])),
      ),
    [limits, spread],
  );
  const meter = view.instruments.find((i) => i.id === instrumentId);
  const clamp = limits.quantity === 'current' ? (meter?.clamp_mVperA ?? null) : null;
  const zeroWanted = useMemo(
    () => clamp !== null || leadZeroMatters(limits, ohmsPerUnit(limits.unit)),
    [clamp, limits],
  );
  return { rows, order, readings, scale, clamp, zeroWanted };
}

/** Of alternatives only those that were read, or the one that the unit has. */
function withoutOthers(
  rows: BenchLayout['rows'],
  { definition, fitted }: RunView,
  { readings }: Judgement,
  showsAll: boolean,
): BenchLayout['rows'] {
  if (definition.alternatives === undefined || showsAll) return rows;
  const read = readings.filter((r) => r.verdict !== 'not-measured').map((r) => r.position);
  const shown = read.length ? read : fitted === null ? null : [fitted];
  return shown === null
    ? rows
    : rows
        .map((r) => ({ ...r, positions: r.positions.filter((p) => shown.includes(p)) }))
        .filter((r) => r.positions.length);
}

function ohmsPerUnit(symbol: string): number {
  const unit = findUnit(symbol);
  return unit ? toBase(unitValue(1), unit) : 1;
}

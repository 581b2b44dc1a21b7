import type { DiagnosticReading, Moment } from '../../core/diagnosis/types';
import { doubtedAt } from '../../core/judge/doubts';
import type { TestDefinition } from '../../core/catalogue/types';
import type { JudgedReading, Judgement, Limits } from '../../core/judge/types';
import { requireUnit, type ScaledUnit, spanToBase, toBase } from '../../core/quantity/units';
import { unitValue } from '../../core/quantity/values';

/** Readings of a run as evidence, as they were judged: lead zero and temperature are in them already. */
export function measuredOf(
  test: Pick<TestDefinition, 'id' | 'quantity'>,
  { limits, readings, doubts }: Pick<Judgement, 'readings' | 'doubts'> & { readonly limits: Pick<Limits, 'unit'> },
  more: Pick<DiagnosticReading, 'under' | 'at' | 'run'> = {},
): DiagnosticReading[] {
  const unit = requireUnit(limits.unit, test.quantity);
  if (!unit.ok) return [];
  return readings.flatMap((r) => {
    const doubt = doubtedAt(doubts, r.position)?.say;
    const plain = { test: test.id, position: r.position, ...(doubt === undefined ? {} : { doubt }), ...more };
    const once = measuredOnce(r, unit.value, plain);
    // Read again with the same result, it counts again: a slip hardly comes twice.
    return Array.from({ length: 1 + Math.min(MOST_AGAIN, r.agreed ?? 0) }, () => once).flat();
  });
}

function measuredOnce(
  r: JudgedReading,
  unit: ScaledUnit,
  plain: Pick<DiagnosticReading, 'test' | 'position' | 'doubt' | 'under' | 'at' | 'run'>,
): DiagnosticReading[] {
  if (r.verdict === 'open' || (r.value === null && r.verdict !== 'not-measured' && r.wander === null))
    return [{ ...plain, kind: 'overload', value: 0, u: 0 }];
  if (r.verdict === 'unsteady') {
    const ends = r.wander && {
      low: toBase(r.wander.low, unit),
      high: r.wander.high === null ? null : toBase(r.wander.high, unit),
    };
    return [{ ...plain, kind: 'unsteady', value: 0, u: 0, ...(ends ? { ends } : {}) }];
  }
  if (r.corrected === null) return [];
  const [value, u] = [toBase(r.corrected, unit), spanToBase(r.standardUncertainty ?? unitValue(0), unit)];
  return [{ ...plain, kind: 'value', ...(r.reasons.some(isUnzeroed) ? withoutLeads(value, u) : { value, u }) }];
}

/** Read more often than this again, a point says little more. */
const MOST_AGAIN = 2;

const isUnzeroed = ({ rule }: JudgedReading['reasons'][number]): boolean => rule === 'leads-not-zeroed';

/** Leads that nobody has zeroed add 0.2 to 0.5 ohm; even over that span. Common practice, no source. */
const LEADS = { middle_ohm: 0.35, u_ohm: 0.3 / Math.sqrt(12) } as const;
const withoutLeads = (ohms: number, u: number): { value: number; u: number } => ({
  value: Math.max(0, ohms - LEADS.middle_ohm),
  u: Math.hypot(u, LEADS.u_ohm),
});

/**
 * What is known of the moment of a run: a running engine is warm and works, a part that was near the cold air
 * is cold. Common practice, no source.
 */
export function momentsOfRun(engine: string, partTemperature_degC: number | undefined): Moment[] {
  const hot = partTemperature_degC === undefined ? engine === 'running' : partTemperature_degC >= 50;
  const cold = partTemperature_degC !== undefined && partTemperature_degC <= 25;
  return [
    ...(hot ? ['hot' as const] : []),
    ...(cold ? ['cold' as const] : []),
    ...(engine === 'running' ? ['load' as const] : []),
  ];
}

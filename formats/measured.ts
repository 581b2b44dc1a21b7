import type { Measured, Moment } from '../core/diagnosis/types';
import type { JudgedReading } from '../core/judge/types';
import { requireUnit, spanToBase, toBase } from '../core/quantity/units';

/** Readings of a run as evidence, as they were judged: lead zero and temperature are in them already. */
export function measuredOf(
  test: string,
  unitOfLimits: string,
  quantity: Parameters<typeof requireUnit>[1],
  readings: readonly JudgedReading[],
  under: readonly Moment[] = [],
  at?: string,
): Measured[] {
  const unit = requireUnit(unitOfLimits, quantity);
  if (!unit.ok) return [];
  return readings.flatMap((r): Measured[] => {
    const plain = {
      test,
      position: r.position,
      ...(under.length ? { under } : {}),
      ...(at === undefined ? {} : { at }),
    };
    if (r.verdict === 'open' || (r.value === null && r.verdict !== 'not-measured' && r.wander === null))
      return [{ ...plain, kind: 'overload', value: 0, u: 0 }];
    if (r.verdict === 'unsteady') return [{ ...plain, kind: 'unsteady', value: 0, u: 0 }];
    if (r.corrected === null) return [];
    return [
      {
        ...plain,
        kind: 'value',
        value: toBase(r.corrected, unit.value),
        u: spanToBase(r.standardUncertainty ?? 0, unit.value),
      },
    ];
  });
}

/** What is known of the moment of a run: a running engine is warm and works, a part that was near the cold air is cold. Common practice, no source. */
export function momentsOfRun(engine: string, partTemperature_degC: number | undefined): Moment[] {
  const hot = partTemperature_degC === undefined ? engine === 'running' : partTemperature_degC >= 50;
  const cold = partTemperature_degC !== undefined && partTemperature_degC <= 25;
  return [
    ...(hot ? ['hot' as const] : []),
    ...(cold ? ['cold' as const] : []),
    ...(engine === 'running' ? ['load' as const] : []),
  ];
}

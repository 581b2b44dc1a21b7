import type { RecordOf } from './proof';
import type { OneOrSetInputs } from './one-or-set';
import { fitWeibull, type Life, type Weibull } from './weibull';

/** What a workshop pays and takes for a part: its own data. Money in minor units, times in minutes. */
export interface Costs {
  readonly part: number;
  readonly access_min: number;
  readonly each_min: number;
  readonly labour: number;
  readonly breakage: number;
  readonly breakageCost: number;
  readonly comeback: number;
  readonly horizon_h: number;
  readonly shape: number;
  readonly scale_h: number;
  readonly currency: string;
}

/** Until the workshop enters its own: invented numbers of a plausible size. Common practice, no source. */
export const NO_COSTS: Costs = {
  part: 2500,
  access_min: 60,
  each_min: 10,
  labour: 8000,
  breakage: 0.03,
  breakageCost: 90000,
  comeback: 25000,
  horizon_h: 1500,
  shape: 2.2,
  scale_h: 6000,
  currency: 'EUR',
};

/** Lives as the workshop's decisions noted them: those that failed at that age, and those that held to it. */
export const livesOf = (decisions: readonly RecordOf<'decision'>[]): Life[] =>
  decisions.flatMap(({ body: { inputs: i } }) =>
    i.age_h > 0
      ? [
          ...Array.from({ length: i.failed }, () => ({ age_h: i.age_h, failed: true })),
          ...Array.from({ length: Math.max(0, i.positions - i.failed) }, () => ({ age_h: i.age_h, failed: false })),
        ]
      : [],
  );

export interface LifeFrom {
  readonly life: Weibull;
  readonly from: 'own history' | 'assumed';
  readonly failures: number;
}

/** The workshop's own history where it has enough, else what is assumed. */
export function lifeFrom(lives: readonly Life[], assumed: Weibull): LifeFrom {
  const fitted = fitWeibull(lives);
  return {
    life: fitted ?? assumed,
    from: fitted ? 'own history' : 'assumed',
    failures: lives.filter((l) => l.failed).length,
  };
}

/** Everything that the arithmetic asks for, to be looked at and changed. */
export const inputsFrom = (
  costs: Costs,
  life: Weibull,
  positions: number,
  failed: number,
  age_h: number,
): OneOrSetInputs => ({
  positions,
  failed: Math.min(failed, positions),
  part: costs.part,
  access_min: costs.access_min,
  each_min: costs.each_min,
  labour: costs.labour,
  age_h,
  horizon_h: costs.horizon_h,
  life,
  breakage: costs.breakage,
  breakageCost: costs.breakageCost,
  comeback: costs.comeback,
});

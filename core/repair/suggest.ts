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

/**
 * Until the workshop enters its own: no price and no time of work, which nobody can guess; only how such
 * parts wear and how far it is looked ahead. Common practice, no source.
 */
export const ASSUMED = { breakage: 0.03, horizon_h: 1500, shape: 2.2, scale_h: 6000 } as const;
/** Where a depot has not said what it reckons in. */
export const CURRENCY = 'EUR';

/** Lives as the workshop's decisions noted them: those that failed at that age, and those that held to it. */
export const livesOf = (decisions: readonly RecordOf<'decision'>[]): Life[] =>
  decisions.flatMap(({ body: { inputs: i } }) =>
    i !== null && i.age_h > 0
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

/** What the arithmetic begins with: `null` is not known, and asked. */
export type StartInputs = {
  readonly [K in keyof Omit<OneOrSetInputs, 'life' | 'positions' | 'failed'>]: OneOrSetInputs[K] | null;
} & Pick<OneOrSetInputs, 'life' | 'positions' | 'failed'>;

/** Everything that the arithmetic asks for, to be looked at and changed. `costs`: the workshop's own. */
export const inputsFrom = (
  costs: Costs | undefined,
  life: Weibull,
  positions: number,
  failed: number,
  age_h: number | null,
): StartInputs => ({
  positions,
  failed: Math.min(failed, positions),
  part: costs?.part ?? null,
  access_min: costs?.access_min ?? null,
  each_min: costs?.each_min ?? null,
  labour: costs?.labour ?? null,
  age_h,
  horizon_h: costs?.horizon_h ?? ASSUMED.horizon_h,
  life,
  breakage: costs?.breakage ?? ASSUMED.breakage,
  breakageCost: costs?.breakageCost ?? null,
  comeback: costs?.comeback ?? null,
});

/** Some of a set are bad and some are not: one or the whole set is a question. `cylinders`: of the engine. */
export const isChoiceOfSet = (
  f: { readonly kind: string; readonly what?: string; readonly positions?: readonly unknown[] },
  cylinders: number,
): boolean =>
  f.kind === 'found' &&
  f.what === 'part' &&
  (f.positions ?? []).some((p) => typeof p === 'number') &&
  (f.positions ?? []).length < cylinders;

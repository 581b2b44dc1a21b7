import { groupBy } from '../foundation/collections';
import { commonSpread, readingLikelihood, sharingOf } from './likelihood';
import type { DiagnosisInputs, Hypothesis, Member } from './types';
import type { Usable, Weighing } from './weigh';

/**
 * What parts of a set have in common (their type, the leads), from much less to much more than usual, in
 * standard deviations.
 */
const IN_COMMON = [-2, -1.4, -0.8, -0.3, 0, 0.3, 0.8, 1.4, 2] as const;
/** Parts of a set have one age: among bad ones one more is so much likelier than it is by itself. */
const AMONG_BAD = 6;

interface AtPlace {
  readonly position: number;
  readonly readings: Usable['measured'];
}

/**
 * Sets of faults read off place by place. In ohms and in amperes a place of a set tells of itself alone; what
 * the whole set has in common is tried from little to much, and under each the likeliest state of every place
 * is taken. Which members of a set are good shows only together: where most are bad, none of them looks bad
 * beside the others.
 */
export function setsPlaceByPlace(inputs: DiagnosisInputs, singles: Weighing, { measured }: Usable): Member[][] {
  const { predictions: p, hypotheses } = singles;
  const own = measured.filter(
    (x) => p.instances[x.instance]?.mode !== 'voltage' && typeof p.instances[x.instance]?.position === 'number',
  );
  const places = [...groupBy(own, (x) => Number(p.instances[x.instance]?.position))].map(
    ([position, readings]): AtPlace => ({ position, readings }),
  );
  if (places.length < 3) return [];
  const at = groupBy(
    hypotheses.flatMap((h, i) => (h.members.length === 1 && h.members[0]?.position != null ? [i] : [])),
    (i) => hypotheses[i]?.members[0]?.position ?? 0,
  );
  const total = hypotheses.reduce((s, h) => s + h.weight, 0);
  const spreads = new Map(
    [...groupBy(own, (x) => sharingOf(p.instances[x.instance]?.mode ?? 'voltage', x.m.test))].map(([test, all]) => [
      test,
      commonSpread(p, all[0]?.instance ?? 0),
    ]),
  );
  const score = (h: number, place: AtPlace, z: number): number =>
    place.readings.reduce((sum, { m, instance }) => {
      const c = spreads.get(m.test) ?? 0;
      // A set of a type with more ohms takes fewer amperes.
      const common = (p.instances[instance]?.mode === 'current' ? -z : z) * c;
      return sum + Math.log(Math.max(1e-30, readingLikelihood(p, h, instance, m, 0, common, inputs.shows)));
    }, 0);
  return IN_COMMON.map((z) =>
    places.flatMap((place): Member[] => {
      let [best, most]: [Hypothesis | null, number] = [null, score(0, place, z)];
      for (const h of at.get(place.position) ?? []) {
        const x = hypotheses[h];
        const worth = Math.log(Math.max(1e-300, (AMONG_BAD * (x?.weight ?? 0)) / total)) + score(h, place, z);
        if (x && worth > most) [best, most] = [x, worth];
      }
      return best?.members[0] ? [best.members[0]] : [];
    }),
  ).filter((set) => set.length > 1);
}

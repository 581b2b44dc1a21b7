import { tr } from '../locale/translate';
import { cell, floatAt } from '../numerics/cell';
import { calledOf, decisionOf } from './hypotheses';
import type { Suspect, WeighedEvidence } from './types';
import type { Seen, Weighing } from './weigh';

/** Of everything that could be changed or mended: the share that it is to be. */
export function decisionShares(r: Weighing): number[] {
  const shares = new Map<string, number>();
  for (const [i, h] of r.hypotheses.entries())
    for (const d of new Set(h.members.map(decisionOf))) shares.set(d, (shares.get(d) ?? 0) + floatAt(r.posterior, i));
  return [...shares.values()];
}

/** One suspect per element, position and kind of fault: sizes and pairs that contain it add up. */
export function suspectsOf(r: Weighing): Suspect[] {
  const shares = new Map<string, { probability: number; of: number[] }>();
  for (const [i, h] of r.hypotheses.entries())
    for (const m of h.members) {
      const own = shares.get(m.key) ?? { probability: 0, of: [] };
      own.probability += floatAt(r.posterior, i);
      own.of.push(i);
      shares.set(m.key, own);
    }
  return [...shares]
    .filter(([, s]) => s.probability >= SHOWN)
    .sort((a, b) => b[1].probability - a[1].probability || (a[0] < b[0] ? -1 : 1))
    .map(([key, { probability, of }]) => {
      const member = r.hypotheses[cell(of, 0)]?.members.find((m) => m.key === key);
      if (!member) throw new Error(`no hypothesis for ${key}`);
      const own = new Uint8Array(r.posterior.length);
      for (const h of of) own[h] = 1;
      const saysOf = new Map<Seen, Weight>();
      const weighed = r.evidence.map(({ label, ref, point, seen }) => {
        const weight = saysOf.get(seen) ?? weighOne(seen, r, own);
        saysOf.set(seen, weight);
        return { label, ref, point, ...weight };
      });
      return {
        key,
        element: member.element,
        position: member.position,
        fault: member.fault,
        words: tr`${calledOf(member)} ${member.words}`,
        is: member.is,
        name: member.name,
        ...(member.isListed === false ? { isListed: false, stretch: member.stretch ?? [member.element] } : {}),
        ...(member.called === undefined ? {} : { called: member.called }),
        probability,
        contradictsGood: contradictsGood(r, of),
        supports: weighed.filter((w) => w.nats >= NOTABLE),
        contradicts: weighed.filter((w) => w.nats <= -NOTABLE),
      };
    });
}
/**
 * Whether any evidence is clearly likelier with the suspect, in its likeliest size, than with nothing wrong.
 */
function contradictsGood({ evidence, posterior }: Weighing, of: readonly number[]): boolean {
  const best = of.reduce((a, b) => (floatAt(posterior, b) > floatAt(posterior, a) ? b : a), cell(of, 0));
  return evidence.some(({ seen: { log } }) => floatAt(log, best) - floatAt(log, 0) >= CLEARLY);
}
const CLEARLY = 2;
const SHOWN = 0.005;
const NOTABLE = 0.7;
type Weight = Pick<WeighedEvidence, 'nats' | 'strength'>;

/**
 * How much likelier one piece of evidence is if the suspect is true, in the size that fits all of it, than if
 * it is any of the others as they stood before.
 */
function weighOne({ likelihood }: Seen, { prior, posterior }: Weighing, of: Uint8Array): Weight {
  let [inside, insideWeight, outside, outsideWeight] = [0, 0, 0, 0];
  for (let h = 0; h < posterior.length; h++) {
    const isIn = of[h] === 1;
    const w = isIn ? floatAt(posterior, h) : floatAt(prior, h);
    if (isIn) {
      inside += w * floatAt(likelihood, h);
      insideWeight += w;
    } else {
      outside += w * floatAt(likelihood, h);
      outsideWeight += w;
    }
  }
  const nats =
    insideWeight > 0 && outsideWeight > 0
      ? Math.log(inside / insideWeight) - Math.log(Math.max(1e-30, outside / outsideWeight))
      : 0;
  const size = Math.abs(nats);
  return { nats, strength: size >= 4 ? 'strongly' : size >= 2 ? 'clearly' : 'slightly' };
}

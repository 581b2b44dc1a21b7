import { floatAt } from '../numerics/cell';
import type { Wiring } from '../circuits/expand';
import { nextTests } from './next';
import { joinAnd } from '../quantity/print';
import { calledOf, OUTSIDE, singleHypotheses } from './hypotheses';
import { predictAll } from './predict';
import type { Predictions } from './predictions';
import { KeptSets, severalAtOnce } from './multiple-faults';
import { decisionShares, suspectsOf } from './suspects';
import type { Diagnosis, DiagnosisInputs, Suspect } from './types';
import { usable, weigh } from './weigh';

/** What the predictions of a circuit cost is spent once; evidence is then only weighed. */
export interface Prepared {
  readonly predictions: Predictions;
  readonly sets: KeptSets;
}

export function prepare(inputs: Wiring & Pick<DiagnosisInputs, 'circuit'>): Prepared {
  return {
    predictions: predictAll(inputs.circuit, inputs, [OUTSIDE, ...singleHypotheses(inputs.circuit, inputs)]),
    sets: new KeptSets(),
  };
}

/** Weighs all evidence against all suspects. The same evidence gives the same answer, whatever its order. */
export function diagnose(inputs: DiagnosisInputs, prepared: Prepared = prepare(inputs)): Diagnosis {
  const notes: string[] = [];
  const evidence = usable(inputs, prepared.predictions, notes);
  const singles = weigh(inputs, prepared.predictions, evidence);
  const sets = severalAtOnce(inputs, evidence, singles, prepared.sets);
  const all = sets === null ? singles : weigh(inputs, sets, evidence);
  if (all.best < SURPRISE && evidence.measured.length + evidence.observed.length > 1)
    notes.push(
      'Nothing in this circuit explains all of it well: look at the readings again, or for a cause outside the circuit.',
    );
  const suspects = suspectsOf(all);
  const unexplained = all.hypotheses.reduce(
    (sum, h, i) => (h.members.length === 0 ? sum + floatAt(all.posterior, i) : sum),
    0,
  );
  const next = nextTests(all.predictions, all.posterior, evidence.measured, inputs.warm ?? false);
  const shares = decisionShares(all);
  const isOpen = shares.some((s) => s > OPEN && s < DECIDED);
  const decided = !isOpen && (Math.max(0, ...shares) >= DECIDED || unexplained >= DECIDED);
  if (!decided && next.length === 0) notes.push(leftWords(suspects));
  return { suspects, unexplained, next, decided, notes };
}

/** What no further test of the circuit would tell apart. */
function leftWords(suspects: readonly Suspect[]): string {
  const left = [...new Set(suspects.filter((s) => s.probability > OPEN).map(calledOf))];
  return left.length > 1
    ? `No further test of this circuit tells apart what is left: ${joinAnd(left)}.`
    : 'No further test of this circuit would make this surer.';
}

const DECIDED = 0.97;
/** A suspect above this is not acquitted yet. */
const OPEN = 0.2;
/** Mean likelihood per piece of evidence, in nats, below which even the best suspect fits badly. */
const SURPRISE = -4.5;

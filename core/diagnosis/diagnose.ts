import { tr } from '../locale/translate';
import { floatAt } from '../numerics/cell';
import type { Wiring } from '../circuits/expand';
import { findTest } from '../catalogue/catalogue';
import { type Setting, settingAfter } from './cost';
import { heldBack } from './hold-back';
import { nextTests } from './next';
import { joinAnd } from '../quantity/print';
import { calledOf, OUTSIDE, singleHypotheses } from './hypotheses';
import { CircuitPredictor } from './predict';
import type { Predictions } from './predictions';
import { KeptSets, severalAtOnce } from './multiple-faults';
import { decisionShares, suspectsOf } from './suspects';
import type { Diagnosis, DiagnosisInputs, Suspect } from './types';
import { unlistedHypotheses } from './unlisted';
import { type Usable, usable, weigh } from './weigh';

/** What the predictions of a circuit cost is spent once; evidence is then only weighed. */
export interface Prepared {
  readonly predictions: Predictions;
  readonly sets: KeptSets;
}

export function prepare(inputs: Wiring & Pick<DiagnosisInputs, 'circuit'>): Prepared {
  const predictor = new CircuitPredictor(inputs.circuit, inputs);
  return {
    predictions: predictor.predict([
      OUTSIDE,
      ...singleHypotheses(inputs.circuit, inputs),
      ...unlistedHypotheses(inputs.circuit, inputs),
    ]),
    sets: new KeptSets(predictor),
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
  const suspects = suspectsOf(all).map((s) => (isInUnit(inputs, s) ? { ...s, isUnit: true } : s));
  const unexplained = all.hypotheses.reduce(
    (sum, h, i) => (h.members.length === 0 ? sum + floatAt(all.posterior, i) : sum),
    0,
  );
  const byInformation = nextTests(all.predictions, all.posterior, evidence.measured, inputs.warm ?? false);
  const shares = decisionShares(all);
  const isOpen = shares.some((s) => s > OPEN && s < DECIDED);
  const leads = !isOpen && (Math.max(0, ...shares) >= decidedFrom(inputs, suspects[0]) || unexplained >= DECIDED);
  const hold = heldBack(all, settingOf(evidence, inputs.warm ?? false), DECIDED, byInformation.length === 0);
  const first = hold?.next ?? [];
  const next = [
    ...first,
    ...byInformation.filter((n) => !first.some((f) => f.test === n.test && f.position === n.position)),
  ];
  const decided = leads && hold === null;
  if (!decided && next.length === 0) notes.push(leftWords(suspects));
  if (hold) notes.push(hold.why);
  const notListed = all.hypotheses.reduce(
    (sum, h, i) => (h.members.some((m) => m.isListed === false) ? sum + floatAt(all.posterior, i) : sum),
    0,
  );
  return {
    suspects,
    unexplained,
    notListed,
    next,
    decided,
    ...(hold ? { heldBack: hold.why } : {}),
    ...(hold?.isDoubted ? { isDoubted: true } : {}),
    notes,
  };
}

/** From which share a suspect is decided: the dearer a wrong part, the surer it has to be. */
function decidedFrom(inputs: DiagnosisInputs, leading: Suspect | undefined): number {
  if (!leading) return DECIDED;
  if (leading.isUnit) return DECIDED_OF.unit;
  return leading.is === 'part' && symbolOf(inputs, leading) === 'coil' ? DECIDED_OF.coil : DECIDED;
}

/** Controllers, modules and their inputs: what is inside of them nobody mends, and they are dear. */
function isInUnit(inputs: DiagnosisInputs, s: Pick<Suspect, 'is' | 'element' | 'position'>): boolean {
  const symbol = symbolOf(inputs, s);
  return s.is === 'input' || symbol === 'module' || symbol === 'input';
}

function symbolOf({ circuit }: DiagnosisInputs, s: Pick<Suspect, 'element' | 'position'>): string | undefined {
  return [...circuit.elements, ...circuit.perCylinder].find(
    (e) => e.id.replace('{}', String(s.position ?? '')) === s.element,
  )?.symbol;
}

const settingOf = ({ measured }: Usable, warm: boolean): Setting =>
  settingAfter(
    [...new Set(measured.map((x) => x.m.test))].flatMap((id) => findTest(id) ?? []),
    warm,
  );

/** What no further test of the circuit would tell apart. */
function leftWords(suspects: readonly Suspect[]): string {
  const left = [...new Set(suspects.filter((s) => s.probability > OPEN).map(calledOf))];
  return left.length > 1
    ? tr`No further test of this circuit tells apart what is left: ${joinAnd(left)}.`
    : 'No further test of this circuit would make this surer.';
}

const DECIDED = 0.97;
/**
 * Of what costs more than a plug or a wire: injectors and actuators, control units. Common practice, no
 * source.
 */
const DECIDED_OF = { coil: 0.98, unit: 0.99 } as const;
/** A suspect above this is not acquitted yet. */
const OPEN = 0.2;
/** Mean likelihood per piece of evidence, in nats, below which even the best suspect fits badly. */
const SURPRISE = -4.5;

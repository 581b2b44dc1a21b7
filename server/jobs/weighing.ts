import {
  type Case,
  type CaseContext,
  circuitsInQuestion,
  contextOf,
  type InQuestion,
  PredictionCache,
  type WeighedCircuit,
  weighOne,
} from '../../core/diagnosis/case';
import { currentReader, type Reader } from '../../core/locale/locale';

/** One circuit to be weighed, for whoever reads the answer. Plain data: it travels to a thread. */
export interface WeighingQuestion {
  readonly asked: InQuestion;
  readonly context: CaseContext;
  readonly reader: Reader;
}

/**
 * Of a web server: web/weighing.mjs sets it. Elsewhere, as on a device, which is a thread itself, it is not
 * there.
 */
const shared = globalThis as { mudflatWeigh?: (question: WeighingQuestion) => Promise<WeighedCircuit> };

/** Predictions of circuits, kept for all jobs where there is no thread that keeps them. */
const PREDICTIONS = new PredictionCache();

/**
 * Weighs a job's evidence in every circuit in question: in a thread beside what answers, where there is one.
 * A circuit takes up to a second, and meanwhile readings of others are stored.
 */
export function weighBeside(c: Case): Promise<WeighedCircuit[]> {
  const [context, reader] = [contextOf(c), currentReader()];
  return Promise.all(circuitsInQuestion(c).map((asked) => answer({ asked, context, reader })));
}

async function answer(question: WeighingQuestion): Promise<WeighedCircuit> {
  if (shared.mudflatWeigh) return shared.mudflatWeigh(question);
  return weighOne(question.asked, question.context, PREDICTIONS);
}

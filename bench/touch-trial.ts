import { touchRules } from '../core/instrument/rules';
import { startTouch, type TouchRules, touchStep } from '../core/instrument/touch';
import { seededRandom } from '../core/numerics/random';
import { simulateTouch, type TouchSettings } from '../core/simulate/touches';

export interface TouchTrial {
  readonly touches: number;
  readonly captured: number;
  readonly wrong: number;
  /** Kept on for longer than it takes to settle and to stand, and nothing was taken. */
  readonly missed: number;
  /** Contact to capture beyond 1.2 times the settling, seconds. */
  readonly over_s: number[];
}

/** Touches of any meter and hand: how often what is taken is not what the display comes to rest at. */
export function touchTrial(touches: number, seed: number): TouchTrial {
  const random = seededRandom(seed);
  let [captured, wrong, missed] = [0, 0, 0];
  const over_s: number[] = [];
  for (let n = 0; n < touches; n++) {
    const s = settingsFrom(random);
    const touch = simulateTouch(s);
    // As a card of the meter has it: 0.8 % of the reading and three counts.
    const accuracy = (v: number): number => 0.008 * Math.abs(v) + 3 * s.step;
    const rules = rulesOf(s.step);
    let state = startTouch(0);
    let taken: { t: number; v: number } | null = null;
    for (const [t, v] of touch.shown) {
      if (t > touch.lifted_s) break;
      const result = touchStep(state, t, v, rules);
      state = result.state;
      for (const e of result.events) if (e.kind === 'settled' && !taken) taken = { t, v: e.value };
    }
    if (!taken) {
      missed++;
      continue;
    }
    captured++;
    if (Math.abs(taken.v - touch.atRest(taken.t)) > accuracy(s.value)) wrong++;
    over_s.push(taken.t - touch.contact_s - 1.2 * (touch.settled_s - touch.contact_s));
  }
  return { touches, captured, wrong, missed, over_s };
}

function settingsFrom(random: () => number): TouchSettings {
  const value = 10 ** (-0.5 + 4.5 * random());
  const settling_s = 0.2 + 2.8 * random() ** 2;
  const slips = random() < 0.1;
  return {
    value,
    step: 10 ** (Math.floor(Math.log10(value)) - (random() < 0.5 ? 2 : 3)),
    rate_Hz: [3, 5, 10, 20][Math.floor(4 * random())] ?? 5,
    settling_s,
    noise_counts: 0.5 * random(),
    drift_counts: random() < 0.2 ? 2 * (random() - 0.5) : 0,
    bounces: Math.floor(4 * random()),
    slip_s: slips ? 0.2 + 0.8 * random() : 0,
    stays_s: 1.2 * settling_s + 2.5 + 2 * random(),
    random,
  };
}

/** The rules that the bench makes from the card of such a meter. */
const rulesOf = (step: number): TouchRules =>
  touchRules({
    quantity: 'resistance',
    accuracy: [{ quantity: 'resistance', upTo: 1e9, percentOfReading: 0.8, counts: 3, resolution: step }],
    leadZero_ohm: null,
    lower: null,
    upper: null,
    isLeadZero: false,
  });

import { CIRCUITS } from '../circuits/library';
import { singleHypotheses } from './hypotheses';
import { CircuitPredictor } from './predict';
import type { Hypothesis, Member } from './types';
import { unlistedHypotheses } from './unlisted';

// One fault by the response of its element, against the same network solved anew: a second fault of no size
// makes the predictor solve it.

const WIRING = { cylinders: 2, systemVoltage_V: 12 };

/** The same faults, each beside one that changes nothing. */
const beside = (all: readonly Hypothesis[], nothing: Member): Hypothesis[] =>
  all.map((h) => ({ ...h, members: [...h.members, nothing] }));

test.each(CIRCUITS.map((c) => [c.id, c] as const))(
  '%s: a single fault predicts what the network solved anew does',
  (_, c) => {
    const singles = [...singleHypotheses(c, WIRING), ...unlistedHypotheses(c, WIRING)];
    const predictor = new CircuitPredictor(c, WIRING);
    const [first] = singles.flatMap((h) => h.members.filter((m) => m.fault === 'series'));
    if (!first) throw new Error('no fault in series');
    const fast = predictor.predict(singles);
    const slow = predictor.predict(beside(singles, { ...first, ohms: 0 }));
    let most = 0;
    for (let k = 0; k < fast.mean.length; k++) {
      const [a, b] = [fast.mean[k] ?? NaN, slow.mean[k] ?? NaN];
      if (a === b) continue;
      most = Math.max(most, Math.abs(a - b) / (1 + Math.abs(b)), Math.abs((fast.sd[k] ?? NaN) - (slow.sd[k] ?? NaN)));
    }
    expect(most).toBeLessThan(1e-3);
    // What is compared is not always the healthy circuit.
    expect(new Set(fast.mean).size).toBeGreaterThan(fast.instances.length);
  },
);

import { judgeShipped } from '../core/judge/shipped';
import type { TestSet } from '../core/judge/types';
import { report } from './measure';

const ENTRIES = ['0.6', '0.7', '201', 'OL', '0.5~1.4', '4k5', '1.2', '0.8', '>20M', '0.65', '0,7', '0.6'];

const SET: TestSet = {
  test: 'glow-plug-resistance',
  engine: { layout: 'vee', cylinders: 12, numbering: { scheme: 'odd-even' } },
  condition: { connection: 'at-part' },
  instrument: {
    kind: 'multimeter',
    leadZero_ohm: 0.2,
    leadZeroResolution_ohm: 0.1,
    accuracy: [{ quantity: 'resistance', upTo: 200, percentOfReading: 0.8, counts: 3, resolution: 0.1 }],
  },
  limits: {
    quantity: 'resistance',
    unit: 'ohm',
    lower: 0.3,
    upper: 1,
    watchUpper: 0.9,
    shortBelow: 0.05,
    openAbove: 1e4,
    neighbours: { maxRatio: 2 },
  },
  readings: ENTRIES.map((entry, i) => ({ position: i + 1, entry })),
};
const ROUNDS = 5;
const SETS = 2000;

/** Judgements of a 12-cylinder set per second on one core: the best of five rounds. */
export function benchJudging(): void {
  let best = Infinity;
  for (let round = 0; round < ROUNDS; round++) {
    const start = performance.now();
    for (let i = 0; i < SETS; i++) judgeShipped(SET);
    best = Math.min(best, performance.now() - start);
  }
  report('judgements of a 12-cylinder set', (SETS * 1000) / best, 'per s', null);
}

import { CATALOGUE } from '../core/catalogue/catalogue';
import { positionsOf } from '../core/catalogue/positions';
import { indexFindable, searchWords } from '../core/catalogue/search';
import type { TestDefinition } from '../core/catalogue/types';
import type { Engine } from '../core/engine/layout';
import { judgeShipped } from '../core/judge/shipped';
import type { TestSet } from '../core/judge/types';
import { arrangeSpecifications, chooseSpecification } from '../core/specifications/choose';
import type { Situation, Specification } from '../core/specifications/types';
import { report } from './measure';

const V8: Engine = { layout: 'vee', cylinders: 8, numbering: { scheme: 'odd-even' }, systemVoltage_V: 12 };
const ROUNDS = 5;
const FRAME_MS = 1000 / 60;

/** Seconds that `work` takes, the best of some rounds. */
function best(work: () => void): number {
  let least = Infinity;
  for (let round = 0; round < ROUNDS; round++) {
    const start = performance.now();
    work();
    least = Math.min(least, performance.now() - start);
  }
  return least / 1000;
}

const ENTRIES: Readonly<Record<string, readonly string[]>> = {
  resistance: ['0.6', '0.7', '201', 'OL', '0.5~1.4', '4k5', '1.2', '>20M'],
  voltage: ['12.4', '0.02', '4.98', '45.6', '4.6~5.0'],
  observation: ['pass', 'fail no click'],
  time: ['4', 'OL'],
};

/**
 * One set for each test of the catalogue that has a default rule, with as many readings as it has positions
 * on an eight-cylinder engine.
 */
function mixedSets(): TestSet[] {
  return CATALOGUE.flatMap((t) => {
    const limits = t.rules[0]?.limits;
    const entries = ENTRIES[t.quantity] ?? ['1.0', '12', '0.4'];
    return limits && !limits.transfer
      ? [
          {
            test: t.id,
            definition: t,
            engine: V8,
            condition: {},
            limits,
            instrument: {
              kind: 'multimeter',
              leadZero_ohm: 0.2,
              leadZeroResolution_ohm: 0.1,
              accuracy: [{ quantity: t.quantity, upTo: 1e9, percentOfReading: 0.8, counts: 3, resolution: 0.01 }],
            },
            readings: positionsOf(t, V8).map((position, i) => ({
              position,
              entry: entries[i % entries.length] ?? '1',
            })),
          },
        ]
      : [];
  });
}

export function benchMixed(): void {
  const sets = mixedSets();
  const seconds = best(() => {
    for (let i = 0; i < 4000; i++) judgeShipped(sets[i % sets.length] as TestSet);
  });
  report(
    `judgements of mixed sets (${(sets.reduce((n, s) => n + s.readings.length, 0) / sets.length).toFixed(1)} readings each)`,
    4000 / seconds,
    'per s',
    10_000,
    false,
  );
}

/** A shelf of 20,000 limits for 500 tests, and a catalogue of as many. */
export function benchShelf(): void {
  const tests = Array.from({ length: 500 }, (_, i): TestDefinition => ({
    ...(CATALOGUE[i % CATALOGUE.length] as TestDefinition),
    id: `test-${i}`,
    name: `${CATALOGUE[i % CATALOGUE.length]?.name ?? ''} ${i}`,
  }));
  const scopes = ['general', 'depot', 'family', 'part'] as const;
  const specifications = Array.from({ length: 20_000 }, (_, i): Specification => {
    const scope = scopes[i % 4] ?? 'general';
    return {
      id: `s${i}`,
      series: `s${i}`,
      revision: 1,
      test: `test-${i % 500}`,
      scope,
      of: scope === 'general' ? null : `o${(i >> 2) % 10}`,
      when: i % 3 ? { systemVoltage_V: i % 2 ? 12 : 24 } : {},
      school: null,
      limits: { quantity: 'voltage', unit: 'V', upper: i },
      source: 'x',
      status: 'approved',
    };
  });
  const shelf = arrangeSpecifications(specifications);
  const at = (i: number): Situation => ({
    test: `test-${i % 500}`,
    part: `o${i % 10}`,
    family: `o${i % 7}`,
    depot: 'o1',
    school: null,
    systemVoltage_V: 12,
  });
  report(
    'choosing among 20,000 limits',
    (best(() => {
      for (let i = 0; i < 5000; i++) chooseSpecification(shelf, at(i));
    }) /
      5000) *
      1000,
    'ms',
    1,
  );
  report(
    'arranging a shelf of 20,000 limits',
    best(() => void arrangeSpecifications(specifications)) * 1000,
    'ms',
    null,
  );
  const find = indexFindable(tests.map((t) => ({ name: t.name, words: searchWords(t) })));
  const queries = ['g', 'gl', 'glo', 'glow', 'glow c', 'glow cu', 'clamp', 'raised idle', 'pin 2', 'zzz'];
  report(
    'search in 500 tests, per keystroke',
    (best(() => {
      for (const q of queries) find(q);
    }) /
      queries.length) *
      1000,
    'ms',
    FRAME_MS,
  );
}

import { CATALOGUE } from '../core/catalogue/catalogue';
import { checkLimits } from '../core/judge/limits';
import { judgeSet } from '../core/judge/set';
import type { Limits } from '../core/judge/types';
import { FAMILIES, SPECIFICATIONS } from './fleet';
import { BY_SYSTEM, GENERAL } from './rules-of-thumb';

/** The limits that would judge a test on a family. */
function limitsFor(test: string, family: string): Limits | undefined {
  const own = SPECIFICATIONS.find((s) => s.test === test && s.family === family) ?? SPECIFICATIONS.find((s) => s.test === test && s.family === null);
  return own?.limits ?? GENERAL[test] ?? BY_SYSTEM[FAMILIES[family]?.systemVoltage_V === 24 ? 24 : 12][test];
}
const verdict = (limits: Limits, entry: string) => {
  const judged = judgeSet({ test: 'x', engine: null, condition: {}, instrument: null, limits, readings: [{ position: 'here', entry }] });
  if (!judged.ok) throw new Error(JSON.stringify(judged.error));
  return judged.value.readings[0]?.verdict;
};

describe.each(Object.keys(FAMILIES))('on %s', (family) => {
  test.each(CATALOGUE.map((t) => [t.id, t] as const))('%s has limits that can be used', (id, t) => {
    const limits = limitsFor(id, family);
    expect(limits?.quantity).toBe(t.quantity);
    expect(checkLimits(limits as Limits)).toEqual([]);
  });
});

/** Common practice, no source. */
test.each<[string, string, string]>([
  ['injector-module-supply', '48.2', 'within'], ['injector-module-supply', '45.5', 'watch'], ['injector-module-supply', '44.9', 'low'],
  ['sensor-reference', '5.02', 'within'], ['sensor-reference', '4.80', 'watch'], ['sensor-reference', '3.1', 'low'], ['sensor-reference', '4.6~5.0', 'unsteady'],
  ['sensor-ground', '0.02', 'within'], ['sensor-ground', '0.07', 'watch'], ['sensor-ground', '0.9', 'high'],
  ['injector-insulation', 'OL', 'within'], ['injector-insulation', '12', 'short'], ['injector-insulation', '40k', 'low'],
  ['position-sensor-primary', '110', 'within'], ['position-sensor-primary', '90~140', 'unsteady'], ['position-sensor-secondary', '1k2', 'within'],
  ['vane-actuator-coil', '4.1', 'within'], ['vane-actuator-coil', 'OL', 'open'], ['low-side-driver', '97.8k', 'recheck'], ['low-side-driver', '3', 'short'],
  ['glow-plug-through-harness', '201', 'high'], ['harness-ring-out', '0.4', 'within'], ['harness-ring-out', '0.3~OL', 'unsteady'],
])('%s of %s is %s', (test, entry, expected) => expect(verdict(GENERAL[test] as Limits, entry)).toBe(expected));
test.each<[12 | 24, string, string]>([[12, '12.7', 'within'], [12, '12.5', 'watch'], [12, '11.9', 'low'], [24, '25.4', 'within'], [24, '12.7', 'low']])('a %i V battery at %s is %s', (system, entry, expected) => {
  expect(verdict(BY_SYSTEM[system]['battery-at-rest'] as Limits, entry)).toBe(expected);
});

import { findTest } from '../catalogue/catalogue';
import { positionsOf } from '../catalogue/positions';
import type { TestDefinition } from '../catalogue/types';
import type { Engine } from '../engine/layout';
import { judgeShipped } from './shipped';

const L4: Engine = { layout: 'inline', cylinders: 4 };
const get = (id: string): TestDefinition => findTest(id)!;

const judge = (id: string, entry: string, position: string | number = positionsOf(get(id), L4)[0]!, volts?: number) => {
  const limits = get(id).rules.find((r) => r.when?.systemVoltage_V === volts)!.limits;
  const judged = judgeShipped({
    test: id,
    engine: L4,
    condition: {},
    instrument: null,
    limits,
    readings: [{ position, entry }],
  });
  if (!judged.ok) throw new Error(JSON.stringify(judged.error));
  return judged.value.readings.find((r) => r.position === position)?.verdict;
};

/** Common practice, no source. */
test.each<[string, string, string, (string | number)?, number?]>([
  ['injector-module-supply', '48.2', 'within'],
  ['injector-module-supply', '45.5', 'watch'],
  ['injector-module-supply', '44.9', 'low'],
  ['sensor-reference', '5.02', 'within'],
  ['sensor-reference', '4.80', 'watch'],
  ['sensor-reference', '3.1', 'low'],
  ['sensor-reference', '4.6~5.0', 'unsteady'],
  ['sensor-ground', '0.02', 'within'],
  ['sensor-ground', '0.07', 'watch'],
  ['sensor-ground', '0.9', 'high'],
  ['injector-insulation', 'OL', 'within'],
  ['injector-insulation', '12', 'short'],
  ['injector-insulation', '40k', 'low'],
  ['position-sensor-primary', '110', 'within'],
  ['position-sensor-primary', '90~140', 'unsteady'],
  ['position-sensor-secondary', '1k2', 'within'],
  ['vane-actuator-coil', '4.1', 'within'],
  ['vane-actuator-coil', 'OL', 'open'],
  ['low-side-driver', '97.8k', 'recheck'],
  ['low-side-driver', '3', 'short'],
  ['glow-plug-through-harness', '201', 'high'],
  ['harness-ring-out', '0.4', 'within'],
  ['harness-ring-out', '0.3~OL', 'unsteady'],
  ['injector-resistance-piezo', '180k', 'within'],
  ['injector-resistance-piezo', '3.2k', 'short'],
  ['battery-at-rest', '12.7', 'within', 'battery', 12],
  ['battery-at-rest', '12.5', 'watch', 'battery', 12],
  ['battery-at-rest', '25.4', 'within', 'battery', 24],
  ['battery-at-rest', '12.7', 'low', 'battery', 24],
  ['battery-cranking', '9.9', 'watch', 'cranking', 12],
  ['battery-cranking', '8.1', 'low', 'cranking', 12],
  ['battery-cranking', '9.9', 'low', 'at rest', 12],
  ['sensor-unplugged', '0.02', 'within', 'pull-down input'],
  ['sensor-unplugged', '5.0', 'within', 'pull-up input'],
  ['sensor-unplugged', '2.5', 'high', 'pull-down input'],
  ['sensor-bypass', '4.98', 'within', 'reference to signal'],
  ['sensor-meter-scan', '0.30', 'high'],
  ['position-signal-noise', '0.7', 'watch'],
  ['airflow-peak', '4.3', 'low'],
  ['supply-pressure', '25', 'within', 'cranking'],
  ['supply-pressure', '150', 'within', 'running'],
  ['supply-build-time', '4.5', 'watch'],
  ['supply-build-time', 'OL', 'high'],
  ['hall-supply', '0.1', 'within', 'signal at the tooth'],
  ['voltage-drop', '0.25', 'watch', 'ground'],
  ['actuator-position', '38', 'low', '50 %'],
])('%s of %s is %s', (id, entry, expected, ...[position, volts]) =>
  expect(judge(id, entry, position, volts)).toBe(expected),
);

import type { Limits } from '../core/limits/types';
import { checkLimits } from '../core/limits/check';
import type { Result } from '../core/foundation/result';
import { judgeDocument, judgeText } from './judging/judge-document';
import { solveText } from './circuits/solve-document';
import { diagnoseText } from './diagnosis/diagnose-document';

/**
 * No number that is none comes in, and none goes out: every number of a document in turn is replaced by what
 * a file or a program could hold in its place.
 */
const ENGINE = { layout: 'inline', cylinders: 4, firingOrder: [1, 3, 4, 2], systemVoltage_V: 12 } as const;
const SENSOR: Limits = {
  quantity: 'voltage',
  unit: 'V',
  transfer: {
    kind: 'table',
    stimulus: { quantity: 'pressure', unit: 'kPa' },
    points: [
      [0, 0.5],
      [200, 2.5],
      [400, 4.5],
    ],
  },
  tolerance: { absolute: 0.1, percentOfExpected: 1, stimulus: 2 },
};
const SETS: Readonly<Record<string, object>> = {
  plugs: {
    format: 'mudflat/test-set',
    version: 1,
    test: 'glow-plug-resistance',
    engine: ENGINE,
    condition: { partTemperature_degC: 15 },
    instrument: {
      kind: 'multimeter',
      leadZero: '0.2',
      leadRepeatability_ohm: 0.05,
      accuracy: [{ quantity: 'resistance', upTo: 200, percentOfReading: 0.8, counts: 3, resolution: 0.1 }],
    },
    limits: {
      quantity: 'resistance',
      unit: 'ohm',
      lower: 0.3,
      upper: 1,
      watchUpper: 0.9,
      watchLower: 0.35,
      shortBelow: 0.05,
      openAbove: 10000,
      steadyWithin: 0.05,
      recheckMargin: 0.1,
      neighbours: { maxRatio: 2, maxDifference: 0.5 },
      referenceTemperature_degC: 20,
      temperatureCoefficient_perK: 0.00393,
      byPosition: { '3': { upper: 1.2 } },
      sequence: { direction: 'rising', maxStep: 3 },
      source: 'invented',
    },
    readings: [
      { position: 1, entry: '0.6' },
      { position: 3, entry: '0.7' },
    ],
  },
  sensor: {
    format: 'mudflat/test-set',
    version: 1,
    test: 'x',
    limits: SENSOR,
    readings: [{ position: 'idle', entry: '99 @ 150' }],
  },
};
const CIRCUIT = {
  format: 'mudflat/circuit',
  version: 1,
  reference: 'gnd',
  elements: [
    { id: 'BAT', kind: 'voltage', from: 'bat', to: 'gnd', volts: 12.6 },
    { id: 'R', kind: 'resistor', from: 'bat', to: 'x', ohms: 0.5 },
    { id: 'P', kind: 'resistor', from: 'x', to: 'gnd', ohms: 0.7 },
    { id: 'I', kind: 'current', from: 'gnd', to: 'x', amperes: 0.1 },
  ],
  faults: [{ element: 'P', kind: 'series', ohms: 2 }],
  measures: [{ id: 'u', mode: 'voltage', red: 'x', black: 'gnd', meter_ohm: 1e7 }],
};
const EVIDENCE = {
  format: 'mudflat/evidence',
  version: 1,
  circuit: 'glow-relay',
  engine: ENGINE,
  measurements: [{ test: 'glow-plug-resistance', position: 1, entry: '0.6' }],
  observations: [{ kind: 'swap', part: 'plug', from: 1, to: 2, outcome: 'followed' }],
};

type Doc = Readonly<Record<string, unknown>>;
/** Every path to a number in a document. */
function numbersIn(value: unknown, path: readonly (string | number)[] = []): (readonly (string | number)[])[] {
  if (typeof value === 'number') return [path];
  if (value === null || typeof value !== 'object') return [];
  return Object.entries(value).flatMap(([k, v]) => numbersIn(v, [...path, Array.isArray(value) ? Number(k) : k]));
}
function replaced(value: unknown, [key, ...rest]: readonly (string | number)[], by: unknown): unknown {
  if (key === undefined) return by;
  if (Array.isArray(value)) return value.map((v: unknown, i) => (i === key ? replaced(v, rest, by) : v));
  return Object.fromEntries(Object.entries(value as Doc).map(([k, v]) => [k, k === key ? replaced(v, rest, by) : v]));
}
const pointer = (path: readonly (string | number)[]): string => `/${path.join('/')}`;
const allFinite = (value: unknown): boolean =>
  typeof value === 'number'
    ? Number.isFinite(value)
    : value === null || typeof value !== 'object' || Object.values(value).every(allFinite);

/** As text, an infinity can be written; NaN cannot. */
const asText = (document: unknown): string =>
  JSON.stringify(document, (_, v: unknown) => (v === Infinity ? '∞' : v)).replaceAll('"∞"', '1e999');

describe.each<[string, object, (text: string) => Result<unknown>]>([
  ['a test set of plugs', SETS.plugs ?? {}, judgeText],
  ['a test set of a sensor', SETS.sensor ?? {}, judgeText],
  ['a netlist', CIRCUIT, solveText],
  ['an evidence file', EVIDENCE, diagnoseText],
])('%s', (_, document, read) => {
  test('as it stands it is read, and all that comes of it is finite', () => {
    const result = read(JSON.stringify(document));
    expect(result).toMatchObject({ ok: true });
    expect(allFinite(result)).toBe(true);
  });
  test.each(numbersIn(document).map((p) => [pointer(p), p] as const))('%s beyond all numbers', (path, p) => {
    const result = read(asText(replaced(document, p, Infinity)));
    expect(result).toMatchObject({ ok: false });
    if (!result.ok) expect(result.error.map((e) => e.path)).toContain(path);
  });
  test.each(numbersIn(document).map((p) => [pointer(p), p] as const))('%s null', (path, p) => {
    const result = read(asText(replaced(document, p, null)));
    if (result.ok) {
      // Only at a single position: there null takes the limit of the set away.
      expect(path).toMatch(/byPosition/);
      expect(allFinite(result)).toBe(true);
    } else expect(result.error.some((e) => path.startsWith(e.path))).toBe(true);
  });
});

test.each(numbersIn(SETS).map((p) => [pointer(p.slice(1)), p] as const))(
  'NaN in a document that a program made: %s',
  (path, [set = '', ...p]) => {
    const result = judgeDocument(replaced(SETS[set], p, NaN));
    expect(result).toMatchObject({ ok: false });
    if (!result.ok) expect(result.error.map((e) => e.path)).toContain(path);
  },
);

test.each(numbersIn(SENSOR).map((p) => [pointer(p), p] as const))(
  'NaN in limits, without any schema: %s',
  (path, p) => {
    expect(checkLimits(replaced(SENSOR, p, NaN) as Limits).map((e) => e.path)).toContain(path);
  },
);
test('null in limits, without any schema', () => {
  const limits = { quantity: 'resistance', unit: 'ohm', lower: null, upper: 1 } as unknown as Limits;
  expect(checkLimits(limits, '/limits').map((e) => e.path)).toEqual(['/limits/lower']);
});

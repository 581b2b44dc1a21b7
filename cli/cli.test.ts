import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { readScan } from '../formats/scan';
import { readTrace } from '../formats/trace/read';
import { runCommand } from './commands';

const EXAMPLE = {
  format: 'mudflat/test-set',
  version: 1,
  test: 'glow-plug-resistance',
  engine: {
    layout: 'inline',
    cylinders: 4,
    firingOrder: [1, 3, 4, 2],
    systemVoltage_V: 12,
    groups: { 'harness-front': [1, 2] },
  },
  condition: { key: 'off', engine: 'stopped', partTemperature_degC: 15, connection: 'at-part' },
  instrument: {
    kind: 'multimeter',
    leadZero: '0.2',
    accuracy: [{ quantity: 'resistance', upTo: 200, percentOfReading: 0.8, counts: 3, resolution: 0.1 }],
  },
  limits: {
    quantity: 'resistance',
    unit: 'ohm',
    upper: 1.0,
    lower: 0.3,
    watchUpper: 0.9,
    recheckMargin: 0,
    shortBelow: 0.05,
    openAbove: 10000,
    steadyWithin: 0.05,
    neighbours: { maxRatio: 2 },
    referenceTemperature_degC: 20,
    temperatureCoefficient_perK: 0,
    source: 'invented',
    status: 'approved',
  },
  readings: [
    { position: 1, entry: '0.6' },
    { position: 2, entry: 'OL' },
    { position: 3, entry: '0.4~0.9' },
    { position: 4, entry: '4k5' },
  ],
};

/** In this process: starting one for every case would take longer than all cases together. */
function run(args: string[], input = '') {
  const written = { stdout: '', stderr: '' };
  const status = runCommand(args, {
    input: () => input,
    out: (text) => void (written.stdout += text),
    err: (text) => void (written.stderr += text),
  });
  return { status, ...written };
}
function judge(document: unknown) {
  const done = run(['judge', '-'], typeof document === 'string' ? document : JSON.stringify(document));
  return {
    ...done,
    json: JSON.parse(done.stdout) as {
      errors?: { path: string }[];
      readings?: { verdict: string }[];
      pattern?: string;
    },
  };
}

test('the example of the format: one JSON document, exit 0', () => {
  const { status, stderr, json } = judge(EXAMPLE);
  expect([status, stderr]).toEqual([0, '']);
  expect(json.readings?.map((r) => r.verdict)).toEqual(['within', 'open', 'unsteady', 'high']);
  expect(json).toMatchObject({ format: 'mudflat/judgement', version: 1, pattern: 'some', suspects: [2, 3, 4] });
});

test('as a process of its own: the same answer on standard output, the exit code outside', () => {
  const spawn = (input: string) =>
    spawnSync('node', ['--import', 'tsx', 'cli/main.ts', 'judge', '-'], { input, encoding: 'utf8' });
  const good = spawn(JSON.stringify(EXAMPLE));
  expect([good.status, good.stderr, good.stdout]).toEqual([0, '', run(['judge', '-'], JSON.stringify(EXAMPLE)).stdout]);
  expect(spawn('{').status).toBe(2);
});

test('from a file', () => {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'mudflat-')), 'set.json');
  writeFileSync(file, `\uFEFF${JSON.stringify(EXAMPLE)}`);
  expect(run(['judge', file]).status).toBe(0);
});

test.each<[string, unknown, string]>([
  ['not JSON', '{', ''],
  ['unknown field', { ...EXAMPLE, extra: 1 }, '/extra'],
  ['unknown field deep inside', { ...EXAMPLE, limits: { ...EXAMPLE.limits, uper: 1 } }, '/limits/uper'],
  ['missing limits', { ...EXAMPLE, limits: undefined }, '/limits'],
  ['another version', { ...EXAMPLE, version: 2 }, '/version'],
  ['unknown unit', { ...EXAMPLE, limits: { ...EXAMPLE.limits, unit: 'florp' } }, '/limits/unit'],
  ['a limit that is text', { ...EXAMPLE, limits: { ...EXAMPLE.limits, upper: '1.0' } }, '/limits/upper'],
  [
    'lead zero that wanders',
    { ...EXAMPLE, instrument: { kind: 'multimeter', leadZero: '0.1~0.3' } },
    '/instrument/leadZero',
  ],
  ['firing order', { ...EXAMPLE, engine: { ...EXAMPLE.engine, firingOrder: [1, 1, 2, 3] } }, '/engine/firingOrder/1'],
  ['unreadable entry', { ...EXAMPLE, readings: [{ position: 1, entry: 'abc' }] }, '/readings/0/entry'],
  ['a cylinder the engine has not', { ...EXAMPLE, readings: [{ position: 5, entry: '1' }] }, '/readings/0/position'],
])('%s: exit 2 and its path', (_, document, path_) => {
  const { status, stderr, json } = judge(document);
  expect(status).toBe(2);
  expect(json.errors?.map((e) => e.path)).toContain(path_);
  expect(stderr.length).toBeGreaterThan(5);
});

test('a missing file and a wrong command exit 2', () => {
  expect(run(['judge', 'no-such-file.json']).status).toBe(2);
  expect(run(['florp', '-']).status).toBe(2);
});

describe('circuit and diagnose', () => {
  const CIRCUIT = {
    format: 'mudflat/circuit',
    version: 1,
    reference: 'gnd',
    elements: [
      { id: 'BAT', kind: 'voltage', from: 'bat', to: 'gnd', volts: 12.6 },
      { id: 'RI', kind: 'resistor', from: 'bat', to: 'bus', ohms: 0.02 },
      { id: 'G1', kind: 'resistor', from: 'bus', to: 'gnd', ohms: 0.6 },
    ],
    measures: [{ id: 'r', mode: 'resistance', red: 'bus', black: 'gnd', lead_ohm: 0.2 }],
  };
  const EVIDENCE = {
    format: 'mudflat/evidence',
    version: 1,
    circuit: 'glow-relay',
    engine: { layout: 'inline', cylinders: 4, systemVoltage_V: 12 },
    measurements: [
      { test: 'glow-plug-resistance', position: 3, entry: '201' },
      { test: 'glow-plug-resistance', position: 1, entry: '0.9', leadZero: '0.2' },
    ],
  };
  const solve = (command: string, document: unknown) => {
    const done = run([command, '-'], JSON.stringify(document));
    return { ...done, json: JSON.parse(done.stdout) as Record<string, unknown> & { errors?: { path: string }[] } };
  };
  test('a circuit is solved, its meter read', () =>
    expect(solve('circuit', CIRCUIT)).toMatchObject({
      status: 0,
      json: {
        format: 'mudflat/circuit-solution',
        floating: [],
        measures: [{ id: 'r', value: 0.8, unit: 'ohm', overload: false }],
      },
    }));
  test.each<[string, unknown, string]>([
    ['unknown field', { ...CIRCUIT, extra: 1 }, '/extra'],
    ['unknown kind', { ...CIRCUIT, elements: [{ id: 'L', kind: 'coil', from: 'a', to: 'gnd' }] }, '/elements/0/kind'],
    [
      'a missing value',
      { ...CIRCUIT, elements: [{ id: 'L', kind: 'resistor', from: 'a', to: 'gnd' }] },
      '/elements/0/ohms',
    ],
    [
      'below zero',
      { ...CIRCUIT, elements: [{ id: 'L', kind: 'resistor', from: 'a', to: 'gnd', ohms: -1 }] },
      '/elements/0/ohms',
    ],
    ['a fault of nothing', { ...CIRCUIT, faults: [{ element: 'X', kind: 'open' }] }, '/faults/0/element'],
    [
      'a point that is not there',
      { ...CIRCUIT, measures: [{ id: 'u', mode: 'voltage', red: 'x', black: 'gnd' }] },
      '/measures/0/red',
    ],
    [
      'a loop of ideal sources',
      { ...CIRCUIT, elements: [...CIRCUIT.elements, { id: 'B2', kind: 'voltage', from: 'bat', to: 'gnd', volts: 6 }] },
      '/elements/3',
    ],
  ])('%s: exit 2 and its path', (_, document, path_) => {
    const { status, json } = solve('circuit', document);
    expect([status, json.errors?.map((e) => e.path)]).toEqual([2, expect.arrayContaining([path_])]);
  });
  test('evidence in, suspects and next test out', () => {
    const { status, json } = solve('diagnose', EVIDENCE);
    expect([status, json.format]).toEqual([0, 'mudflat/diagnosis']);
    expect((json.suspects as { element: string; probability: number }[])[0]).toMatchObject({
      element: 'plug 3',
      fault: 'resistance',
    });
    expect(json).toMatchObject({ unexplained: expect.any(Number) as number, next: expect.any(Array) as unknown[] });
  });
  test.each<[string, unknown, string]>([
    ['a circuit that is not there', { ...EVIDENCE, circuit: 'florp' }, '/circuit'],
    [
      'a test that is not there',
      { ...EVIDENCE, measurements: [{ test: 'florp', position: 1, entry: '1' }] },
      '/measurements/0/test',
    ],
    [
      'an entry that cannot be read',
      { ...EVIDENCE, measurements: [{ test: 'glow-plug-resistance', position: 1, entry: 'abc' }] },
      '/measurements/0/entry',
    ],
    ['an engine that cannot be', { ...EVIDENCE, engine: { layout: 'vee', cylinders: 7 } }, '/engine/cylinders'],
    ['an observation of no kind', { ...EVIDENCE, observations: [{ kind: 'guess' }] }, '/observations/0/kind'],
    ['a code that is none', { ...EVIDENCE, codes: ['florp'] }, '/codes/0'],
  ])('%s: exit 2 and its path', (_, document, path_) => {
    const { status, json } = solve('diagnose', document);
    expect([status, json.errors?.map((e) => e.path)]).toEqual([2, expect.arrayContaining([path_])]);
  });
});

describe('codes', () => {
  const codes = (...words: string[]) => {
    const done = run(['codes', ...words], 'P0305\nSPN 651 FMI 6\n');
    return {
      ...done,
      json: JSON.parse(done.stdout || '{}') as {
        codes?: { code: string; cylinder: number | null }[];
        errors?: { path: string }[];
      },
    };
  };
  test('quoted or not, several at once', () => {
    const { status, json } = codes('P0672', 'SPN', '653', 'FMI', '5', 'SPN 110 FMI 3');
    expect([status, json.codes?.map((c) => [c.code, c.cylinder])]).toEqual([
      0,
      [
        ['P0672', 2],
        ['SPN 653 FMI 5', 3],
        ['SPN 110 FMI 3', null],
      ],
    ]);
    expect(json).toMatchObject({ format: 'mudflat/codes', version: 1 });
  });
  test('from standard input', () => expect(codes('-').json.codes?.map((c) => c.cylinder)).toEqual([5, 1]));
  test('one that is none: exit 2, with its path', () => {
    const { status, json, stderr } = codes('P0672', 'florp', 'SPN 653 FMI 99');
    expect([status, json.errors?.map((e) => e.path)]).toEqual([2, ['/codes/1', '/codes/2']]);
    expect(stderr).toContain('"florp" is no code known here');
  });
});

describe('simulated devices', () => {
  const run = (...args: string[]) => spawnSync('./mudflat', args, { encoding: 'utf8', timeout: 60_000 });
  test('a scan tool writes what the job takes in, and a CAN log that reads back', () => {
    const document = run('scantool', '--print', '--circuit', 'injectors-common', '--fault', 'injector 2 open');
    const scan = readScan(document.stdout);
    if (!scan.ok) throw new Error(JSON.stringify(scan.error));
    expect(scan.value.codes).toEqual([{ code: 'P0202', status: 'active', count: 1 }]);
    const log = run('scantool', '--print', '--can', '--circuit', 'injectors-common', '--fault', 'injector 2 open');
    const read = readTrace(new TextEncoder().encode(log.stdout));
    expect(read.codes.map((c) => [c.spn, c.fmi])).toEqual([[652, 5]]);
    expect(read.columns.length).toBeGreaterThan(0);
  });
  test.each([
    [['scantool', '--circuit', 'florp'], 'There is no circuit florp'],
    [['scantool', '--fault', 'plug 3 sideways'], 'write "plug 4 open"'],
    [['meter', '--test', 'florp'], 'There is no circuit that "florp" reads'],
    [['meter', '--port', 'x'], '--port is a whole number'],
    [['meter', '--nothing'], '--nothing'],
  ])('%s says what is wrong, and how it is used', (args, words) => {
    const done = run(...args);
    expect(done.status).toBe(2);
    expect(done.stderr).toContain(words);
    expect(done.stderr).toContain('./mudflat');
  });
});

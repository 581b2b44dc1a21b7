import type { Quantity } from '../quantity/units';
import { CAUTIONS, STATES } from './shared';
import type { Caution, RequiredState, TestDefinition, Tool } from './types';

/** What a test that reads this mostly asks for. Common practice, no source. */
interface Usual {
  readonly unit: string;
  readonly tool: Tool;
  readonly condition: TestDefinition['condition'];
  readonly states: readonly RequiredState[];
  readonly cautions: readonly Caution[];
}
const STOPPED = { key: 'off', engine: 'stopped' };
const KEY_ON = { key: 'on', engine: 'stopped' };
const RUNNING = { key: 'on', engine: 'running' };
const usual = (
  unit: string,
  kind: Tool['kind'],
  mode: string,
  condition: Usual['condition'],
  states: readonly RequiredState[] = [],
  cautions: readonly Caution[] = [],
): Usual => ({ unit, tool: { kind, mode }, condition, states, cautions });

const USUAL: Readonly<Record<Quantity, Usual>> = {
  resistance: usual(
    'ohm',
    'multimeter',
    'ohms, not the beeper',
    STOPPED,
    [STATES.keyOff, STATES.unplugged],
    [CAUTIONS.deadCircuit],
  ),
  voltage: usual('V', 'multimeter', 'DC volts', KEY_ON, [STATES.keyOn, STATES.pluggedIn], [CAUTIONS.fiveVolts]),
  current: usual('A', 'clamp', 'DC amps', KEY_ON, [STATES.keyOn, STATES.clampZeroed]),
  time: usual('s', 'stopwatch', 'seconds', STOPPED),
  frequency: usual('Hz', 'multimeter', 'frequency', RUNNING, [STATES.pluggedIn], [CAUTIONS.running]),
  temperature: usual('degC', 'multimeter', 'temperature', STOPPED),
  pressure: usual('bar', 'gauge', 'as it shows', RUNNING, [], [CAUTIONS.running, CAUTIONS.highPressureFuel]),
  ratio: usual('%', 'scan tool', 'live data', RUNNING, [], [CAUTIONS.running]),
  torque: usual('Nm', 'gauge', 'as it shows', STOPPED),
  volume: usual('L', 'measuring glass', 'as it shows', STOPPED, [], [CAUTIONS.highPressureFuel]),
  length: usual('m', 'feeler gauge', 'as it shows', STOPPED),
  observation: usual('seen', 'eye and hand', 'look and feel', STOPPED),
};

/** What only a person can say of a new test. */
export interface Asked {
  readonly name: string;
  readonly area: string;
  /** What is measured: plug, driver. */
  readonly part: string;
  readonly quantity: Quantity;
  readonly layout: TestDefinition['layout'];
  /** Names of places; not asked where they are the cylinders. */
  readonly positions: readonly string[];
  readonly probe: string;
  readonly proves: string;
}

/** An id from a name, such as is not among `taken`: lower case, digits, hyphens. */
export function idFrom(name: string, taken: ReadonlySet<string>): string {
  const plain = name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, 60)
    .replace(/^-+|-+$/g, '');
  const base = plain || 'test';
  for (let n = 1; ; n++) {
    const id = n === 1 ? base : `${base}-${n}`;
    if (!taken.has(id)) return id;
  }
}

/**
 * A whole test from what was asked: the rest is what tests of this quantity mostly ask for, and can be
 * changed afterwards. Every test defers to the maker's service information.
 */
export function beginTest(asked: Asked, taken: ReadonlySet<string>): TestDefinition {
  const { unit, tool, condition, states, cautions } = USUAL[asked.quantity];
  return {
    id: idFrom(asked.name, taken),
    name: asked.name,
    purpose: asked.proves,
    part: asked.part,
    area: asked.area,
    quantity: asked.quantity,
    unit,
    layout: asked.layout,
    positions: asked.layout === 'cylinders' ? 'cylinders' : asked.positions,
    tool,
    minutes: 5,
    people: 1,
    connection: 'at-part',
    condition,
    states: [...states],
    probe: asked.probe,
    steps: ['Confirm what must be true.', `${asked.probe.replace(/[.\s]+$/, '')}; enter what is shown at each place.`],
    cautions: [...cautions, CAUTIONS.defer],
    proves: asked.proves,
    cannotProve: 'What lies outside these places, and what shows itself only under other conditions.',
    advice: [],
    rules: [],
  };
}

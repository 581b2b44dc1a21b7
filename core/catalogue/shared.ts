import type { Limits } from '../limits/types';
import type { Caution, DefaultRule, RequiredState, TestDefinition, Tool } from './types';

/**
 * States and cautions that many tests share. Common practice, no source; the maker's service information
 * comes first.
 */
export const STATES = {
  keyOff: { id: 'key-off', label: 'key off', why: 'A live circuit puts its own voltage into the ohmmeter.' },
  keyOn: { id: 'key-on', label: 'key on', why: 'A circuit that is not switched on carries no current.' },
  commandOn: {
    id: 'command-on',
    label: 'command on',
    why: 'Read the state of the command on the scan tool; without it there is nothing to measure.',
  },
  pluggedIn: {
    id: 'plugged-in',
    label: 'plugged in',
    why: 'An unloaded wire shows full voltage even when a single strand is left.',
  },
  unplugged: { id: 'unplugged', label: 'connector off', why: 'What stays connected is read in parallel.' },
  cold: { id: 'same-temperature', label: 'all equally cold', why: 'A hot part reads higher than a cold one.' },
  engineCold: {
    id: 'engine-cold',
    label: 'engine cold',
    why: 'The cold engine is the hardest case, and it is lost once the engine runs.',
  },
  faultPresent: {
    id: 'fault-present',
    label: 'fault present',
    why: 'Without the fault every cylinder makes a difference.',
  },
  meterBattery: {
    id: 'meter-battery',
    label: 'meter battery good',
    why: 'A weak battery makes small resistances read wrong.',
  },
  meterProven: {
    id: 'meter-proven',
    label: 'meter proven on the battery',
    why: 'A blown fuse or a lead in the wrong socket shows 0 V: see a known voltage first.',
  },
  rightRange: {
    id: 'right-range',
    label: 'right range',
    why: 'A meter that changes range by itself steps from ohm to kilohm without a word.',
  },
  clampZeroed: { id: 'clamp-zeroed', label: 'clamp zeroed', why: 'A clamp keeps a remainder from its last use.' },
  batteryCharged: { id: 'battery-charged', label: 'battery charged', why: 'Every voltage after it hangs on this one.' },
  airBled: { id: 'air-bled', label: 'air bled, fuel fresh', why: 'Air in the line reads as a weak pump.' },
  moduleDischarged: {
    id: 'module-discharged',
    label: 'module discharged',
    why: 'It holds its voltage for a while after key off.',
  },
} as const satisfies Record<string, RequiredState>;

export const CAUTIONS = {
  deadCircuit: { id: 'dead-circuit', text: 'Ohms only with the circuit dead: key off, battery isolated where fitted.' },
  noStartingFluid: {
    id: 'no-starting-fluid',
    text: 'No starting fluid or solvent at the intake while glow plugs or a grid heater can switch on: explosion.',
  },
  hotPlugs: {
    id: 'hot-engine',
    text: 'A plug that has just glowed, and the engine about it, burn at once. Let them cool.',
  },
  benchHeat: {
    id: 'bench-heat',
    text: 'A plug on the bench is red hot in seconds: in a vice, shielded, fused lead, short burst, its rated voltage checked first (12 V destroys 5 and 7 V plugs), away from fuel, solvents and the battery’s vent.',
  },
  injectorVoltage: {
    id: 'injector-voltage',
    text: 'Injector circuits hold 48 to over 150 V, for a while after key off too. Insulated probes, hands clear, nothing plugged or unplugged live.',
  },
  highPressureFuel: {
    id: 'high-pressure-fuel',
    text: 'Fuel stands at 300 to 2500 bar. Never loosen a line on a running or just-stopped engine: a jet goes through gloves and skin, and that is a surgical emergency even when it hardly hurts.',
  },
  running: { id: 'running', text: 'Chocks, park brake, neutral; clear of belts, fan and shafts. Rest the starter.' },
  crankOnly: {
    id: 'crank-only',
    text: 'Where the test only cranks, disable the fuel. Barring by hand: key out, battery isolated.',
  },
  fiveVolts: {
    id: 'five-volts',
    text: 'Never battery voltage into a 5 V circuit; fused jumpers only. Back-probe, do not pierce; a wire that was pierced is sealed.',
  },
  batteryGas: {
    id: 'battery-gas',
    text: 'A battery gives off hydrogen: no sparks or flame, no bridging with tools or rings.',
  },
  noPiercing: {
    id: 'no-piercing',
    text: 'Never pierce insulation under a cover: oil creeps through the strands to the controller.',
  },
  hotExhaust: { id: 'hot-exhaust', text: 'Exhaust, filter and their sensors burn, the more so after a regeneration.' },
  roadTest: {
    id: 'road-test',
    text: 'On the road a second person works the laptop. Cab tilted or vehicle lifted: locked before anybody is under it.',
  },
  defer: {
    id: 'defer',
    text: 'The maker’s service information and the site’s rules come before what stands here; work that needs a licensed or qualified person stays with one.',
  },
} as const satisfies Record<string, Caution>;

export const ohm = (limits: Partial<Limits>): Limits => ({ quantity: 'resistance', unit: 'ohm', ...limits });
export const volt = (limits: Partial<Limits>): Limits => ({ quantity: 'voltage', unit: 'V', ...limits });
export const thumb = (limits: Limits): DefaultRule[] => [{ limits }];
/** Rules that hang on the system voltage. */
export const bySystem = (for12: Limits, for24: Limits): DefaultRule[] => [
  { when: { systemVoltage_V: 12 }, limits: for12 },
  { when: { systemVoltage_V: 24 }, limits: for24 },
];

type Optional =
  | 'layout'
  | 'people'
  | 'tool'
  | 'connection'
  | 'condition'
  | 'states'
  | 'cautions'
  | 'positions'
  | 'quantity'
  | 'unit'
  | 'rules';
type Draft = Omit<TestDefinition, Optional> & Partial<Pick<TestDefinition, Optional>>;

/** Fills in what follows from the rest. */
function build(
  draft: Draft,
  defaults: Pick<TestDefinition, 'quantity' | 'unit' | 'tool' | 'connection' | 'condition' | 'rules'>,
  states: readonly RequiredState[],
  first: readonly Caution[],
): TestDefinition {
  const positions = draft.positions ?? 'cylinders';
  const layout =
    draft.layout ?? (positions === 'cylinders' ? 'cylinders' : positions.length === 1 ? 'single' : 'places');
  const unique = <T extends { id: string }>(items: readonly T[]): T[] => [
    ...new Map(items.map((i) => [i.id, i])).values(),
  ];
  return {
    ...defaults,
    people: 1,
    ...draft,
    positions,
    layout,
    states: unique(states),
    cautions: unique([...first, ...(draft.cautions ?? []), CAUTIONS.defer]),
  };
}

const METER = (mode: string): Tool => ({ kind: 'multimeter', mode });

/** A test that reads ohms: the circuit is dead, and that caution comes first. */
export const ohmTest = (d: Draft): TestDefinition =>
  build(
    d,
    {
      quantity: 'resistance',
      unit: 'ohm',
      tool: METER('ohms, not the beeper'),
      connection: 'at-part',
      condition: { key: 'off', engine: 'stopped' },
      rules: [],
    },
    [STATES.keyOff, ...(d.states ?? [STATES.unplugged]), STATES.meterBattery],
    [CAUTIONS.deadCircuit],
  );

/** A test that reads volts: the circuit is plugged in, switched on and carries current. */
export const voltTest = (d: Draft): TestDefinition =>
  build(
    d,
    {
      quantity: 'voltage',
      unit: 'V',
      tool: METER('volts DC'),
      connection: 'plugged-in',
      condition: { key: 'on', engine: 'stopped' },
      rules: [],
    },
    [STATES.meterProven, ...(d.states ?? [STATES.keyOn, STATES.pluggedIn])],
    [],
  );

/** A test whose outcome is seen, heard or felt. */
export const seenTest = (d: Draft): TestDefinition =>
  build(
    d,
    {
      quantity: 'observation',
      unit: 'seen',
      tool: { kind: 'eye and hand', mode: 'pass or fail' },
      connection: 'at-part',
      condition: { key: 'off', engine: 'stopped' },
      rules: [{ limits: { quantity: 'observation', unit: 'seen' } }],
    },
    d.states ?? [STATES.keyOff],
    [],
  );

/** Any other quantity. */
export const otherTest = (d: Draft & Pick<TestDefinition, 'quantity' | 'unit' | 'tool'>): TestDefinition =>
  build(
    d,
    {
      quantity: d.quantity,
      unit: d.unit,
      tool: d.tool,
      connection: 'plugged-in',
      condition: { key: 'on', engine: 'running' },
      rules: [],
    },
    d.states ?? [],
    [],
  );

import type { Caution, RequiredState, TestDefinition } from './types';

/** States and cautions that many tests share. Common practice, no source; the maker's service information comes first. */
export const STATES = {
  keyOff: { id: 'key-off', label: 'key off', why: 'A live circuit puts its own voltage into the ohmmeter.' },
  keyOn: { id: 'key-on', label: 'key on', why: 'A circuit that is not switched on carries no current.' },
  commandOn: { id: 'command-on', label: 'command on', why: 'Read the state of the command on the scan tool; without it there is nothing to measure.' },
  pluggedIn: { id: 'plugged-in', label: 'plugged in', why: 'An unloaded wire shows full voltage even when a single strand is left.' },
  unplugged: { id: 'unplugged', label: 'connector off', why: 'What stays connected is read in parallel.' },
  cold: { id: 'same-temperature', label: 'all equally cold', why: 'A hot part reads higher than a cold one.' },
  meterBattery: { id: 'meter-battery', label: 'meter battery good', why: 'A weak battery makes small resistances read wrong.' },
  clampZeroed: { id: 'clamp-zeroed', label: 'clamp zeroed', why: 'A clamp keeps a remainder from its last use.' },
  batteryCharged: { id: 'battery-charged', label: 'battery charged', why: 'Every voltage after it hangs on this one.' },
} as const satisfies Record<string, RequiredState>;

export const CAUTIONS = {
  deadCircuit: { id: 'dead-circuit', text: 'Ohms only with the circuit dead: key off, battery isolated where fitted.' },
  noStartingFluid: { id: 'no-starting-fluid', text: 'No starting fluid or solvent at the intake while glow plugs can switch on: explosion.' },
  hotPlugs: { id: 'hot-engine', text: 'A plug that has just glowed, and the engine about it, burn at once. Let them cool.' },
  injectorVoltage: { id: 'injector-voltage', text: 'Injector circuits hold 48 to over 150 V, for a while after key off too. Insulated probes, hands clear, nothing plugged or unplugged live.' },
  running: { id: 'running', text: 'Chocks, park brake, neutral; clear of belts, fan and shafts. Rest the starter.' },
  fiveVolts: { id: 'five-volts', text: 'Never battery voltage into a 5 V circuit; fused jumpers only. Back-probe, do not pierce.' },
  batteryGas: { id: 'battery-gas', text: 'A battery gives off hydrogen: no sparks or flame, no bridging with tools or rings.' },
  noPiercing: { id: 'no-piercing', text: 'Never pierce insulation under a cover: oil creeps through the strands to the controller.' },
  defer: { id: 'defer', text: 'The maker’s service information and the site’s rules come before what stands here; work that needs a qualified person stays with one.' },
} as const satisfies Record<string, Caution>;

type Common = 'quantity' | 'unit' | 'connection' | 'condition' | 'states' | 'cautions';

/** A test that reads ohms: the circuit is dead, and that caution comes first. */
export const ohmTest = (test: Omit<TestDefinition, Common> & { connection?: string; states?: readonly RequiredState[]; cautions?: readonly Caution[] }): TestDefinition => ({
  ...test, quantity: 'resistance', unit: 'ohm', connection: test.connection ?? 'at-part', condition: { key: 'off', engine: 'stopped' },
  states: [STATES.keyOff, ...(test.states ?? [STATES.unplugged]), STATES.meterBattery],
  cautions: [CAUTIONS.deadCircuit, ...(test.cautions ?? []), CAUTIONS.defer],
});

/** A test that reads volts: the circuit is plugged in, switched on and carries current. */
export const voltTest = (test: Omit<TestDefinition, Common> & { engine?: string; states: readonly RequiredState[]; cautions: readonly Caution[] }): TestDefinition => {
  const { engine = 'stopped', ...rest } = test;
  return { ...rest, quantity: 'voltage', unit: 'V', connection: 'plugged-in', condition: { key: 'on', engine }, cautions: [...test.cautions, CAUTIONS.defer] };
};

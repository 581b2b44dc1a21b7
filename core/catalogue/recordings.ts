import { CAUTIONS, seenTest, STATES } from './shared';
import type { TestDefinition } from './types';

/** The area of recordings: the plan points here where a fault comes and goes. */
export const RECORDING_AREA = 'Recordings';
const SETTLED = [STATES.pluggedIn];
const CARE = [CAUTIONS.noPiercing, CAUTIONS.fiveVolts, CAUTIONS.roadTest, CAUTIONS.running];

/**
 * What is recorded instead of read. Common practice, no source; how long to record is the law of rare events:
 * after three times the mean time between two of them, one has shown with 95 % (Poisson 1837; 1 - exp(-3)).
 */
export const RECORDINGS: readonly TestDefinition[] = [
  seenTest({
    id: 'pins-log',
    name: 'Log at the controller’s pins',
    area: RECORDING_AREA,
    part: 'signal',
    positions: ['recording'],
    minutes: 30,
    states: SETTLED,
    cautions: CARE,
    tool: { kind: 'logger', mode: 'volts DC, 100 samples a second or more' },
    purpose: 'A fault that comes and goes is waited for at the pins, and its first and smallest dropout is found.',
    probe:
      'Back-probe the signal wires at the controller, one lead each, one common ground; write down which lead went to which pin.',
    steps: [
      'Choose signal, reference and supply of what is suspected: what stays while the other falls says most.',
      'Record for three times as long as it usually takes to show itself: it then shows with 95 %.',
      'Take the file in under Recordings of this job. p where nothing left its course, f and what it was where something did.',
    ],
    proves: 'That a signal of this size and length was not lost at the pin while it was recorded.',
    cannotProve: 'That it is never lost: it says how small a dropout would have been found, and for how long.',
    advice: [
      {
        verdict: ['failed'],
        say: 'One signal alone: its sensor or its wire up to the pin. All at once: their common ground or supply, and first the logger’s own leads.',
      },
    ],
  }),
  seenTest({
    id: 'pin-scan-log',
    name: 'Pin against scan tool over time',
    area: RECORDING_AREA,
    part: 'input',
    positions: ['recording'],
    minutes: 20,
    states: SETTLED,
    cautions: CARE,
    tool: { kind: 'logger', mode: 'volts DC, beside the scan tool’s own recording' },
    purpose:
      'The pin shows what the sensor sends, the scan tool what the controller believes: they are compared over a drive.',
    probe: 'Back-probe the signal at the controller, one common ground; let the scan tool record the same value.',
    steps: [
      'Start both, then move the pedal from stop to stop twice: that lays them on one clock.',
      'Drive in the conditions of the complaint.',
      'Take both in as one table under Recordings of this job. p where they agree, f and how they differ where they do not.',
    ],
    proves: 'That the controller believed what the pin carried, or when it did not.',
    cannotProve: 'That the sensor tells what is there: compare with a gauge.',
    advice: [
      {
        verdict: ['failed'],
        say: 'Good at the pin and lost behind it: the wire’s end, its ground, then the controller’s input.',
      },
    ],
  }),
  seenTest({
    id: 'cam-crank-capture',
    name: 'Cam against crank, captured',
    area: RECORDING_AREA,
    part: 'timing',
    positions: ['recording'],
    minutes: 20,
    states: [STATES.pluggedIn],
    cautions: [CAUTIONS.crankOnly, CAUTIONS.running, CAUTIONS.fiveVolts, CAUTIONS.noPiercing],
    tool: {
      kind: 'logger',
      mode: 'scope, 20 000 samples a second or more, 10 V range; coils need a range of both signs',
    },
    purpose: 'Shows over crank angle whether the cam is in time, against a known good of the same family.',
    probe: 'Back-probe the crank and the cam signal, one common ground; a third lead on injector 1 names the cylinder.',
    steps: [
      'Disable the fuel. Record three seconds of cranking, or idle.',
      'Take it in under Recordings as crank and cam, choose what was done, and lay a known good behind it.',
      'p where the cam is in time, f and by how many degrees where it is not.',
    ],
    proves: 'That this camshaft is in time with the crank, to within what stands beside it.',
    cannotProve: 'That another camshaft is: one cam sensor proves one camshaft.',
    advice: [
      { verdict: ['failed'], say: 'Look at the marks of belt, chain or gears before the engine is turned again.' },
    ],
  }),
  seenTest({
    id: 'relative-compression-capture',
    name: 'Relative compression from the starter’s current',
    area: RECORDING_AREA,
    part: 'compression',
    positions: ['recording'],
    minutes: 15,
    states: [STATES.pluggedIn],
    cautions: [CAUTIONS.crankOnly, CAUTIONS.running, CAUTIONS.batteryGas],
    tool: {
      kind: 'clamp',
      mode: 'direct current of the starter, zeroed, 1 mV for an ampere, 1000 samples a second or more',
    },
    purpose:
      'Compares the compressions with each other without taking anything out, and tells drag from a weak battery.',
    probe:
      'Clamp around all conductors of one battery post, arrow with the current; zero it before. Voltage at the posts beside it.',
    steps: [
      'Disable the fuel. Zero the clamp with the starter at rest; record half a second before it turns.',
      'Crank for five seconds, not more than three times: the starter must cool.',
      'Take it in under Recordings as starter current. A lead on injector 1 names the cylinders.',
    ],
    proves: 'Which cylinder compresses less than the others, and whether the engine turns too hard.',
    cannotProve: 'That compression is good: all may be low alike.',
    advice: [{ verdict: ['failed'], say: 'One low: leak-down test. All alike and far too high: something drags.' }],
  }),
  seenTest({
    id: 'injector-grid-capture',
    name: 'Injector currents on the firing grid',
    area: RECORDING_AREA,
    part: 'injector',
    positions: ['recording'],
    minutes: 15,
    states: [STATES.pluggedIn],
    cautions: [CAUTIONS.injectorVoltage, CAUTIONS.running, CAUTIONS.noPiercing],
    tool: {
      kind: 'clamp',
      mode: 'current of all injectors together, and of injector 1 alone, zeroed, 10 or 100 mV for an ampere',
    },
    purpose: 'Shows which cylinder has no pulse, or a late, early or odd one.',
    probe:
      'One clamp around the common supply of the injectors, one around a wire of injector 1; insulation whole, hands clear.',
    steps: [
      'Zero both clamps with the key off. Record some seconds of idle.',
      'Take both in under Recordings as injector current; give the one its cylinder.',
      'p where all pulses are on the grid, f and which is not.',
    ],
    proves: 'That each injector got its pulse when it should.',
    cannotProve: 'That it injects.',
    advice: [
      {
        verdict: ['failed'],
        say: 'Missing: driver, wire or coil. Off the grid: the position signal, or a correction.',
      },
    ],
  }),
  seenTest({
    id: 'crank-speed-capture',
    name: 'Contribution and knock per cylinder',
    area: RECORDING_AREA,
    part: 'cylinder',
    positions: ['recording'],
    minutes: 20,
    states: [STATES.pluggedIn],
    cautions: [CAUTIONS.injectorVoltage, CAUTIONS.running, CAUTIONS.fiveVolts, CAUTIONS.hotExhaust],
    tool: { kind: 'logger', mode: 'scope, 20 000 samples a second or more' },
    purpose: 'Shows which cylinder does not speed the crank up, which one knocks, and which of them is the cause.',
    probe: 'Back-probe the crank signal; a clamp on injector 1; an accelerometer on the block for knock.',
    steps: [
      'Record ten seconds of steady idle, neutral, nothing switched on.',
      'Record again after a hard pull: some faults exist only hot and loaded.',
      'Take both in under Recordings and lay one behind the other.',
    ],
    proves: 'Which cylinder gives less than the others, and how often it misfires.',
    cannotProve: 'Why: compression, pulse and fuel have their own tests.',
    advice: [
      {
        verdict: ['failed'],
        say: 'One of a bank knocks and others misfire: cut the knocking one out and record again.',
      },
    ],
  }),
];

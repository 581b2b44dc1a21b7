import { CAUTIONS, seenTest, STATES } from './shared';
import type { TestDefinition } from './types';

/** The area of recordings: the plan points here where a fault comes and goes. */
export const RECORDING_AREA = 'Recordings';
const SETTLED = [STATES.pluggedIn];
const CARE = [CAUTIONS.noPiercing, CAUTIONS.fiveVolts, CAUTIONS.roadTest, CAUTIONS.running];

/**
 * What is recorded instead of read. Common practice, no source; how long to record is the law of rare events: after three
 * times the mean time between two of them, one has shown with 95 % (Poisson 1837; 1 - exp(-3)).
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
];

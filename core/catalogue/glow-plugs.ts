import { CAUTIONS } from './shared';
import type { TestDefinition } from './types';

/** Common practice throughout, no source; the maker's service information comes first. */
export const GLOW_PLUG_RESISTANCE: TestDefinition = {
  id: 'glow-plug-resistance',
  name: 'Glow plugs, at the plug',
  purpose: 'Finds plugs that are open, burnt high or shorted, and tells the plug from its wire.',
  area: 'Glow plugs',
  minutes: 6,
  part: 'plug',
  quantity: 'resistance',
  unit: 'ohm',
  positions: 'cylinders',
  connection: 'at-part',
  condition: { key: 'off', engine: 'stopped' },
  states: [
    { id: 'key-off', label: 'key off', why: 'A live circuit puts its own voltage into the ohmmeter.' },
    { id: 'leads-off', label: 'plug leads off', why: 'With the lead on, the other plugs are read in parallel.' },
    { id: 'same-temperature', label: 'all plugs equally cold', why: 'A hot plug reads higher than a cold one.' },
    { id: 'meter-battery', label: 'meter battery good', why: 'A weak battery makes small resistances read wrong.' },
  ],
  probe: 'Red on the plug terminal, black on clean metal of the engine.',
  steps: [
    'Key off, battery isolated where fitted.',
    'Touch the leads together and enter what the meter shows.',
    'Take the lead off each plug; clean the terminal.',
    'Red probe on the terminal, black on bare engine metal; wait until the display settles.',
    'Enter what the display shows, digit for digit. OL where it shows overload, low~high where it wanders.',
  ],
  cautions: [CAUTIONS.deadCircuit, CAUTIONS.noStartingFluid, CAUTIONS.hotPlugs, CAUTIONS.defer],
  proves: 'That the heating element of each plug conducts, and how well.',
  cannotProve: 'That the plug gets hot at its tip, or that its feed works.',
  advice: [
    { pattern: ['one', 'some', 'group', 'incomplete'], verdict: ['high', 'open', 'low', 'short'], say: 'Clean the terminal of {suspects} and read once more with the black probe on another clean spot; what stays is the plug.' },
    { pattern: ['one'], verdict: ['high', 'open', 'low', 'short'], say: 'One plug has failed and the set has the same age: price both, this one and the whole set.' },
    { pattern: ['group'], say: 'Plugs that share a feed and failed together: before fitting new ones, measure the feed voltage and its duration at their connector.' },
    { mostlyBad: true, say: 'Most of the set is bad. The good one is the odd one out here; the limit counts, not the company.' },
    { pattern: ['all'], verdict: ['high', 'open'], say: 'All of them at once: prove the meter and the black probe’s ground on a known resistance before condemning the set.' },
    { pattern: ['good'], say: 'The plugs conduct. If the complaint stays, measure the feed at the plug with the glow command on, then through the harness.' },
  ],
};

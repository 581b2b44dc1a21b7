import { solveCircuit } from '../solver/solve';
import type { Circuit, Fault } from '../solver/types';

/** Places of a sensor's circuit that can break or go bad. */
export const PLACES = ['signal wire', 'reference wire', 'ground wire', 'input'] as const;
export type Place = (typeof PLACES)[number];

/** A three-wire sensor at a 5 V reference, with its wires and the controller's input. Values invented. */
const sensorCircuit = (ratio: number): Circuit => ({
  reference: 'gnd',
  elements: [
    { id: 'five', kind: 'voltage', from: 'five', to: 'gnd', volts: 5 },
    { id: 'supply', kind: 'resistor', from: 'five', to: 'reference pin', ohms: 15 },
    { id: 'reference wire', kind: 'resistor', from: 'reference pin', to: 'high', ohms: 0.3 },
    { id: 'upper', kind: 'resistor', from: 'high', to: 'wiper', ohms: 4000 * (1 - ratio) + 1 },
    { id: 'lower', kind: 'resistor', from: 'wiper', to: 'low', ohms: 4000 * ratio + 1 },
    { id: 'ground wire', kind: 'resistor', from: 'low', to: 'gnd', ohms: 0.3 },
    { id: 'inside', kind: 'resistor', from: 'wiper', to: 'signal', ohms: 120 },
    { id: 'signal wire', kind: 'resistor', from: 'signal', to: 'pin', ohms: 0.3 },
    { id: 'input', kind: 'resistor', from: 'pin', to: 'seen', ohms: 0.3 },
    { id: 'pull', kind: 'resistor', from: 'seen', to: 'gnd', ohms: 220_000 },
    // The recorder's own input.
    { id: 'recorder', kind: 'resistor', from: 'pin', to: 'gnd', ohms: 1_000_000 },
  ],
});

/**
 * Volts at the pin and behind the controller's input, for what the sensor gives as a share of its reference.
 */
export interface PinTable {
  readonly pin: (ratio: number) => number;
  readonly seen: (ratio: number) => number;
}

const POINTS = 64;

/**
 * The circuit solved at 65 places of the sensor, with straight lines between. `fault`: open, or so many ohms
 * in series.
 */
export function pinTable(fault: { readonly place: Place; readonly ohms: number | null } | null): PinTable {
  const faults: Fault[] = fault
    ? [
        fault.ohms === null
          ? { element: fault.place, kind: 'open' }
          : { element: fault.place, kind: 'series', ohms: fault.ohms },
      ]
    : [];
  const [pin, seen] = [new Float64Array(POINTS + 1), new Float64Array(POINTS + 1)];
  for (let k = 0; k <= POINTS; k++) {
    const solved = solveCircuit(sensorCircuit(k / POINTS), faults);
    if (!solved.ok) throw new RangeError(solved.error[0]?.message ?? 'the circuit has no solution');
    pin[k] = solved.value.nodes.pin ?? 0;
    seen[k] = solved.value.nodes.seen ?? 0;
  }
  const between = (table: Float64Array) => (ratio: number) => {
    const x = Math.min(1, Math.max(0, ratio)) * POINTS;
    const k = Math.min(POINTS - 1, Math.floor(x));
    return (table[k] ?? 0) + ((table[k + 1] ?? 0) - (table[k] ?? 0)) * (x - k);
  };
  return { pin: between(pin), seen: between(seen) };
}

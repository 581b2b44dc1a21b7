import { expandElements, type PlacedElement, type Wiring } from '../core/circuits/expand';
import type { LibraryCircuit } from '../core/circuits/types';
import type { Random } from './random';

/**
 * A vehicle of the trial: the wiring is the circuit's, its parts are not. Values are skewed and go together
 * within a set, contacts are mostly good and now and then poor, transistors keep a voltage that no resistance
 * keeps, plugs grow hot, the battery is as full as it happens to be. All numbers are of the trial alone:
 * common practice, no source.
 */
export interface Patient {
  readonly circuit: LibraryCircuit;
  readonly elements: readonly PlacedElement[];
  /** Of each resistor and closed switch, ohms; of a source, volts. */
  readonly values: ReadonlyMap<string, number>;
  /** Volts that a transistor keeps whatever the current. */
  readonly keeps_V: ReadonlyMap<string, number>;
  /** How much a plug's resistance rises for each square volt across it. */
  readonly heats_perV2: ReadonlyMap<string, number>;
}

export const CYLINDERS = 6;
export const WIRING: Wiring = {
  cylinders: CYLINDERS,
  systemVoltage_V: 12,
  banks: [1, 1, 1, 1, 1, 1],
  pairs: [1, 1, 2, 2, 3, 3],
};

/** What a control unit measures itself by is made to match. */
const INSIDE_A_UNIT = /^(channel|measures)/;
const TRANSISTORS = /^(driver|upper driver)/;

export function drawPatient(circuit: LibraryCircuit, r: Random): Patient {
  const elements = expandElements(circuit, WIRING);
  const together = new Map(Object.keys(circuit.values).map((key) => [key, 0.09 * r.normal()]));
  const values = new Map<string, number>();
  const keeps_V = new Map<string, number>();
  const heats_perV2 = new Map<string, number>();
  for (const e of elements) {
    const v = circuit.values[e.value];
    if (!v) continue;
    if (e.kind === 'source') values.set(e.id, sourceVolts(e, v.value, r));
    else if (INSIDE_A_UNIT.test(e.id)) values.set(e.id, v.value * (1 + 0.03 * r.normal()));
    else if (v.value > 1e7) values.set(e.id, r.sized(3e8, 3e9));
    else {
      const own = skewed(e, r);
      values.set(e.id, v.value * own * Math.exp(together.get(e.value) ?? 0));
      if (TRANSISTORS.test(e.id)) keeps_V.set(e.id, r.between(0.02, 0.25));
      if (e.symbol === 'plug' && e.id.startsWith('plug')) heats_perV2.set(e.id, r.between(0, 0.004));
    }
  }
  return { circuit, elements, values, keeps_V, heats_perV2 };
}

function sourceVolts(e: PlacedElement, nominal: number, r: Random): number {
  if (e.symbol === 'battery') return nominal + r.between(-0.35, 0.45);
  return nominal * (1 + r.between(-0.012, 0.012));
}

/**
 * Contacts and wires are rather a little too high than too low; parts lie about their value, with a tail
 * upwards.
 */
function skewed(e: PlacedElement, r: Random): number {
  const isJoint = e.symbol === 'wire' || e.symbol === 'fuse' || e.symbol === 'relay' || e.symbol === 'ground';
  return isJoint
    ? 0.7 * Math.exp(0.35 * r.normal()) + 0.5 * r.exponential()
    : Math.exp(0.07 * r.normal()) * (1 + 0.05 * r.exponential());
}

import { expandElements, wiringOf } from '../../core/circuits/expand';
import type { LibraryCircuit } from '../../core/circuits/types';
import type { Engine } from '../../core/engine/layout';
import { type Lead, roleNamed } from '../../core/signal/lead-map';

/**
 * Both ends of every wire of a circuit, each once: where a recorder can be put where no pin table is known.
 * Ends that lie at the reference are left out: the recorder's own ground is there.
 */
export function endsOfWires(circuit: LibraryCircuit, engine: Engine): readonly Omit<Lead, 'lead'>[] {
  const wires = expandElements(circuit, wiringOf(engine)).filter((e) => e.symbol === 'wire');
  const ends = new Map<string, string>();
  for (const { from, to, label } of wires)
    for (const end of [from, to]) if (end !== circuit.reference && !ends.has(end)) ends.set(end, label);
  return [...ends].map(([end, wire]) => ({
    signal: wire.replace(/ (wire|cable)$/, ''),
    role: roleNamed(`${wire} ${end}`),
    connector: `${circuit.name}: ${end}`,
    pin: '',
    colour: '',
  }));
}

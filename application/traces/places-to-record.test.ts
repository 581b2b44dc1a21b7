import { expandElements, wiringOf } from '../../core/circuits/expand';
import { CIRCUITS } from '../../core/circuits/library';
import type { Engine } from '../../core/engine/layout';
import { endsOfWires } from './places-to-record';

const V8: Engine = { layout: 'vee', cylinders: 8 };
const of = (id: string) => {
  const circuit = CIRCUITS.find((c) => c.id === id);
  if (!circuit) throw new Error(`no circuit ${id}`);
  return endsOfWires(circuit, V8);
};

it('offers both ends of each wire of a sensor, once', () => {
  const ends = of('sensor-hall').map((e) => e.connector);
  expect(ends).toContain('Hall sensor: signal at sensor');
  expect(ends).toContain('Hall sensor: signal pin');
  expect(new Set(ends).size).toBe(ends.length);
});

it('offers the wires of each cylinder, and never the reference', () => {
  for (const circuit of CIRCUITS) {
    const ends = endsOfWires(circuit, V8);
    const wires = expandElements(circuit, wiringOf(V8)).filter((e) => e.symbol === 'wire');
    expect(ends.length).toBeLessThanOrEqual(2 * wires.length);
    expect(ends.every((e) => !e.connector.endsWith(`: ${circuit.reference}`))).toBe(true);
    // As the plan of the leads is kept.
    expect(ends.every((e) => e.connector.length <= 120 && e.signal !== '')).toBe(true);
  }
  expect(of('glow-relay').filter((e) => / 8$/.test(e.connector)).length).toBeGreaterThan(0);
});

import { CIRCUITS } from '../../../core/circuits/library';
import type { Engine } from '../../../core/engine/layout';
import { seededRandom } from '../../../core/numerics/random';
import type { Quantity } from '../../../core/quantity/units';
import { lineOf, type ProbePlace, SimulatedMeter } from '../../../core/simulate/meter';
import { type CloseFeed, lineTaker, now_s, type Tell } from './feed';

const PACE_ms = 100;

/**
 * A meter that is not there, at a circuit that is not there: the demo’s. One part is open, another one’s
 * contact wanders.
 */
export interface SimulatedFeed {
  readonly positions: readonly (number | string)[];
  readonly put: (place: ProbePlace) => void;
  readonly open: (tell: Tell) => CloseFeed;
}

/** `null`: no circuit of the library is read by this test. */
export function simulatedFeed(test: string, engine: Engine, quantity: Quantity): SimulatedFeed | null {
  const circuit = CIRCUITS.find((c) => c.probes.some((p) => p.test === test && p.mode === quantity));
  if (!circuit) return null;
  const random = seededRandom(Date.now() % 100_000);
  const scene = { circuit, engine, faults: [], test, wanders: [], random };
  const meter = new SimulatedMeter(scene);
  meter.mode = meter.testMode();
  const positions = meter.positions();
  const bad = positions[3];
  const part = circuit.perCylinder.find((e) => circuit.suspects.some((s) => s.element === e.id && s.is === 'part'));
  meter.change({
    faults: part && bad !== undefined ? [{ element: part.id.replace('{}', String(bad)), kind: 'open' }] : [],
    wanders: positions.slice(5, 6),
  });
  return {
    positions,
    put: (place) => void meter.put(place, now_s()),
    open: (tell) => {
      const take = lineTaker({ kind: 'serial', baud: 9600, speaks: 'unasked' }, quantity, tell);
      tell({ kind: 'connected', name: 'The simulated meter' });
      const timer = setInterval(() => take(lineOf(meter.show(now_s()), meter.mode)), PACE_ms);
      return () => clearInterval(timer);
    },
  };
}

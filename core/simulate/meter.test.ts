import { CIRCUITS } from '../circuits/library';
import { readUnasked } from '../instrument/unasked';
import { seededRandom } from '../numerics/random';
import { lineOf, type MeterScene, SimulatedMeter } from './meter';

const circuit = CIRCUITS.find((c) => c.id === 'glow-relay');
if (!circuit) throw new Error('the library has no glow plugs');
const scene = (more: Partial<MeterScene> = {}): MeterScene => ({
  circuit,
  engine: { layout: 'vee', cylinders: 8 },
  faults: [],
  test: 'glow-plug-resistance',
  wanders: [],
  random: seededRandom(5),
  ...more,
});
/** Mean of what it shows at rest. */
function atRest(meter: SimulatedMeter, from_s = 2): number {
  const shown = Array.from({ length: 40 }, (_, i) => meter.show(from_s + i / 10).value ?? NaN);
  return shown.reduce((a, b) => a + b, 0) / shown.length;
}

it('reads each plug of the circuit with its leads, and overload on nothing', () => {
  const meter = new SimulatedMeter(scene());
  expect(meter.testMode()).toBe('resistance');
  expect(meter.positions()).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
  expect(meter.show(1).value).toBeNull();
  meter.put(1, 1);
  const plug = circuit.values.plug?.value ?? NaN;
  expect(atRest(meter, 3)).toBeCloseTo(plug + 0.18, 1);
  meter.put('together', 9);
  expect(atRest(meter, 11)).toBeCloseTo(0.18, 2);
  expect(meter.put(9, 12)).toBe(false);
});

it('shows the fault of one position there only', () => {
  const meter = new SimulatedMeter(scene({ faults: [{ element: 'plug 4', kind: 'open' }] }));
  meter.put(4, 0);
  expect(meter.show(3).value).toBeNull();
  meter.put(5, 4);
  expect(meter.show(7).value).not.toBeNull();
});

it('looks for its range, settles, and wanders where it is told to', () => {
  const meter = new SimulatedMeter(scene({ wanders: [6] }));
  meter.put(2, 0);
  expect(meter.show(0.2).step).toBeGreaterThan(meter.show(2).step);
  const spread = (from: number): number => {
    const v = Array.from({ length: 30 }, (_, i) => meter.show(from + i / 10).value ?? 0);
    return Math.max(...v) - Math.min(...v);
  };
  expect(spread(2)).toBeLessThan(0.02);
  meter.put(6, 9);
  expect(spread(11)).toBeGreaterThan(0.2);
});

it('sends lines that say what it shows', () => {
  for (const display of [
    { value: 0.612, step: 0.001 },
    { value: 97_800, step: 100 },
    { value: 2_201_000, step: 1000 },
    { value: null, step: 0 },
  ]) {
    const read = readUnasked(lineOf(display, 'resistance', ['LOBAT']));
    if (!read.ok) throw new Error(read.why);
    expect(read.value).toMatchObject({ quantity: 'resistance', lowBattery: true });
    if (display.value === null) expect(read.value.value).toBeNull();
    else expect(read.value.value).toBeCloseTo(display.value, 6);
  }
});

import { findCircuit } from '../core/circuits/library';
import { drawCase } from './cases';
import { display } from './meter';
import { randomFrom } from './random';
import { solveSheets } from './spice';

const circuit = (id: string) => {
  const found = findCircuit(id);
  if (!found.ok) throw new Error(JSON.stringify(found.error));
  return found.value;
};

test('a voltage divider as Ohm has it, and a node that is wanted twice', async () => {
  const [solved, broken] = await solveSheets([
    { cards: ['V1 a 0 DC 12', 'R1 a b 2', 'R2 b 0 1'], wanted: ['v(b)', 'v(a)'] },
    { cards: ['R1 a 0 1'], wanted: ['v(nowhere)'] },
  ]);
  expect(solved?.get('v(b)')).toBeCloseTo(4, 6);
  expect(broken).toBeNull();
});

test('the same seed draws the same vehicle; another one another', async () => {
  const readings = async (seed: number) => {
    const c = await drawCase('nothing', circuit('module-input'), seed);
    return ['feed', 'ground'].map((p) => c?.read('module-input', p)?.entry);
  };
  expect(await readings(3)).toEqual(await readings(3));
  expect(await readings(3)).not.toEqual(await readings(4));
});

test('a vehicle with nothing wrong reads like one: feed near the battery, little lost to ground', async () => {
  const c = await drawCase('nothing', circuit('module-input'), 8);
  expect(parseFloat(c?.read('module-input', 'feed')?.entry ?? '')).toBeGreaterThan(11.5);
  expect(parseFloat(c?.read('module-input', 'ground')?.entry ?? '')).toBeLessThan(0.6);
  expect(c?.read('module-input', 'nowhere')).toBeNull();
});

test('of a set all but one are bad, each at its own place', async () => {
  const c = await drawCase('set', circuit('glow-relay'), 11);
  expect(new Set(c?.faults.map((f) => f.position)).size).toBe(5);
  expect(c?.faults.every((f) => f.named?.startsWith('part|plug|'))).toBe(true);
});

test('a fault that is not listed is named by no suspect, and shows somewhere', async () => {
  for (const seed of [1, 2, 3]) {
    const c = await drawCase('unlisted', circuit('sensor-hall'), seed);
    if (!c) continue;
    expect(c.faults[0]?.named).toBeNull();
    expect(c.faults[0]?.stretch.length).toBeGreaterThan(0);
  }
});

test('what a display shows is what a technician types', () => {
  expect(display('resistance', 0.617)).toBe('0.62 ohm');
  expect(display('resistance', 4512)).toBe('4.51 kohm');
  expect(display('resistance', 5e7)).toBe('OL');
  expect(display('voltage', 12.414)).toBe('12.41 V');
});

test('numbers are even, and those with a tail are never negative', () => {
  const r = randomFrom(5);
  const all = Array.from({ length: 4000 }, () => r.even());
  expect(all.reduce((a, b) => a + b, 0) / all.length).toBeCloseTo(0.5, 1);
  expect(Math.min(...Array.from({ length: 1000 }, () => r.exponential()))).toBeGreaterThanOrEqual(0);
});

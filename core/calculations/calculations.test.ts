import fc from 'fast-check';
import { stateOfCharge_percent } from './battery';
import { runCalculation } from './run';
import { findCalculation, CALCULATIONS } from './calculations';

const run = (id: string, typed: Record<string, string>): number[] => {
  const sum = findCalculation(id);
  if (!sum) throw new Error(`no sum ${id}`);
  const result = runCalculation(sum, {
    ...Object.fromEntries(sum.inputs.map((s) => [s.id, s.initial === undefined ? '' : String(s.initial)])),
    ...typed,
  });
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value.map((o) => o.value);
};
const close = (numbers: number[]) => numbers.map((n) => expect.closeTo(n, 3) as number);

/** Worked by hand. */
test.each<[string, Record<string, string>, number[]]>([
  ['ohms-law', { u: '12', r: '0.6' }, [20, 12, 240, 0]],
  ['ohms-law', { u: '12', r: '1', rs: '5' }, [2, 2, 4, 10]],
  // Common practice: 5 ohm in series with a 1 ohm plug leaves one sixth of the current.
  ['plug-behind-harness', { u: '12', r: '1', rs: '5' }, [2, 16.6667, 4, 2.7778]],
  ['series-parallel', { r: '4 4 2' }, [10, 1]],
  ['series-parallel', { r: '1k; 1k' }, [2000, 500]],
  ['series-parallel', { r: '0 5' }, [5, 0]],
  ['leads', { r: '0.9', z: '0.2', e: '0.3' }, [0.4]],
  ['copper-at-20', { r: '1.1', t: '45' }, [1.0016]],
  ['clamp', { u: '131', u0: '2' }, [12.9]],
  ['clamp', { u: '85', k: '100' }, [0.85]],
  ['ratiometric', { p1: '400', p: '200' }, [2.5]],
  ['ratiometric', { p1: '400', u: '4.5' }, [400]],
  ['two-gauges', { p1: '12', p2: '4.5' }, [7.5]],
  ['pressure-units', { p: '100' }, [1, 14.5038, 29.53]],
  ['torque-units', { m: '10', of: '1' }, [13.5582]],
  ['state-of-charge', { u: '12.45' }, [75]],
  ['state-of-charge', { u: '25.3', n: '2' }, [100]],
  // 10 m of 2.5 mm² at 20 °C: 10/(58·2.5) ohm.
  ['wire-mm2', { a: '2.5', l: '10', i: '20' }, [68.9655, 1.3793, 27.5862, 79.8, 1.596]],
  ['wire-awg', { n: '10', l: '10', i: '0' }, [5.2612, 32.7715, 0, 0]],
  ['wire-mm2', { a: '2.4', l: '10', i: '0' }, [71.8391, 0, 0]],
  ['pt100', { t: '100' }, [138.5055]],
  ['pt100', { r: '60.2558' }, [-100]],
  ['ntc-beta', { b: '3500', t: '20' }, [2500]],
  ['ntc-beta', { b: '3500', r: '2500' }, [20]],
  ['ntc-steinhart-hart', { a: '1.129148e-3', b: '2.34125e-4', c: '8.76741e-8', r: '10k' }, [24.9997]],
])('%s of %j', (id, typed, expected) => expect(run(id, typed)).toEqual(close(expected)));

test('a problem stands at its field', () => {
  const sum = findCalculation('ohms-law')!;
  expect(runCalculation(sum, { u: '', r: 'florp', rs: '-1' })).toMatchObject({
    ok: false,
    error: [{ path: '/u' }, { path: '/r' }, { path: '/rs', message: 'At least 0.' }],
  });
  expect(runCalculation(sum, { u: '12', r: '0' })).toMatchObject({
    ok: false,
    error: [{ path: '', message: expect.stringContaining('no limit') as string }],
  });
  expect(
    runCalculation(findCalculation('ratiometric')!, { ref: '5', p0: '0', r0: '10', p1: '0', r1: '90', u: '2' }),
  ).toMatchObject({
    ok: false,
  });
  expect(runCalculation(findCalculation('leads')!, { r: '0.1', z: '0.2' })).toMatchObject({ ok: false });
});
test('every sum says its formula and its source', () => {
  expect(new Set(CALCULATIONS.map((s) => s.id)).size).toBe(CALCULATIONS.length);
  for (const s of CALCULATIONS)
    expect([s.formula.length > 3, s.source.length > 3, s.inputs.length > 0]).toEqual([true, true, true]);
});
test('pressure and back, thermistor and back', () => {
  fc.assert(
    fc.property(fc.double({ min: 1, max: 1e5, noNaN: true }), (p) => {
      const [, psi = 0] = run('pressure-units', { p: p.toFixed(6) });
      expect(run('pressure-units', { p: psi.toFixed(9), of: '2' })[0]).toBeCloseTo(Number(p.toFixed(6)), 4);
    }),
  );
  fc.assert(
    fc.property(fc.integer({ min: -40, max: 150 }), (t) => {
      const [r = 0] = run('ntc-beta', { b: '3500', t: String(t) });
      expect(run('ntc-beta', { b: '3500', r: r.toFixed(6) })[0]).toBeCloseTo(t, 2);
    }),
  );
});
test('the state of charge never leaves 0 to 100 and never falls with the voltage', () => {
  fc.assert(
    fc.property(fc.double({ min: 0, max: 16, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (v, more) => {
      const [low, high] = [stateOfCharge_percent(v, 1), stateOfCharge_percent(v + more, 1)];
      expect(low).toBeGreaterThanOrEqual(0);
      expect(high).toBeLessThanOrEqual(100);
      expect(high).toBeGreaterThanOrEqual(low);
    }),
  );
});

import { spawnSync } from 'node:child_process';
import fc from 'fast-check';
import { CIRCUITS } from '../circuits/library';
import { prepare } from './diagnose';
import { readingLikelihood } from './likelihood';
import { OVERLOAD_ohm } from './setup-predictor';
import type { Predictions } from './predictions';
import type { DiagnosticReading } from './types';

const CYLINDERS = 4;
const kept = CIRCUITS.map((circuit) => prepare({ circuit, cylinders: CYLINDERS }).predictions);

/**
 * Any point of any circuit under any suspect that neither comes and goes nor is a set: numbers, so that what
 * fails can be read.
 */
const anywhere = fc.tuple(fc.nat(), fc.nat(), fc.nat());
function at([circuit, suspect, point]: readonly [number, number, number]): {
  p: Predictions;
  h: number;
  instance: number;
} {
  const p = kept[circuit % kept.length] as Predictions;
  const steady = p.hypotheses.flatMap((h, i) => (h.members.some((m) => m.intermittent) ? [] : [i]));
  return { p, h: steady[suspect % steady.length] as number, instance: point % p.instances.length };
}

function read(p: Predictions, instance: number, value: number | 'OL', u = 0): DiagnosticReading {
  const { test, position } = p.instances[instance] as Predictions['instances'][number];
  return { test, position, kind: value === 'OL' ? 'overload' : 'value', value: value === 'OL' ? 0 : value, u };
}

test('whatever is predicted, the readings beside misreads and wanders are one in all', () => {
  fc.assert(
    fc.property(anywhere, (where) => {
      const { p, h, instance } = at(where);
      const k = h * p.instances.length + instance;
      const mean = p.mean[k] as number;
      const isOhms = p.instances[instance]?.mode === 'resistance';
      // Where a meter would show overload half of the time, the two outcomes are not told apart by an
      // integral.
      fc.pre(!isOhms || mean + (p.above[k] as number) < Math.log(OVERLOAD_ohm) - 3);
      const likely = (x: number): number =>
        readingLikelihood(p, h, instance, read(p, instance, isOhms ? Math.exp(x) : x), 0);
      const [from, to] = isOhms ? [Math.log(1e-3), Math.log(1e9)] : [mean - 40, mean + 40];
      const misread = likely(isOhms ? Math.log(1e12) : 1e6);
      const steps = 8_000;
      let sum = 0;
      for (let i = 0; i < steps; i++) sum += likely(from + ((i + 0.5) / steps) * (to - from)) - misread;
      const whole = (sum * (to - from)) / steps / (0.99 * 0.985);
      // The contact of the probes counts less for a high reading than for a low one, and below an ohm it is
      // ohms that are compared: near there a little is missing or too much.
      const isLow = isOhms && mean < Math.log(10);
      expect(whole).toBeGreaterThan(isLow ? 0.5 : 0.95);
      expect(whole).toBeLessThan(isLow ? 1.4 : 1.04);
    }),
    { numRuns: 60, seed: 20261126 },
  );
});

test('a size between two of the grid is as likely as one on it', () => {
  const p = kept.find((x) => x.instances.some((i) => i.test === 'injector-resistance-piezo')) as Predictions;
  const instance = p.instances.findIndex((i) => i.test === 'injector-resistance-piezo' && i.position === 1);
  const sizes = p.hypotheses.flatMap((x, i) => (x.key === 'injector 1: has a failed stack' ? [i] : []));
  const [first, last] = [sizes[0], sizes.at(-1)].map((h) => p.hypotheses[h as number]?.members[0]?.ohms ?? NaN);
  const likely = (ohms: number): number =>
    sizes.reduce((sum, h) => sum + readingLikelihood(p, h, instance, read(p, instance, ohms), 0), 0);
  const all = Array.from({ length: 60 }, (_, i) => likely(first! * (last! / first!) ** (i / 59)));
  expect(sizes.length).toBeGreaterThan(2);
  expect(Math.max(...all) / Math.min(...all)).toBeLessThan(1.7);
});

test('a reading of a size between two of the grid, by numpy and scipy', () => {
  const p = kept.find((x) => x.instances.some((i) => i.test === 'injector-resistance-piezo')) as Predictions;
  const instance = p.instances.findIndex((i) => i.test === 'injector-resistance-piezo' && i.position === 1);
  const h = p.hypotheses.findIndex((x) => x.key === 'injector 1: has a failed stack' && x.members[0]?.ohms === 200);
  const k = h * p.instances.length + instance;
  const cases = [20, 31, 60, 200, 500, 775, 2000].map((ohms) => ({
    x: Math.log(ohms) - (p.mean[k] as number),
    sd: Math.hypot(p.sd[k] as number, 0.1, 0.07 / Math.max(ohms, Math.exp(p.mean[k] as number))),
    below: p.below[k],
    above: p.above[k],
    own: readingLikelihood(p, h, instance, read(p, instance, ohms), 0),
  }));
  // An even distribution read with an error of Student's t with four degrees of freedom, convolved by
  // quadrature; 1.5 % misreads even over nine decades, of those the prefix in 15 %; 1 % wander.
  const script = `
import json, sys
import numpy as np
from scipy.integrate import quad
from scipy.stats import t as student
out = []
for c in json.load(sys.stdin):
    a, b = -c['below'], c['above']
    at = lambda x: quad(lambda t: student.pdf(x - t, 4, scale=c['sd']) / (b - a), a, b, points=[min(max(x, a), b)], epsabs=1e-13)[0]
    exact, astray = at(c['x']), 0.015 * 0.7 / np.log(1e9)
    other = 0 if exact > 10 * astray else 0.015 * 0.15 / 2 * (at(c['x'] + np.log(1e3)) + at(c['x'] - np.log(1e3)))
    out.append(0.99 * (0.985 * exact + astray + other))
print(json.dumps(out))
`;
  const run = spawnSync('/usr/bin/python3', ['-c', script], { input: JSON.stringify(cases), encoding: 'utf8' });
  if (run.status !== 0) throw new Error(run.stderr || String(run.error));
  const theirs = JSON.parse(run.stdout) as number[];
  for (const [i, c] of cases.entries()) expect(c.own / (theirs[i] as number)).toBeCloseTo(1, 3);
});

test('far from everything predicted only the misread is left, and it is never nothing', () => {
  fc.assert(
    fc.property(anywhere, fc.double({ min: 1e-3, max: 1e9, noNaN: true }), (where, value) => {
      const { p, h, instance } = at(where);
      const likelihood = readingLikelihood(p, h, instance, read(p, instance, value, 0.01), 0);
      expect(likelihood).toBeGreaterThan(1e-6);
      expect(Number.isFinite(likelihood)).toBe(true);
    }),
  );
});

import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { solveCircuit } from './solve';
import { randomCircuits, type RandomCircuit } from './testing';
import type { Element } from './types';

// Against ngspice, an independent circuit simulator, on random networks from milliohms to megohms.

const HOW_MANY = 60;
/** ngspice has no ideal wires: a closed switch and a short are a microohm there. */
const WIRE_ohm = 1e-6;

function card(e: Element, faults: RandomCircuit['faults']): string | null {
  const name = (n: string): string => (n === 'gnd' ? '0' : n);
  const fault = faults.find((f) => f.element === e.id);
  const ends = `${name(e.from)} ${name(e.to)}`;
  if (fault?.kind === 'open') return null;
  if (fault?.kind === 'short') return `R${e.id} ${ends} ${WIRE_ohm}`;
  switch (e.kind) {
    case 'resistor':
      return `R${e.id} ${ends} ${(fault?.kind === 'resistance' ? fault.ohms : e.ohms + (fault?.kind === 'series' ? fault.ohms : 0)).toPrecision(17)}`;
    case 'voltage':
      return `V${e.id} ${ends} DC ${e.volts.toPrecision(17)}`;
    case 'current':
      return `I${e.id} ${ends} DC ${e.amperes.toPrecision(17)}`;
    case 'switch':
      return e.closed ? `R${e.id} ${ends} ${WIRE_ohm}` : null;
  }
}

test('node voltages as ngspice has them', () => {
  const cases = fc.sample(randomCircuits(16), { numRuns: HOW_MANY, seed: 20261123 });
  const folder = mkdtempSync(path.join(tmpdir(), 'mudflat-spice-'));
  const control = cases.flatMap(({ circuit, faults }, i) => {
    writeFileSync(
      path.join(folder, `c${i}.cir`),
      [
        `case ${i}`,
        ...circuit.elements.flatMap((e) => card(e, faults) ?? []),
        '.options reltol=1e-9 abstol=1e-15 vntol=1e-12 gmin=1e-20',
        '.end',
        '',
      ].join('\n'),
    );
    return [`source ${path.join(folder, `c${i}.cir`)}`, 'op', `echo CASE ${i}`, 'print all'];
  });
  const script = path.join(folder, 'all.cir');
  writeFileSync(script, ['all', '.control', 'set numdgt=15', ...control, 'quit', '.endc', '.end', ''].join('\n'));
  const { stdout, error } = spawnSync('ngspice', ['-b', script], { encoding: 'utf8', maxBuffer: 1e8 });
  if (error) throw new Error('ngspice is needed here: ./mudflat test installs it', { cause: error });
  const found = stdout.split(/^CASE (\d+)$/m).slice(1);
  let compared = 0;
  for (let k = 0; k < found.length; k += 2) {
    const own = cases[Number(found[k])];
    if (!own) throw new Error(`ngspice answered a case that was not asked: ${found[k]}`);
    const solved = solveCircuit(own.circuit, own.faults);
    if (!solved.ok) throw new Error(JSON.stringify(solved.error));
    const largest = Math.max(1e-3, ...Object.values(solved.value.nodes).map(Math.abs));
    for (const [, node = '', value] of (found[k + 1] ?? '').matchAll(/^([nu]\d+) = (\S+)/gm)) {
      expect(Math.abs((solved.value.nodes[node] ?? NaN) - Number(value))).toBeLessThan(2e-5 * largest);
      compared++;
    }
  }
  expect([found.length / 2, compared > 300]).toEqual([HOW_MANY, true]);
});

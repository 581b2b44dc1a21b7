import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import fc from 'fast-check';
import { measureCircuit } from './measure';
import { solveCircuit } from './solve';
import { randomCircuits, type RandomCircuit } from './testing';
import type { Element, Measure } from './types';

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

/** A netlist for ngspice, and what of it is printed. */
interface Sheet {
  readonly cards: readonly string[];
  readonly print: string;
}

/** What ngspice prints for each sheet, by the printed name. */
function spice(sheets: readonly Sheet[]): ReadonlyMap<string, number>[] {
  const folder = mkdtempSync(path.join(tmpdir(), 'mudflat-spice-'));
  const control = sheets.flatMap(({ cards, print }, i) => {
    const options = '.options reltol=1e-9 abstol=1e-15 vntol=1e-12 gmin=1e-20';
    writeFileSync(path.join(folder, `c${i}.cir`), [`case ${i}`, ...cards, options, '.end', ''].join('\n'));
    return [`source ${path.join(folder, `c${i}.cir`)}`, 'op', `echo CASE ${i}`, `print ${print}`];
  });
  const script = path.join(folder, 'all.cir');
  writeFileSync(script, ['all', '.control', 'set numdgt=15', ...control, 'quit', '.endc', '.end', ''].join('\n'));
  const { stdout, error } = spawnSync('ngspice', ['-b', script], { encoding: 'utf8', maxBuffer: 1e8 });
  if (error) throw new Error('ngspice is needed here: ./mudflat test installs it', { cause: error });
  const found = new Map<number, ReadonlyMap<string, number>>();
  const parts = stdout.split(/^CASE (\d+)$/m).slice(1);
  for (let k = 0; k < parts.length; k += 2) {
    const values = [...(parts[k + 1] ?? '').matchAll(/^(\S+) = (\S+)/gm)];
    found.set(Number(parts[k]), new Map(values.map(([, name = '', value]) => [name, Number(value)])));
  }
  return sheets.map((_, i) => {
    const one = found.get(i);
    if (!one?.size) throw new Error(`ngspice did not solve sheet ${i}`);
    return one;
  });
}

const solved = <T>(result: { ok: true; value: T } | { ok: false; error: unknown }): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
};

test('node voltages as ngspice has them', () => {
  const cases = fc.sample(randomCircuits(16), { numRuns: HOW_MANY, seed: 20261123 });
  const found = spice(
    cases.map(({ circuit, faults }) => ({
      cards: circuit.elements.flatMap((e) => card(e, faults) ?? []),
      print: 'all',
    })),
  );
  let compared = 0;
  for (const [i, { circuit, faults }] of cases.entries()) {
    const { nodes } = solved(solveCircuit(circuit, faults));
    const largest = Math.max(1e-3, ...Object.values(nodes).map(Math.abs));
    for (const [node, value] of found[i] ?? []) {
      if (!/^[nu]\d+$/.test(node)) continue;
      expect(Math.abs((nodes[node] ?? NaN) - value)).toBeLessThan(2e-5 * largest);
      compared++;
    }
  }
  expect(compared).toBeGreaterThan(300);
});

const LEAD_ohm = 0.2;

/**
 * The three ways to hold a meter to a circuit, and the same meter as cards: ten megohms and its leads, the
 * leads and one ampere, or a shunt in the way.
 */
function held({ circuit, faults }: RandomCircuit, k: number): { measure: Measure; sheet: Sheet } | null {
  const nodes = [...new Set(circuit.elements.flatMap((e) => [e.from, e.to]))].filter((n) => !n.startsWith('u'));
  const [red, black] = [nodes[k % nodes.length], nodes[(k * 7 + 1) % nodes.length]];
  if (!red || !black || red === black) return null;
  const spiceName = (n: string): string => (n === 'gnd' ? '0' : n);
  const cards = circuit.elements.flatMap((e) => card(e, faults) ?? []);
  if (k % 3 === 0)
    return {
      measure: { id: 'm', mode: 'voltage', red, black, meter_ohm: 1e7, lead_ohm: LEAD_ohm },
      sheet: {
        cards: [...cards, `RLEAD ${spiceName(red)} tip ${LEAD_ohm}`, `RMETER tip ${spiceName(black)} 1e7`],
        print: black === 'gnd' ? 'v(tip)' : `v(tip)-v(${black})`,
      },
    };
  if (k % 3 === 1) {
    const asleep = circuit.elements.filter((e) => e.kind === 'resistor' || e.kind === 'switch');
    return {
      measure: { id: 'm', mode: 'resistance', red, black, lead_ohm: LEAD_ohm },
      sheet: {
        // The black lead is the ground of this sheet, so the name of the ground is another node's.
        cards: [
          ...asleep.flatMap((e) => card(e, faults) ?? []).map((c) => swapGround(c, spiceName(black))),
          `IMETER 0 tip DC 1`,
          `RLEAD tip ${spiceName(red) === '0' ? 'was0' : red} ${LEAD_ohm}`,
        ],
        print: 'v(tip)',
      },
    };
  }
  const resistors = circuit.elements.filter((e) => e.kind === 'resistor' && !faults.some((f) => f.element === e.id));
  const at = resistors[k % Math.max(1, resistors.length)];
  if (at?.kind !== 'resistor') return null;
  return {
    measure: { id: 'm', mode: 'current', element: at.id, meter_ohm: 0.01 },
    sheet: {
      cards: [
        ...cards.filter((c) => !c.startsWith(`R${at.id} `)),
        `R${at.id} ${spiceName(at.from)} shunt ${at.ohms.toPrecision(17)}`,
        `RSHUNT shunt amps 0.01`,
        `VAMPS amps ${spiceName(at.to)} DC 0`,
      ],
      print: 'vamps#branch',
    },
  };
}

/** The same card with `node` as the ground. */
function swapGround(one: string, node: string): string {
  const [name, a, b, ...rest] = one.split(' ');
  const swap = (n: string | undefined): string => (n === node ? '0' : n === '0' ? 'was0' : (n ?? ''));
  return [name, swap(a), swap(b), ...rest].join(' ');
}

test('volts, ohms and amperes as a meter held to the circuit reads them in ngspice', () => {
  const cases = fc.sample(randomCircuits(16), { numRuns: 3 * HOW_MANY, seed: 20261126 }).flatMap((c, k) => {
    const how = held(c, k);
    return how ? [{ ...c, ...how }] : [];
  });
  const found = spice(cases.map((c) => c.sheet));
  const wrong: unknown[] = [];
  const seen = { voltage: 0, resistance: 0, current: 0 };
  for (const [i, { circuit, faults, measure }] of cases.entries()) {
    const [own] = solved(measureCircuit(circuit, faults, [measure]));
    const [theirs = NaN] = [...(found[i]?.values() ?? [])];
    const { nodes, branches } = solved(solveCircuit(circuit, faults));
    const scale =
      measure.mode === 'resistance'
        ? Math.abs(theirs)
        : Math.max(...Object.values(measure.mode === 'voltage' ? nodes : branches).map(Math.abs));
    const off = Math.abs((own?.value ?? NaN) - theirs) / Math.max(1e-6, scale);
    if (!(off < 5e-5)) wrong.push({ circuit, faults, measure, own, theirs });
    seen[measure.mode]++;
  }
  expect(wrong).toEqual([]);
  expect(Math.min(seen.voltage, seen.resistance, seen.current)).toBeGreaterThan(HOW_MANY / 2);
});

import fc from 'fast-check';
import { expandElements } from './expand';
import { measureCircuit } from './measure';
import { solveCircuit } from './solve';
import { type RandomCircuit, randomCircuits } from './testing';
import type { Circuit, Element, Fault, Measure } from './types';

const R = (id: string, from: string, to: string, ohms: number): Element => ({ id, kind: 'resistor', from, to, ohms });
const U = (id: string, from: string, to: string, volts: number): Element => ({ id, kind: 'voltage', from, to, volts });
const I = (id: string, from: string, to: string, amperes: number): Element => ({
  id,
  kind: 'current',
  from,
  to,
  amperes,
});
const S = (id: string, from: string, to: string, closed: boolean): Element => ({
  id,
  kind: 'switch',
  from,
  to,
  closed,
});
const circuit = (...elements: Element[]): Circuit => ({ reference: 'gnd', elements });
function solved(c: Circuit, faults: readonly Fault[] = []) {
  const s = solveCircuit(c, faults);
  if (!s.ok) throw new Error(JSON.stringify(s.error));
  return s.value;
}
const read = (
  c: Circuit,
  m:
    | Omit<Extract<Measure, { mode: 'resistance' }>, 'id'>
    | Omit<Extract<Measure, { mode: 'voltage' }>, 'id'>
    | Omit<Extract<Measure, { mode: 'current' }>, 'id'>,
  faults: readonly Fault[] = [],
) => {
  const done = measureCircuit(c, faults, [{ id: 'm', ...m }]);
  if (!done.ok) throw new Error(JSON.stringify(done.error));
  return done.value[0];
};

const GLOW = circuit(
  U('BAT', 'bat', 'gnd', 12.6),
  R('RI', 'bat', 'feed', 0.02),
  S('K1', 'feed', 'bus', true),
  R('G1', 'bus', 'gnd', 0.6),
);

describe('worked by hand', () => {
  test('a plug at a battery: 12.6 V over 0.62 ohm', () => {
    const { nodes, branches } = solved(GLOW);
    expect(nodes.bus).toBeCloseTo((12.6 * 0.6) / 0.62, 12);
    expect([branches.G1, branches.K1, branches.BAT].map((a) => a?.toFixed(9))).toEqual([
      '20.322580645',
      '20.322580645',
      '-20.322580645',
    ]);
  });
  test('5 ohm in series with a 1 ohm plug leaves one sixth of the current', () => {
    const c = circuit(U('BAT', 'bat', 'gnd', 12), R('W', 'bat', 'plug', 0), R('G', 'plug', 'gnd', 1));
    expect(solved(c, [{ element: 'W', kind: 'series', ohms: 5 }]).branches.G).toBeCloseTo(2, 12);
    expect(solved(c).branches.G).toBeCloseTo(12, 12);
  });
  test('a bridge: 1-2-3-4 ohm with 5 ohm across, 10 V (Kirchhoff by hand: 5/31 A across)', () => {
    // Nodes a, b from 10 V: (10-a)/1 = a/3 + (a-b)/5; (10-b)/2 = b/4 + (b-a)/5.  a = 7.2893, b = 6.8182 by
    // Cramer's rule below.
    const c = circuit(
      U('E', 'top', 'gnd', 10),
      R('R1', 'top', 'a', 1),
      R('R2', 'top', 'b', 2),
      R('R3', 'a', 'gnd', 3),
      R('R4', 'b', 'gnd', 4),
      R('R5', 'a', 'b', 5),
    );
    const [a11, a12, a22, b1, b2] = [1 + 1 / 3 + 1 / 5, -1 / 5, 1 / 2 + 1 / 4 + 1 / 5, 10, 5];
    const det = a11 * a22 - a12 * a12;
    expect(solved(c).nodes.a).toBeCloseTo((b1 * a22 - a12 * b2) / det, 12);
    expect(solved(c).nodes.b).toBeCloseTo((a11 * b2 - a12 * b1) / det, 12);
  });
  test('two sources with inner resistance share; a current source adds', () => {
    const c = circuit(
      U('A', 'a', 'gnd', 12),
      R('RA', 'a', 'n', 1),
      U('B', 'b', 'gnd', 6),
      R('RB', 'b', 'n', 2),
      R('L', 'n', 'gnd', 2),
      I('J', 'gnd', 'n', 1),
    );
    expect(solved(c).nodes.n).toBeCloseTo((12 + 3 + 1) / (1 + 0.5 + 0.5), 12);
  });
  test('milliohms beside megohms lose nothing', () => {
    const c = circuit(
      U('E', 'e', 'gnd', 12),
      R('W', 'e', 'a', 0.001),
      R('X', 'a', 'b', 5e6),
      R('Y', 'b', 'gnd', 5e6),
      R('Z', 'a', 'gnd', 0.002),
    );
    const a = (12 * 1000) / (1000 + 500 + 1e-7);
    expect(solved(c).nodes.b).toBeCloseTo(a / 2, 12);
    expect(solved(c).branches.X).toBeCloseTo(a / 10e6, 18);
  });
});

describe('faults', () => {
  test.each<[Fault, number]>([
    [{ element: 'G1', kind: 'open' }, 12.6],
    [{ element: 'G1', kind: 'short' }, 0],
    [{ element: 'G1', kind: 'resistance', ohms: 1.2 }, (12.6 * 1.2) / 1.22],
    [{ element: 'K1', kind: 'series', ohms: 0.38 }, 7.56],
    [{ element: 'K1', kind: 'open' }, 0],
    [{ element: 'K1', kind: 'resistance', ohms: 0.38 }, 7.56],
    [{ element: 'BAT', kind: 'series', ohms: 0.38 }, 7.56],
    [{ element: 'BAT', kind: 'open' }, 0],
    [{ element: 'BAT', kind: 'short' }, 0],
  ])('%j', (fault, bus) => expect(solved(GLOW, [fault]).nodes.bus).toBeCloseTo(bus, 9));
  test('two on one element add up; open stays open', () => {
    expect(
      solved(GLOW, [
        { element: 'K1', kind: 'series', ohms: 0.18 },
        { element: 'K1', kind: 'series', ohms: 0.2 },
      ]).nodes.bus,
    ).toBeCloseTo(7.56, 9);
    expect(
      solved(GLOW, [
        { element: 'K1', kind: 'open' },
        { element: 'K1', kind: 'series', ohms: 1 },
      ]).nodes.bus,
    ).toBeCloseTo(0, 9);
  });
});

describe('what a meter shows', () => {
  test('10 megohm hardly loads a battery, and loads a megohm', () => {
    expect(read(GLOW, { mode: 'voltage', red: 'bus', black: 'gnd', meter_ohm: 10e6 })?.value).toBeCloseTo(
      12.1935484,
      6,
    );
    const weak = circuit(U('E', 'e', 'gnd', 10), R('X', 'e', 'n', 10e6));
    expect(read(weak, { mode: 'voltage', red: 'n', black: 'gnd', meter_ohm: 10e6 })?.value).toBeCloseTo(5, 9);
    expect(read(weak, { mode: 'voltage', red: 'n', black: 'gnd' })?.value).toBeCloseTo(10, 9);
  });
  test('ohms with the sources taken out, its leads in the reading; overload where nothing joins', () => {
    expect(read(GLOW, { mode: 'resistance', red: 'bus', black: 'gnd', lead_ohm: 0.2 })).toMatchObject({
      value: 0.8,
      overload: false,
    });
    expect(
      read(GLOW, { mode: 'resistance', red: 'bus', black: 'gnd' }, [{ element: 'G1', kind: 'open' }]),
    ).toMatchObject({ value: null, overload: true });
    expect(read(GLOW, { mode: 'resistance', red: 'bat', black: 'gnd' })?.value).toBeCloseTo(0.62, 12);
    expect(read(GLOW, { mode: 'resistance', red: 'gnd', black: 'gnd', lead_ohm: 0.3 })?.value).toBe(0.3);
  });
  test('more than the meter can push through is overload', () => {
    const c = circuit(R('B', 'pin', 'gnd', 180e3));
    expect(read(c, { mode: 'resistance', red: 'pin', black: 'gnd', overload_ohm: 200e3 })).toMatchObject({
      value: 180e3,
      overload: false,
    });
    expect(read(c, { mode: 'resistance', red: 'pin', black: 'gnd', overload_ohm: 150e3 })).toMatchObject({
      overload: true,
    });
  });
  test('amperes by clamp, and by a meter in the way', () => {
    expect(read(GLOW, { mode: 'current', element: 'RI' })?.value).toBeCloseTo(20.3225806, 6);
    expect(read(GLOW, { mode: 'current', element: 'RI', meter_ohm: 0.01 })?.value).toBeCloseTo(20, 9);
    expect(read(GLOW, { mode: 'current', element: 'BAT' })?.value).toBeCloseTo(-20.3225806, 6);
  });
});

describe('what cannot be', () => {
  const errors = (c: Circuit, faults: readonly Fault[] = []) => {
    const s = solveCircuit(c, faults);
    return s.ok ? [] : s.error;
  };
  test('a loop of ideal sources names its members, equal volts or not; a shorted source too', () => {
    expect(errors(circuit(U('A', 'a', 'gnd', 12), U('B', 'a', 'gnd', 12)))[0]?.message).toMatch(/^B, A form a loop/);
    expect(errors(circuit(U('A', 'a', 'gnd', 12), U('B', 'b', 'a', 1), S('K', 'b', 'gnd', true)))[0]?.message).toMatch(
      /K, .*B.*A|K, .*A.*B/,
    );
    expect(
      errors(GLOW, [
        { element: 'RI', kind: 'short' },
        { element: 'G1', kind: 'short' },
      ])[0]?.message,
    ).toContain('BAT');
  });
  test('a loop of wires alone is none', () =>
    expect(
      solved(circuit(U('E', 'e', 'gnd', 6), R('W1', 'e', 'n', 0), S('W2', 'e', 'n', true), R('L', 'n', 'gnd', 3)))
        .branches.L,
    ).toBeCloseTo(2, 12));
  test('a floating part is named and reads 0 V', () => {
    const { nodes, floating } = solved(
      circuit(U('E', 'e', 'gnd', 6), R('L', 'e', 'gnd', 3), R('X', 'p', 'q', 5), S('K', 'q', 'e', false)),
    );
    expect([floating, nodes.p, nodes.q]).toEqual([['p', 'q'], 0, 0]);
  });
  test('between parts that nothing joins there is no voltage to read, floating both or one', () => {
    const c = circuit(
      U('E', 'e', 'gnd', 6),
      R('L', 'e', 'gnd', 3),
      U('F', 'f', 'g', 9),
      R('M', 'f', 'g', 1e3),
      R('X', 'p', 'q', 5),
    );
    const volts = (red: string, black: string, meter_ohm?: number) =>
      read(c, { mode: 'voltage', red, black, meter_ohm })?.value;
    expect([volts('f', 'g'), volts('g', 'f')]).toEqual([9, -9]);
    for (const [red, black] of [
      ['f', 'e'],
      ['e', 'f'],
      ['f', 'q'],
      ['g', 'p'],
    ] as const) {
      expect(volts(red, black)).toBe(0);
      expect(volts(red, black, 1e7)).toBeCloseTo(0, 9);
    }
  });
  test('a current that cannot return names its source', () =>
    expect(
      errors(circuit(U('E', 'e', 'gnd', 6), R('L', 'e', 'gnd', 3), I('J', 'gnd', 'n', 1), R('X', 'n', 'm', 1)))[0],
    ).toMatchObject({ path: '/elements/2', message: expect.stringContaining('J pushes') as string }));
  test.each<[string, Circuit, Fault[], string]>([
    ['two of one name', circuit(R('A', 'a', 'gnd', 1), R('A', 'b', 'gnd', 1)), [], '/elements/1/id'],
    ['below zero', circuit(R('A', 'a', 'gnd', -1)), [], '/elements/0/ohms'],
    ['no number', circuit(R('A', 'a', 'gnd', NaN)), [], '/elements/0/resistor'],
    ['a reference that is nowhere', { reference: 'earth', elements: [R('A', 'a', 'b', 1)] }, [], '/reference'],
    ['a fault of nothing', GLOW, [{ element: 'G9', kind: 'open' }], '/faults/0/element'],
    ['a source’s resistance', GLOW, [{ element: 'BAT', kind: 'resistance', ohms: 1 }], '/faults/0/kind'],
    ['a source into itself', circuit(U('A', 'gnd', 'gnd', 1)), [], '/elements/0/to'],
  ])('%s', (_, c, faults, path) => expect(errors(c, faults).map((e) => e.path)).toContain(path));
  test('points and elements that are not there', () => {
    const done = measureCircuit(
      GLOW,
      [],
      [
        { id: 'a', mode: 'voltage', red: 'nowhere', black: 'gnd' },
        { id: 'a', mode: 'current', element: 'X' },
      ],
    );
    expect(done.ok ? [] : done.error.map((e) => e.path)).toEqual([
      '/measures/0/red',
      '/measures/1/id',
      '/measures/1/element',
    ]);
  });
  test('nothing at all', () => expect(solved(circuit())).toEqual({ nodes: { gnd: 0 }, branches: {}, floating: [] }));
});

test('copies per cylinder', () => {
  const elements = expandElements(
    [U('BAT', 'bus', 'gnd', 12)],
    [{ copies: [1, 2, 'left'], elements: [R('W{}', 'bus', 'p{}', 0.05), R('G{}', 'p{}', 'gnd', 0.55)] }],
  );
  expect(elements.map((e) => e.id)).toEqual(['BAT', 'W1', 'G1', 'W2', 'G2', 'Wleft', 'Gleft']);
  expect(solved({ reference: 'gnd', elements }).branches.BAT).toBeCloseTo(-60, 9);
});

describe('laws, on random networks from milliohms to megohms', () => {
  /** Kirchhoff and Ohm at every node and element: what fulfils them is the solution. */
  function check({ circuit: c, faults }: RandomCircuit): void {
    const s = solveCircuit(c, faults);
    if (!s.ok) throw new Error(JSON.stringify(s.error));
    const { nodes, branches } = s.value;
    const sums = new Map<string, { sum: number; size: number }>();
    for (const e of c.elements) {
      const i = branches[e.id] ?? NaN;
      const drop = (nodes[e.from] ?? NaN) - (nodes[e.to] ?? NaN);
      const fault = faults.find((f) => f.element === e.id);
      if (fault?.kind === 'open' || (e.kind === 'switch' && !e.closed && !fault)) expect(i).toBe(0);
      else if (fault?.kind === 'short') expect(Math.abs(drop)).toBeLessThan(1e-9);
      else if (e.kind === 'resistor')
        expect(
          Math.abs(
            drop - i * ((fault?.kind === 'resistance' ? 0 : e.ohms) + (fault && 'ohms' in fault ? fault.ohms : 0)),
          ),
        ).toBeLessThan(1e-9 * (Math.abs(drop) + 1));
      else if (e.kind === 'voltage' && !fault) expect(drop).toBeCloseTo(e.volts, 9);
      for (const [n, a] of [
        [e.from, i],
        [e.to, -i],
      ] as const) {
        const own = sums.get(n) ?? { sum: 0, size: 0 };
        sums.set(n, { sum: own.sum + a, size: own.size + Math.abs(a) });
      }
    }
    // A difference of two voltages is known to the last bit of the larger one; over a milliohm that is so
    // much current.
    const lastBit_A = 1e3 * 2.3e-16 * Math.max(1, ...Object.values(nodes).map(Math.abs));
    for (const { sum, size } of sums.values()) expect(Math.abs(sum)).toBeLessThanOrEqual(1e-9 * size + 20 * lastBit_A);
  }
  test('Kirchhoff and Ohm hold', () => fc.assert(fc.property(randomCircuits(), check), { numRuns: 400 }));
  test('the order of the elements makes no difference', () => {
    fc.assert(
      fc.property(randomCircuits(), ({ circuit: c, faults }) => {
        const [a, b] = [solved(c, faults).nodes, solved({ ...c, elements: c.elements.toReversed() }, faults).nodes];
        for (const [n, v] of Object.entries(a)) expect(b[n]).toBeCloseTo(v, 6);
      }),
    );
  });
  test('ohms between two points read the same both ways round', () => {
    fc.assert(
      fc.property(randomCircuits(), ({ circuit: c, faults }) => {
        const [red, black] = [c.elements[0]?.from ?? '', c.elements.at(-1)?.to ?? ''];
        const [one, two] = [
          read(c, { mode: 'resistance', red, black }, faults),
          read(c, { mode: 'resistance', red: black, black: red }, faults),
        ];
        expect(one?.overload).toBe(two?.overload);
        if (one?.value !== null && two?.value !== null)
          expect(Math.abs((one?.value ?? 0) - (two?.value ?? 0))).toBeLessThanOrEqual(1e-9 * (one?.value ?? 0));
      }),
    );
  });
});

import { tr } from '../locale/translate';
import { fail, ok, type Problem, type Result } from '../foundation/result';
import { areJoined, solveCircuit } from './solve';
import type { Circuit, Element, Fault, Measure, Reading } from './types';

/**
 * What a meter would show at two points of a circuit, one meter at a time: volts with the meter's own
 * resistance, ohms with sources taken away and the leads added, amperes through an element. `overload` where
 * nothing joins the two points in ohms. Fails with the path of a measure that names no node or element.
 */
export function measureCircuit(
  circuit: Circuit,
  faults: readonly Fault[],
  measures: readonly Measure[],
): Result<Reading[]> {
  const problems = checkMeasures(circuit, measures);
  if (problems.length) return fail(problems);
  const readings: Reading[] = [];
  for (const m of measures) {
    const read = measureOne(circuit, faults, m);
    if (!read.ok) return read;
    readings.push(read.value);
  }
  return ok(readings);
}

function checkMeasures(circuit: Circuit, measures: readonly Measure[]): Problem[] {
  const nodes = new Set([circuit.reference, ...circuit.elements.flatMap((e) => [e.from, e.to])]);
  const ids = new Set<string>();
  return measures.flatMap((m, i): Problem[] => {
    const problems: Problem[] = [];
    if (ids.has(m.id)) problems.push({ path: `/measures/${i}/id`, message: tr`There are two measures "${m.id}".` });
    ids.add(m.id);
    if (m.mode === 'current') {
      if (!circuit.elements.some((e) => e.id === m.element))
        problems.push({ path: `/measures/${i}/element`, message: tr`There is no element "${m.element}".` });
      if (m.meter_ohm !== undefined && !(m.meter_ohm >= 0))
        problems.push({ path: `/measures/${i}/meter_ohm`, message: 'It must be 0 or more.' });
      return problems;
    }
    for (const end of ['red', 'black'] as const)
      if (!nodes.has(m[end]))
        problems.push({ path: `/measures/${i}/${end}`, message: tr`There is no node "${m[end]}".` });
    if (m.lead_ohm !== undefined && !(m.lead_ohm >= 0))
      problems.push({ path: `/measures/${i}/lead_ohm`, message: 'It must be 0 or more.' });
    if (m.mode === 'voltage' && m.meter_ohm !== undefined && !(m.meter_ohm > 0))
      problems.push({ path: `/measures/${i}/meter_ohm`, message: 'It must be above 0.' });
    return problems;
  });
}

/** Names that no circuit can have. */
const METER = '\u0000meter';
const TIP = '\u0000tip';

function measureOne(circuit: Circuit, faults: readonly Fault[], m: Measure): Result<Reading> {
  switch (m.mode) {
    case 'voltage':
      return measureVoltage(circuit, faults, m);
    case 'resistance':
      return measureResistance(circuit, faults, m);
    case 'current': {
      const solved = solveCircuit(
        circuit,
        m.meter_ohm ? [...faults, { element: m.element, kind: 'series', ohms: m.meter_ohm }] : faults,
      );
      return solved.ok
        ? ok({ id: m.id, value: solved.value.branches[m.element] ?? 0, unit: 'A', overload: false })
        : solved;
    }
  }
}

function measureVoltage(
  circuit: Circuit,
  faults: readonly Fault[],
  m: Extract<Measure, { mode: 'voltage' }>,
): Result<Reading> {
  const meter: Element[] =
    m.meter_ohm === undefined
      ? []
      : [
          { id: METER, kind: 'resistor', from: TIP, to: m.black, ohms: m.meter_ohm },
          { id: TIP, kind: 'resistor', from: m.red, to: TIP, ohms: m.lead_ohm ?? 0 },
        ];
  const solved = solveCircuit({ ...circuit, elements: [...circuit.elements, ...meter] }, faults);
  if (!solved.ok) return solved;
  const { nodes } = solved.value;
  const [red, black] = meter.length ? [nodes[TIP] ?? 0, nodes[m.black] ?? 0] : [nodes[m.red] ?? 0, nodes[m.black] ?? 0];
  // An ideal meter between parts that nothing joins: there is no voltage between them to read.
  const apart = meter.length === 0 && !areJoined(circuit, faults, m.red, m.black);
  return ok({ id: m.id, value: apart ? 0 : red - black, unit: 'V', overload: false });
}

/**
 * Every source is taken out, as with the battery isolated and the controller asleep; the meter pushes 1 A and
 * reads the volts. Where nothing joins the points the current cannot return: overload.
 */
function measureResistance(
  circuit: Circuit,
  faults: readonly Fault[],
  m: Extract<Measure, { mode: 'resistance' }>,
): Result<Reading> {
  const overload: Reading = { id: m.id, value: null, unit: 'ohm', overload: true };
  const bridged = new Set(faults.filter((f) => f.kind === 'short').map((f) => f.element));
  const passive = circuit.elements.flatMap((e): Element[] =>
    e.kind !== 'voltage' && e.kind !== 'current'
      ? [e]
      : bridged.has(e.id)
        ? [{ id: e.id, from: e.from, to: e.to, kind: 'resistor', ohms: 0 }]
        : [],
  );
  const left = new Set(passive.map((e) => e.id));
  const ownFaults = faults.filter((f) => left.has(f.element));
  if (m.red === m.black) return ok({ ...overload, value: m.lead_ohm ?? 0, overload: false });
  if (!passive.some((e) => e.from === m.black || e.to === m.black)) return ok(overload);
  const solved = solveCircuit(
    {
      reference: m.black,
      elements: [...passive, { id: METER, kind: 'current', from: m.black, to: m.red, amperes: 1 }],
    },
    ownFaults,
  );
  // The only contradiction that is left is the meter's own current without a way back.
  if (!solved.ok) return solved.error.some((p) => p.message.includes(METER)) ? ok(overload) : solved;
  const ohms = (solved.value.nodes[m.red] ?? 0) + (m.lead_ohm ?? 0);
  return ok(
    m.overload_ohm !== undefined && ohms > m.overload_ohm
      ? overload
      : { id: m.id, value: ohms, unit: 'ohm', overload: false },
  );
}

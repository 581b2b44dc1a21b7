import { expandProbes, type PlacedProbe } from '../core/circuits/expand';
import type { HiddenFault } from './faults';
import { type Patient, WIRING } from './patient';
import type { Sheet } from './spice';

/**
 * Sheets for every point of the circuit, and how the volts of each become what a perfect meter would show
 * there.
 */
export interface Setup {
  readonly probe: PlacedProbe;
  readonly sheet: Sheet;
  readonly shown: (volts: ReadonlyMap<string, number>) => number;
}

const OPEN_ohm = 1e13;
/** An ohmmeter of the trial: a source behind a resistance that suits the range, found by looking twice. */
const OHM_METER = { volts: 0.5, ranges_ohm: [10, 1e3, 1e5, 1e7] } as const;
const LEAST_ohm = 1e-6;

export function setupsOf(p: Patient, faults: readonly HiddenFault[], range = 1): Setup[] {
  return expandProbes(p.circuit, WIRING).map((probe) => ({ probe, ...sheetOf(p, faults, probe, range) }));
}

function sheetOf(
  p: Patient,
  faults: readonly HiddenFault[],
  probe: PlacedProbe,
  range: number,
): Pick<Setup, 'sheet' | 'shown'> {
  const ids = new Map<string, string>([[p.circuit.reference, '0']]);
  const node = (name: string): string => {
    const known = ids.get(name) ?? `n${ids.size}`;
    ids.set(name, known);
    return known;
  };
  const isOhms = probe.mode === 'resistance';
  const cards: string[] = [];
  let ammeter: string | null = null;
  let supply = '0';
  for (const [i, e] of p.elements.entries()) {
    const [from, to] = [node(e.from), node(e.to)];
    const value = p.values.get(e.id) ?? 1;
    if (e.kind === 'source') {
      const low = faults.find((f) => f.kind === 'low-source' && f.at === e.id);
      // A battery that is not joined to the meter's loop drives nothing through it: it is switched off for
      // ohms.
      if (!isOhms) cards.push(`V${i} ${from} ${to} DC ${value * (low?.size ?? 1)}`);
      supply = from;
      continue;
    }
    const isOff = (e.closedIn && !e.closedIn.includes(probe.state)) || (probe.opened ?? []).includes(e.id);
    const own = faults.filter((f) => f.at === e.id);
    if (isOff || own.some((f) => f.kind === 'open')) {
      cards.push(`R${i} ${from} ${to} ${OPEN_ohm}`);
      continue;
    }
    let ohms = value;
    for (const f of own) ohms = f.kind === 'resistance' ? f.size : f.kind === 'series' ? ohms + f.size : ohms;
    let at = from;
    if (probe.element === e.id) {
      at = `m${i}`;
      ammeter = `vm${i}`;
      cards.push(`${ammeter} ${from} ${at} DC 0`);
    }
    const keeps = own.length || isOhms ? 0 : (p.keeps_V.get(e.id) ?? 0);
    const heats = own.length || isOhms ? 0 : (p.heats_perV2.get(e.id) ?? 0);
    if (keeps > 0) {
      cards.push(
        `R${i} ${at} k${i} ${Math.max(LEAST_ohm, ohms)}`,
        `B${i} k${i} j${i} V = ${keeps}*tanh(100*i(Vk${i}))`,
        `Vk${i} j${i} ${to} DC 0`,
      );
    } else if (heats > 0) {
      cards.push(
        `B${i} ${at} ${to} I = (v(${at})-v(${to}))/(${ohms}*(1+${heats}*(v(${at})-v(${to}))*(v(${at})-v(${to}))))`,
      );
    } else cards.push(`R${i} ${at} ${to} ${Math.max(LEAST_ohm, ohms)}`);
  }
  for (const [i, f] of faults.entries()) {
    if (f.kind === 'leak-to-ground') cards.push(`Rl${i} ${node(f.at)} 0 ${f.size}`);
    if (f.kind === 'leak-to-supply' && !isOhms) cards.push(`Rl${i} ${node(f.at)} ${supply} ${f.size}`);
  }
  // Nothing in a workshop is better insulated than this: a node that hangs in the air has a voltage.
  for (const n of new Set(ids.values())) if (n !== '0') cards.push(`Rg${n} ${n} 0 1e12`);
  const scale = probe.scale ?? 1;
  if (probe.mode === 'current') {
    const wanted = ammeter === null ? `v(${supply})` : `i(${ammeter})`;
    return { sheet: { cards, wanted: [wanted] }, shown: (v) => (ammeter === null ? 0 : scale * (v.get(wanted) ?? 0)) };
  }
  const [red, black] = [node(probe.red ?? ''), node(probe.black ?? '')];
  const across = (v: ReadonlyMap<string, number>): number => (v.get(`v(${red})`) ?? 0) - (v.get(`v(${black})`) ?? 0);
  const wanted = [red, black].filter((n) => n !== '0').map((n) => `v(${n})`);
  if (!isOhms)
    return { sheet: { cards: [...cards, `Rmeter ${red} ${black} 1e7`], wanted }, shown: (v) => scale * across(v) };
  const inside = OHM_METER.ranges_ohm[range] ?? 1e3;
  return {
    sheet: { cards: [...cards, `Vmeter vm ${black} DC ${OHM_METER.volts}`, `Rmeter vm ${red} ${inside}`], wanted },
    shown: (v) => {
      const left = OHM_METER.volts - across(v);
      return left <= OHM_METER.volts * 1e-5 ? Infinity : (inside * across(v)) / left;
    },
  };
}

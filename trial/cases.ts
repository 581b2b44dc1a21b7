import type { PlacedProbe } from '../core/circuits/expand';
import type { LibraryCircuit } from '../core/circuits/types';
import type { EvidenceDocument } from '../formats/evidence';
import { setupsOf } from './bench';
import { type HiddenFault, listedFault, partFault, unlistedFault } from './faults';
import { display, drawMeter, metered, type Slip } from './meter';
import { CYLINDERS, drawPatient, type Patient } from './patient';
import { type Random, randomFrom } from './random';
import { solveSheets } from './spice';

export const KINDS = ['listed', 'unlisted', 'two', 'set', 'nothing', 'slip'] as const;
export type Kind = (typeof KINDS)[number];
type Measurement = EvidenceDocument['measurements'][number];

/** A vehicle with what is wrong with it, and the readings that a technician gets from it. */
export interface TrialCase {
  readonly seed: number;
  readonly kind: Kind;
  readonly circuit: LibraryCircuit;
  readonly faults: readonly HiddenFault[];
  /** How many readings the circuit offers. */
  readonly points: number;
  /** One more reading at a point, as it is typed. `null`: the circuit has no such point. */
  readonly read: (test: string, position: number | string) => Measurement | null;
}

/** With the fault there and without it, at one point. */
interface There {
  readonly probe: PlacedProbe;
  readonly healthy: number;
  readonly faulty: number;
}

/** One case, or `null` where its fault shows nowhere: nobody could find that. */
export async function drawCase(kind: Kind, circuit: LibraryCircuit, seed: number): Promise<TrialCase | null> {
  const r = randomFrom(seed);
  const patient = drawPatient(circuit, r);
  const faults = drawFaults(kind, patient, r);
  const [healthy, faulty] = [await readAll(patient, []), faults.length ? await readAll(patient, faults) : null];
  if (!healthy || (faults.length && !faulty)) return null;
  const there = healthy.map(({ probe, value }, i): There => ({
    probe,
    healthy: value,
    faulty: faulty?.[i]?.value ?? value,
  }));
  const most = Math.max(...there.filter((t) => t.probe.mode === 'voltage').map((t) => Math.abs(t.healthy)), 1);
  if (faults.length && !there.some((t) => isSeen(t, most))) return null;
  for (const f of faults.length > 1 ? faults : []) {
    const alone = await readAll(patient, [f]);
    if (!alone?.some(({ value }, i) => isSeen({ ...(there[i] as There), faulty: value }, most))) return null;
  }
  return { seed, kind, circuit, faults, points: there.length, read: readerOf(kind, there, faults, r) };
}

function drawFaults(kind: Kind, { circuit, elements }: Patient, r: Random): HiddenFault[] {
  switch (kind) {
    case 'nothing':
      return [];
    case 'unlisted':
      return [unlistedFault(circuit, elements, r)];
    case 'two': {
      const first = listedFault(circuit, elements, r);
      for (;;) {
        const second = listedFault(circuit, elements, r);
        if (second.named !== first.named && !second.wanders && !first.wanders) return [first, second];
        if (first.wanders) return drawFaults(kind, { circuit, elements } as Patient, r);
      }
    }
    case 'set': {
      const good = 1 + Math.floor(r.even() * CYLINDERS);
      return Array.from({ length: CYLINDERS }, (_, i) => i + 1)
        .filter((n) => n !== good)
        .map((n) => partFault(circuit, elements, n, r));
    }
    default:
      return [listedFault(circuit, elements, r)];
  }
}

/** More than good parts differ: by half in ohms, a quarter in amperes, by 4 % of the supply in volts. */
function isSeen({ probe, healthy, faulty }: There, most_V: number): boolean {
  if (probe.mode === 'resistance') {
    const [a, b] = [Math.min(healthy, 4e7) + 0.2, Math.min(faulty, 4e7) + 0.2];
    return Math.abs(Math.log(a / b)) > Math.log(1.8);
  }
  if (probe.mode === 'current') return Math.abs(healthy - faulty) > 0.25 * Math.max(Math.abs(healthy), 1);
  return Math.abs(healthy - faulty) > 0.04 * most_V;
}

async function readAll(
  p: Patient,
  faults: readonly HiddenFault[],
): Promise<{ probe: PlacedProbe; value: number }[] | null> {
  const ranges = [0, 1, 2, 3].map((range) => setupsOf(p, faults, range));
  // Volts and amperes once; ohms in every range, the one whose inside is nearest to what it finds counts.
  const wanted = ranges.flatMap((setups, range) =>
    setups.flatMap((s, i) => (range === 0 || s.probe.mode === 'resistance' ? [{ ...s, i, range }] : [])),
  );
  const volts = await solveSheets(wanted.map((w) => w.sheet));
  const best: { probe: PlacedProbe; value: number; off: number }[] = [];
  for (const [k, w] of wanted.entries()) {
    const v = volts[k];
    if (!v) return null;
    const value = w.shown(v);
    const inside = [10, 1e3, 1e5, 1e7][w.range] ?? 1;
    const off = Math.abs(Math.log(Math.max(1e-6, Math.min(1e9, value)) / inside));
    const known = best[w.i];
    if (!known || off < known.off) best[w.i] = { probe: w.probe, value, off };
  }
  return best;
}

const SLIPS: readonly Slip[] = [
  'thousandfold',
  'thousandth',
  'no-contact',
  'no-contact',
  'other-place',
  'leads',
  'meter-fuse',
];
/** Of any reading of any case. */
const STRAY = 0.004;

function readerOf(kind: Kind, there: readonly There[], faults: readonly HiddenFault[], r: Random): TrialCase['read'] {
  const meter = drawMeter(r);
  const isLoose = faults.some((f) => f.wanders);
  let slipsLeft = kind === 'slip' ? 1 : 0;
  let readings = 0;
  const slipAt = Math.floor(r.even() * 4);
  const slipped = (t: There, value: number): number => {
    const { mode } = t.probe;
    switch (r.pick(SLIPS)) {
      case 'thousandfold':
        return value * 1000;
      case 'thousandth':
        return value / 1000;
      case 'no-contact':
        return mode === 'resistance' ? Infinity : 0;
      case 'other-place':
        return r.pick(there.filter((o) => o.probe.mode === mode)).faulty;
      case 'leads':
        return mode === 'resistance' ? value + 0.4 : value * 0.9;
      case 'meter-fuse':
        return mode === 'current' ? 0 : mode === 'resistance' ? Infinity : value;
    }
  };
  return (test, position) => {
    const t = there.find((x) => x.probe.test === test && x.probe.position === position);
    if (!t) return null;
    const { mode } = t.probe;
    const isSlip = (slipsLeft > 0 && readings >= slipAt) || r.chance(STRAY);
    readings++;
    if (slipsLeft > 0 && isSlip) slipsLeft--;
    const leadZero = mode === 'resistance' && meter.isZeroed ? { leadZero: meter.leads_ohm.toFixed(2) } : {};
    const shows = (value: number): string => display(mode, metered(meter, mode, value, r));
    const what = isLoose ? r.pick(['there', 'gone', 'wander'] as const) : 'there';
    if (what === 'wander' && !isSlip && Math.abs(t.healthy - t.faulty) > 0.05 * Math.abs(t.healthy) + 0.02) {
      const [a, b] = [metered(meter, mode, t.healthy, r), metered(meter, mode, t.faulty, r)];
      const [low, high] = [display(mode, Math.min(a, b)), display(mode, Math.max(a, b))];
      if (low !== high && low !== 'OL') return { test, position, entry: `${low}~${high}`, ...leadZero };
    }
    const value = what === 'gone' ? t.healthy : t.faulty;
    return { test, position, entry: shows(isSlip ? slipped(t, value) : value), ...leadZero };
  };
}

import { significant } from '../locale/numbers';
import { tr } from '../locale/translate';
import { floatAt } from '../numerics/cell';
import { printValue } from '../quantity/print';
import type { Position } from '../judge/types';
import type { Wiring } from '../circuits/expand';
import type { LibraryCircuit } from '../circuits/types';
import { OUTSIDE } from './hypotheses';
import { predictAll } from './predict';
import type { Instance, Predictions } from './predictions';
import type { Hypothesis, DiagnosticReading } from './types';

type Mode = Instance['mode'];
const UNITS: Readonly<Record<Mode, string>> = { resistance: 'Ω', voltage: 'V', current: 'A' };
/** Ohms above which a meter shows overload. */
const SHOWS_OL = 1e7;

function printed(mode: Mode, v: number): string {
  if (mode === 'resistance' && v > SHOWS_OL) return 'OL';
  if (v >= 1e6) return `${printValue(v / 1e6, 0.1)} M`;
  if (v >= 1e3) return `${printValue(v / 1e3, 0.1)} k`;
  return printValue(v, v >= 100 ? 1 : 0.1);
}

/** The same as it would stand beside a prediction: "201 Ω", "4.5 k Ω". */
export function readAsShown(p: Predictions, m: DiagnosticReading): string {
  const mode = p.instances.find((i) => i.test === m.test && i.position === m.position)?.mode;
  return m.kind === 'value' && mode ? `${printed(mode, m.value)} ${UNITS[mode]}` : shownReading(m);
}

/** A reading as it was weighed: "201", "OL", "unsteady"; in ohms, volts or amperes. */
export const shownReading = (m: DiagnosticReading): string =>
  m.kind === 'overload' ? 'OL' : m.kind === 'unsteady' ? 'unsteady' : significant(m.value, 3);

/**
 * What a meter would show at a point under a suspect (`null`: healthy), over the sizes that it can have: "0.6
 * to 0.7 Ω", "OL", "about 11.5 V".
 */
export function shownPrediction(
  p: Predictions,
  at: { readonly test: string; readonly position: Position },
  key: string | null,
): string {
  const instance = p.instances.findIndex((i) => i.test === at.test && i.position === at.position);
  const mode = p.instances[instance]?.mode;
  const own = p.hypotheses.flatMap((h, i) => ((key === null ? h.members.length === 0 : h.key === key) ? [i] : []));
  if (instance < 0 || !mode || own.length === 0) return 'not told';
  // Parts of another type show something else: of amperes a share of what flows.
  const batch = floatAt(p.batch, instance);
  const byType = (mean: number): number =>
    mode === 'resistance' ? batch : batch * Math.abs(mode === 'current' ? mean : floatAt(p.mean, instance));
  const [lows, highs] = [-1.5, 1.5].map((z) =>
    own.map((h) => {
      const k = h * p.instances.length + instance;
      const mean = floatAt(p.mean, k);
      const sd = Math.hypot(floatAt(p.sd, k), byType(mean));
      return mode === 'resistance' ? Math.exp(mean + z * Math.hypot(sd, 0.1)) : mean + z * Math.hypot(sd, 0.02);
    }),
  ) as [number[], number[]];
  const [low, high] = [Math.min(...lows), Math.max(...highs)];
  const unit = UNITS[mode];
  if (mode === 'resistance' && low > SHOWS_OL) return 'OL';
  const [a, b] = [printed(mode, Math.max(mode === 'resistance' ? 0 : -99, low)), printed(mode, high)];
  return a === b ? `${a} ${unit}` : tr`${a} to ${b}${b === 'OL' ? '' : ` ${unit}`}`;
}

/** What a meter would show at a point, all well and with a fault. */
export interface ShownFault {
  readonly test: string;
  readonly position: Position;
  readonly healthy: string;
  readonly now: string;
  /** By more than good parts differ among each other. */
  readonly changed: boolean;
}

/** Every test of the circuit, all well and with one fault put in. */
export function shownWithFault(circuit: LibraryCircuit, wiring: Wiring, fault: Hypothesis | null): ShownFault[] {
  const p = predictAll(circuit, wiring, fault ? [OUTSIDE, fault] : [OUTSIDE]);
  const n = p.instances.length;
  return p.instances.map((i, k) => {
    const [was, is] = [floatAt(p.mean, k), floatAt(p.mean, fault ? n + k : k)];
    const changed = was !== is && !(Math.abs(was - is) <= floatAt(p.sd, k) + 0.02 * Math.abs(was));
    return {
      test: i.test,
      position: i.position,
      healthy: shownPrediction(p, i, null),
      now: fault ? shownPrediction(p, i, fault.key) : '',
      changed,
    };
  });
}

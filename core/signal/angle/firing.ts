import { fixed, withMark } from '../../locale/numbers';
import { tr } from '../../locale/translate';
import { quantile, robustDeviation } from '../../numerics/select';
import type { Finding } from '../types';
import { nearZero, turned } from './axis';
import { type Capture, cylinderAfter, type Phase, phaseOf } from './capture';
import { clipping } from './connection';
import { type CurrentPulse, type CurrentPulses, currentPulses } from './pulses-of';
import type { Connection, FiringPulse } from './types';

/**
 * Off the grid by this, degrees, a pulse is late or early; and beyond what cycles differ by. Common practice,
 * no source.
 */
const OFF_deg = 3;
/** There in fewer of its cycles than this a pulse is missing; in fewer than the second it is watched. */
const [MISSING, SELDOM] = [0.5, 0.97];
/** Height or charge that far from the others is watched. Common practice, no source. */
const UNLIKE = 0.3;

/** The pulses in the common supply of the injectors on the grid of equal angles, cylinder by cylinder. */
export function firing(capture: Capture): Finding[] {
  const common = capture.channels.find((c) => c.role === 'injector-current' && c.cylinder === undefined);
  const phase = phaseOf(capture);
  if (!common || !phase) return [];
  const n = capture.cylinders;
  const { axis, named } = phase;
  const findings: Finding[] = clipping(common);
  const turn_s = (axis.timeAt(axis.last_deg) - axis.timeAt(axis.first_deg)) / ((axis.last_deg - axis.first_deg) / 720);
  const found = currentPulses(common, (0.35 * turn_s) / n);
  if (!found) return findings;
  const base = { channel: common.id, from_s: axis.timeAt(axis.first_deg), to_s: axis.timeAt(axis.last_deg) };
  findings.push(...clampFindings(found, common.unit, base));
  const grid = onGrid(found.pulses, phase, n);
  if (!grid) return findings;
  const { zero, shift, slots, step } = grid;
  const usual = medianOf(slots.flatMap((s) => (s.length ? [medianOf(s.map((x) => x.p.peak))] : [])));
  for (const [slot, own] of slots.entries()) {
    const expected = cyclesOf(axis.first_deg, axis.last_deg, zero + shift + slot * step);
    findings.push(
      pulseFinding({
        base,
        slot,
        cylinder: named ? cylinderAfter(capture.firingOrder, named.cylinder, slot) : null,
        own: own.map((x) => x.p),
        offsets: own.map((x) => x.off - shift),
        share: Math.max(0, 1 - own.length / Math.max(1, expected)),
        angle: oneOf(capture, phase, slots, slot, step, shift),
        usual,
        uncertainty: axis.uncertainty_deg,
        unit: common.unit,
      }),
    );
  }
  return findings;
}

const medianOf = (values: readonly number[]): number => quantile(values, 0.5);

/** What is not as it should be with the clamp round the common supply. */
function clampFindings(
  found: CurrentPulses,
  unit: string,
  base: { readonly channel: string; readonly from_s: number; readonly to_s: number },
): Connection[] {
  const one = (problem: Connection['problem'], confidence: number, offset: number, reason: string): Connection => ({
    kind: 'connection',
    ...base,
    severity: 'attention',
    confidence,
    problem,
    offset,
    reasons: [reason],
  });
  return [
    ...(found.isTurned
      ? [
          one(
            'turned round',
            0.9,
            0,
            'The pulses go below where the current rests: the clamp is turned round. It was turned back here.',
          ),
        ]
      : []),
    ...(Math.abs(found.rest) > 0.05 * found.height
      ? [
          one(
            'not zeroed',
            0.8,
            found.rest,
            tr`Between the pulses the clamp shows ${withMark(found.rest.toPrecision(2))} ${unit}: it was not zeroed. It was taken out here.`,
          ),
        ]
      : []),
  ];
}

interface PulseGrid {
  readonly step: number;
  /** Angle of the named cylinder's pulse; without one, where most pulses lie on the grid. */
  readonly zero: number;
  /** Where most cylinders lie against it: the named one may be late itself. */
  readonly shift: number;
  /** Pulses of each place of the order, with how far they are off their place. */
  readonly slots: readonly (readonly { readonly p: CurrentPulse; readonly off: number }[])[];
}

/** The pulses by their place on the grid; `null` for fewer than two. */
function onGrid(pulses: readonly CurrentPulse[], { axis, named }: Phase, n: number): PulseGrid | null {
  const step = 720 / n;
  const seen = pulses.flatMap((p) => {
    const a = axis.angleAt(p.start_s);
    return Number.isFinite(a) ? [{ p, a }] : [];
  });
  if (seen.length < 2) return null;
  const angles = seen.map((s) => s.a);
  const zero = named?.angle_deg ?? gridOf(angles, step);
  const slots = Array.from({ length: n }, () => [] as { readonly p: CurrentPulse; readonly off: number }[]);
  for (const { p, a } of seen) {
    const slot = Math.round(turned(a - zero, 720) / step) % n;
    slots[slot]?.push({ p, off: nearZero(a - zero - slot * step, 720) });
  }
  const shift = medianOf(slots.filter((s) => s.length > 0).map((s) => medianOf(s.map((x) => x.off))));
  return { step, zero, shift, slots };
}

/** Angle of a slot's pulses from cylinder 1's; from the named cylinder where 1 is not known. */
function oneOf(
  { firingOrder }: Capture,
  { named }: { readonly named: { readonly cylinder: number } | null },
  slots: readonly (readonly { readonly off: number }[])[],
  slot: number,
  step: number,
  shift: number,
): number | null {
  const at = (k: number): number =>
    k * step +
    (slots[k]?.length
      ? quantile(
          (slots[k] ?? []).map((x) => x.off),
          0.5,
        )
      : shift);
  const first = named && firingOrder ? turnedIndex(firingOrder, named.cylinder) : 0;
  return slots[slot]?.length ? turned(at(slot) - at(first), 720) : null;
}

/** How many steps after the named cylinder cylinder 1 fires. */
const turnedIndex = (order: readonly number[], named: number): number =>
  Math.max(0, (order.indexOf(1) - order.indexOf(named) + order.length) % order.length);

/** Where a grid of equal steps lies to which angles fit best: the mean of their directions. */
function gridOf(angles: readonly number[], step: number): number {
  const k = (2 * Math.PI) / step;
  const s = angles.reduce((sum, a) => sum + Math.sin(k * a), 0);
  const c = angles.reduce((sum, a) => sum + Math.cos(k * a), 0);
  return turned(Math.atan2(s, c) / k, step);
}

/** How many times an angle comes between two. */
const cyclesOf = (from: number, to: number, angle: number): number =>
  Math.max(0, Math.floor((to - angle) / 720) - Math.ceil((from - angle) / 720) + 1);

function pulseFinding(f: {
  base: { channel: string; from_s: number; to_s: number };
  slot: number;
  cylinder: number | null;
  own: readonly CurrentPulse[];
  offsets: readonly number[];
  share: number;
  angle: number | null;
  usual: number;
  uncertainty: number;
  unit: string;
}): FiringPulse {
  const { own, offsets, share } = f;
  const missing = 1 - share < MISSING;
  const offset = own.length ? quantile(offsets, 0.5) : null;
  const spread = own.length > 1 ? robustDeviation(offsets) : 0;
  const uncertainty_deg = Math.hypot(f.uncertainty / 2, spread / Math.sqrt(Math.max(1, own.length)));
  const isOff = offset !== null && Math.abs(offset) > OFF_deg + uncertainty_deg;
  const isNear = offset !== null && Math.abs(offset) > OFF_deg;
  const peak = own.length
    ? quantile(
        own.map((p) => p.peak),
        0.5,
      )
    : null;
  const isUnlike = peak !== null && Math.abs(peak / f.usual - 1) > UNLIKE;
  const moves = spread > 4 * Math.max(1, f.uncertainty / 2);
  const who = f.cylinder === null ? tr`The pulse at place ${f.slot + 1}` : tr`Cylinder ${f.cylinder}`;
  return {
    kind: 'pulse',
    ...f.base,
    severity: missing || isOff ? 'fail' : 1 - share < SELDOM || isNear || isUnlike || moves ? 'attention' : 'pass',
    confidence: own.length > 2 || missing ? 0.92 : 0.6,
    cylinder: f.cylinder,
    position: f.slot + 1,
    angle_deg: missing ? null : f.angle,
    offset_deg: missing ? null : offset,
    uncertainty_deg,
    peak: missing ? null : peak,
    charge:
      missing || !own.length
        ? null
        : quantile(
            own.map((p) => p.charge),
            0.5,
          ),
    missing,
    share,
    reasons: [
      missing
        ? tr`${who} has no pulse in ${Math.round(100 * share)} % of its cycles: driver, wire or coil.`
        : tr`${who}: ${fixed(Math.abs(offset ?? 0), 1)} ± ${fixed(uncertainty_deg, 1)} degrees ${(offset ?? 0) >= 0 ? 'after' : 'before'} the grid, ${withMark((peak ?? 0).toPrecision(3))} ${f.unit} high.`,
      ...(!missing && 1 - share < SELDOM ? [tr`In ${Math.round(100 * share)} % of its cycles there is none.`] : []),
      ...(!missing && isOff ? ['Off the grid: the position signal lies, or the controller does.'] : []),
      ...(!missing && isUnlike ? ['Its height is unlike that of the others.'] : []),
      ...(!missing && moves ? ['It moves from cycle to cycle while its neighbours stay.'] : []),
      ...(f.cylinder === null ? ['Without a channel that names a cylinder places are counted from the first.'] : []),
    ],
  };
}

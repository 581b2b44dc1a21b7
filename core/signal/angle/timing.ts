import { fixed } from '../../locale/numbers';
import { tr } from '../../locale/translate';
import { quantile } from '../../numerics/select';
import type { Finding } from '../types';
import { crankAxis, meanAngle, nearZero, turned } from './axis';
import { type Capture, type Position, positionOf } from './capture';
import { clipping } from './connection';
import { spikes } from './spikes';
import type { CamEdge, Timing } from './types';

/** A cam edge within one cycle of the crank, averaged over the cycles. */
export interface CamMark {
  readonly angle_deg: number;
  readonly deviation_deg: number;
  readonly edge: 'rising' | 'falling';
  readonly seen: number;
}

/** Edges nearer to each other than this in different cycles are one. */
const SAME_deg = 9;
/** An edge is one of the wheel where so many cycles have it. */
const SHARE = 0.6;
/** How far a cam may be off, and still be of this family: what is further is another pattern. */
const MOST_SHIFT_deg = 75;
/** Edges of two captures that differ by less than this are the same edge. */
const MATCH_deg = 5;
/** So many of the edges must find their like. */
const MATCHED = 0.7;
/** In time: within so much of a tooth, and not more than this. Common practice, no source. */
const TOOTH_SHARE = 1 / 3;
const MOST_OFF_deg = 3.5;

/**
 * How far a cam may be off and still be in time, degrees of the crank, by the width of a tooth (above 0, in
 * the same degrees). NaN for NaN.
 */
export const inTimeWithin = (tooth_deg: number): number => Math.min(MOST_OFF_deg, tooth_deg * TOOTH_SHARE);

/** Gaps of which none is told from the others: with two unlike ones the turn has its beginning. */
const evenGaps = ({ train }: Position): number => (train.isEven === true ? (train.wheel.gaps ?? 1) : 1);

/** Edges of the cam in degrees of the crank, 0 to 720 from the first tooth after the gap. */
export function camMarks(position: Position): CamMark[] {
  const axis = crankAxis(position.train);
  const { camEdges } = position;
  if (!camEdges) return [];
  const cycles = Math.max(1, (axis.last_deg - axis.first_deg) / 720);
  const marks = (['rising', 'falling'] as const).flatMap((edge) =>
    clustered(
      Array.from(camEdges[edge], axis.angleAt).filter((a) => Number.isFinite(a)),
      edge,
      cycles,
    ),
  );
  return canonical(marks, evenGaps(position)).sort((a, b) => a.angle_deg - b.angle_deg);
}

function clustered(angles: readonly number[], edge: CamMark['edge'], cycles: number): CamMark[] {
  const sorted = angles.map((a) => turned(a, 720)).sort((a, b) => a - b);
  const groups: number[][] = [];
  for (const a of sorted) {
    const last = groups.at(-1);
    if (last && a - (last.at(-1) ?? 0) < SAME_deg) last.push(a);
    else groups.push([a]);
  }
  const [first, last] = [groups[0], groups.at(-1)];
  if (first && last && first !== last && (first[0] ?? 0) + 720 - (last.at(-1) ?? 0) < SAME_deg) {
    last.push(...first.map((a) => a + 720));
    groups.shift();
  }
  // Of a capture of two cycles an edge may lie outside of one.
  return groups
    .filter((g) => g.length >= Math.max(1, Math.floor(SHARE * cycles)))
    .map((g) => {
      const { mean, deviation } = meanAngle(g, 720);
      return { angle_deg: mean, deviation_deg: deviation, edge, seen: g.length };
    });
}

/**
 * Which of the two turns of a cycle is the first is not in the crank, nor which of several even gaps: the one
 * is taken in which the first rising edge comes earlier, so that it does not matter where the recording
 * begins.
 */
function canonical(marks: readonly CamMark[], gaps: number): CamMark[] {
  let best = [...marks];
  for (let k = 1; k < 2 * gaps; k++) {
    const turnedOn = marks.map((m) => ({ ...m, angle_deg: turned(m.angle_deg + (k * 360) / gaps, 720) }));
    best = earlierOf(best, turnedOn);
  }
  return best;
}

/** Of two ways to count the turns the one whose first unlike rising edge comes earlier. */
function earlierOf(one: CamMark[], other: CamMark[]): CamMark[] {
  const key = (ms: readonly CamMark[]): number[] =>
    ms
      .filter((m) => m.edge === 'rising')
      .map((m) => m.angle_deg)
      .sort((a, b) => a - b);
  const [a, b] = [key(one), key(other)];
  const at = a.findIndex((v, i) => Math.abs(v - (b[i] ?? NaN)) > 1);
  return at < 0 || (a[at] ?? 0) <= (b[at] ?? 0) ? one : other;
}

interface Shift {
  readonly shift_deg: number;
  readonly uncertainty_deg: number;
  readonly matched: number;
  readonly isInverted: boolean;
}

/**
 * By how much the edges of a capture come later than those of a known good, degrees of the crank; `null`
 * where too few of them find their like. `gaps`: even ones of the wheel, of which any may be the first.
 * Neither the turn that comes first nor the polarity of the cam matters.
 */
export function shiftBetween(own: readonly CamMark[], known: readonly CamMark[], gaps = 1): Shift | null {
  if (!own.length || !known.length) return null;
  let best: Shift | null = null;
  for (const isInverted of [false, true])
    for (let turn = 0; turn < 720; turn += 360 / gaps) {
      const marks = own.map((m) => ({
        ...m,
        edge: isInverted ? (m.edge === 'rising' ? ('falling' as const) : ('rising' as const)) : m.edge,
        angle_deg: turned(m.angle_deg + turn, 720),
      }));
      for (const a of marks)
        for (const k of known) {
          const tried = nearZero(a.angle_deg - k.angle_deg, 720);
          if (a.edge !== k.edge || Math.abs(tried) > MOST_SHIFT_deg) continue;
          const found = matchedBy(marks, known, tried, isInverted);
          if (found && isBetter(found, best)) best = found;
        }
    }
  return best;
}

/** More edges matched; then as recorded rather than inverted; then the smaller shift. */
function isBetter(a: Shift, b: Shift | null): boolean {
  if (!b) return true;
  if (Math.abs(a.matched - b.matched) > 0.05) return a.matched > b.matched;
  if (a.isInverted !== b.isInverted) return !a.isInverted;
  return Math.abs(a.shift_deg) < Math.abs(b.shift_deg) - 0.01;
}

function matchedBy(
  own: readonly CamMark[],
  known: readonly CamMark[],
  tried: number,
  isInverted: boolean,
): Shift | null {
  const off = known.flatMap((k) => {
    const near = own
      .filter((m) => m.edge === k.edge)
      .map((m) => nearZero(m.angle_deg - k.angle_deg - tried, 720))
      .sort((a, b) => Math.abs(a) - Math.abs(b))[0];
    return near !== undefined && Math.abs(near) < MATCH_deg ? [near + tried] : [];
  });
  const matched = off.length / Math.max(known.length, own.length);
  if (matched < MATCHED) return null;
  const shift_deg = quantile(off, 0.5);
  const apart = Math.sqrt(off.reduce((s, o) => s + (o - shift_deg) ** 2, 0) / off.length);
  const spread = Math.max(...own.map((m) => m.deviation_deg / Math.sqrt(m.seen)));
  return { shift_deg, uncertainty_deg: Math.hypot(spread, apart / Math.sqrt(off.length), 0.2), matched, isInverted };
}

/** Wheel, cam edges and, beside a known good, the shift of the cam. */
export function timing(capture: Capture, reference: Capture | null): Finding[] {
  const position = positionOf(capture);
  const watched = capture.channels.filter((c) => c.role === 'crank' || c.role === 'cam');
  const findings: Finding[] = watched.flatMap((c) => clipping(c));
  if (!position) return findings;
  const { train, crank, cam } = position;
  const [from_s, to_s] = [train.times[0] ?? 0, train.times[train.times.length - 1] ?? 0];
  const turns = ((train.angles[train.angles.length - 1] ?? 0) - (train.angles[0] ?? 0)) / 360;
  const speed_rpm = (60 * turns) / (to_s - from_s);
  const base = { from_s, to_s };
  const { teeth, missing, gaps } = train.wheel;
  findings.push({
    kind: 'wheel',
    channel: crank.id,
    ...base,
    severity: train.counted > 0.9 ? 'none' : 'attention',
    confidence: Math.max(0.3, Math.min(0.99, train.counted)),
    teeth,
    missing,
    ...(gaps === undefined ? {} : { gaps }),
    speed_rpm,
    reasons: [
      tr`A wheel of ${teeth} with ${missing} missing${gaps === undefined ? '' : tr` at each of ${gaps} gaps`}, at ${Math.round(speed_rpm)} rpm on the average.`,
      tr`In ${Math.round(100 * train.counted)} % of the turns the teeth were counted as they should be.`,
    ],
  });
  const samples = 360 / teeth / 6 / Math.max(speed_rpm, 1) / crank.clock.period_s;
  if (samples < 3)
    findings.push({
      kind: 'connection',
      channel: crank.id,
      ...base,
      severity: 'attention',
      confidence: 0.9,
      problem: 'rate too low',
      offset: 0,
      reasons: [tr`Only ${fixed(samples, 1)} samples fall on a tooth: record faster, or teeth are lost.`],
    });
  if (position.isSwapped && cam)
    findings.push({
      kind: 'connection',
      channel: crank.id,
      ...base,
      severity: 'attention',
      confidence: 0.95,
      problem: 'swapped',
      offset: 0,
      reasons: [
        tr`${crank.name} carries the crank wheel and ${cam.name} the cam: the two are taken the other way round.`,
      ],
    });
  const axis = crankAxis(train);
  for (const c of watched) findings.push(...spikes(c, axis));
  if (!cam) return findings;
  const marks = camMarks(position);
  findings.push(...marks.map((m) => edgeFinding(cam.id, m, base)));
  if (!reference) return findings;
  const good = positionOf(reference);
  findings.push(shiftFinding(cam.id, marks, good ? camMarks(good) : [], position, base));
  return findings;
}

const edgeFinding = (channel: string, m: CamMark, base: { from_s: number; to_s: number }): CamEdge => ({
  kind: 'cam-edge',
  channel,
  ...base,
  severity: 'none',
  confidence: 0.95,
  angle_deg: m.angle_deg,
  uncertainty_deg: Math.hypot(m.deviation_deg / Math.sqrt(m.seen), 0.2),
  edge: m.edge,
  reasons: [
    tr`It ${m.edge === 'rising' ? 'rises' : 'falls'} at ${fixed(m.angle_deg, 1)} degrees after the first tooth behind the gap, in ${m.seen} cycles within ${fixed(m.deviation_deg, 1)} degrees.`,
  ],
});

function shiftFinding(
  channel: string,
  own: readonly CamMark[],
  known: readonly CamMark[],
  position: Position,
  base: { from_s: number; to_s: number },
): Timing {
  const tooth_deg = 360 / position.train.wheel.teeth;
  const found = shiftBetween(own, known, evenGaps(position));
  const ONE = 'One cam sensor proves one camshaft only.';
  if (!found)
    return {
      kind: 'timing',
      channel,
      ...base,
      severity: 'undecided',
      confidence: 0.3,
      shift_deg: null,
      uncertainty_deg: 720,
      teeth: null,
      inTime: null,
      reasons: [
        'The edges do not fit those of the known good: another family, another sensor, or too little was recorded.',
        ONE,
      ],
    };
  const { shift_deg, uncertainty_deg } = found;
  const limit = inTimeWithin(tooth_deg);
  const isSure = Math.abs(Math.abs(shift_deg) - limit) > 2 * uncertainty_deg;
  const inTime = Math.abs(shift_deg) <= limit;
  const teeth = shift_deg / tooth_deg;
  return {
    kind: 'timing',
    channel,
    ...base,
    severity: inTime ? (isSure ? 'pass' : 'attention') : isSure ? 'fail' : 'attention',
    confidence: isSure ? 0.97 : 0.6,
    shift_deg,
    uncertainty_deg,
    teeth,
    inTime,
    reasons: [
      tr`The cam comes ${fixed(Math.abs(shift_deg), 1)} ± ${fixed(uncertainty_deg, 1)} degrees of the crank ${shift_deg >= 0 ? 'later' : 'earlier'} than in the known good: ${fixed(Math.abs(teeth), 1)} teeth of the crank wheel.`,
      ...(found.isInverted ? ['One of the two was recorded with the opposite polarity.'] : []),
      ONE,
    ],
  };
}

import { fixed, significant } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import type { Finding } from '../../core/signal/types';
import { moment, span } from '../../core/signal/words';
import type { TraceView } from '../views';

/** One lane of a picture for paper: moments and values, NaN where nothing was recorded. */
export interface PictureLane {
  readonly name: string;
  readonly unit: string;
  readonly points: readonly (readonly [t_s: number, value: number])[];
  readonly lower?: number;
  readonly upper?: number;
  /** Whether the finding is in this lane. */
  readonly isMeant: boolean;
}
export interface TracePicture {
  readonly from_s: number;
  readonly to_s: number;
  readonly marked: { readonly from_s: number; readonly to_s: number };
  readonly lanes: readonly PictureLane[];
  readonly caption: string;
}

/** A recording as a report tells of it. */
export interface RecordingReport {
  readonly id: string;
  readonly name: string;
  readonly lines: readonly string[];
  /** Whether a person has taken something of it as evidence. */
  readonly isEvidence: boolean;
  readonly picture: TracePicture | null;
}

/** More lanes are not legible on paper. */
export const MOST_LANES = 5;
/** Seconds to either side of what is shown, at least. */
const BESIDE_s = 0.6;
const LONGEST_s = 30;

/** What was decided about a finding; the last word counts. */
export const decisionOn = ({ notes }: TraceView, f: Finding): TraceView['notes'][number] | null =>
  notes.findLast(
    ({ body }) =>
      (body.kind === 'dismissed' || body.kind === 'evidence') &&
      body.channel === f.channel &&
      body.from_s === f.from_s &&
      body.to_s === f.to_s,
  ) ?? null;

/**
 * The finding that a picture shows: one that was taken as evidence, else the worst that nobody has dismissed;
 * `null`: none.
 */
export function shownFinding(view: TraceView): Finding | null {
  const seen = view.head.search.findings.filter(
    (f) =>
      f.to_s - f.from_s < LONGEST_s &&
      ['dropout', 'spike', 'apart', 'out-of-limits', 'stuck', 'noise'].includes(f.kind),
  );
  return (
    seen.find((f) => decisionOn(view, f)?.body.kind === 'evidence') ??
    seen.find((f) => f.severity === 'fail' && decisionOn(view, f)?.body.kind !== 'dismissed') ??
    null
  );
}

/** The stretch of time around a finding that tells what happened. */
export function windowAround({ from_s, to_s }: Finding): { readonly from_s: number; readonly to_s: number } {
  const beside = Math.max(BESIDE_s, 2 * (to_s - from_s));
  return { from_s: from_s - beside, to_s: to_s + beside };
}

/** A channel's name; its column where the recording has none of that name. */
export const nameOf = ({ head }: TraceView, channel: string): string =>
  head.channels.find((c) => c.column === channel)?.name ?? channel;

/** Findings of a report are a page at most. */
const MOST_LINES = 20;

/** What a report for the file says of a recording, a sentence each. */
export function recordingLines(view: TraceView): string[] {
  const { head, notes } = view;
  const longest = Math.max(0, ...head.search.searched.map((s) => s.seconds));
  const files = head.files
    ? tr`; together with ${head.files
        .slice(1)
        .map((f) => tr`${f.name} (moved by ${fixed(f.shift_s, 2)} s, ${f.how})`)
        .join(', ')}`
    : '';
  const leads = head.channels.flatMap((c) => (c.lead ? [`${c.name}: ${c.lead}`] : []));
  const bad = head.search.findings.filter((f) => f.severity === 'fail' || f.severity === 'attention');
  const lines = bad.slice(0, MOST_LINES).map((f) => {
    const decided = decisionOn(view, f);
    const word = !decided
      ? 'not decided'
      : decided.body.kind === 'evidence'
        ? tr`taken as evidence by ${decided.by}`
        : tr`dismissed by ${decided.by}: ${decided.body.text}`;
    return tr`${nameOf(view, f.channel)} at ${moment(f.from_s)}: ${f.reasons[0] ?? f.kind} (${word})`;
  });
  const power = head.search.searched.map((s) => {
    const unit = head.channels.find((c) => c.column === s.channel)?.unit ?? '';
    return s.wouldFind
      ? tr`${nameOf(view, s.channel)}: a dropout of one sample and ${significant(s.wouldFind.depth, 3)} ${unit} would have been found with ${Math.round(s.wouldFind.probability * 100)} %.`
      : tr`${nameOf(view, s.channel)} could not be searched: ${s.why ?? ''}`;
  });
  return [
    tr`${span(longest)} of ${head.channels.map((c) => c.name).join(', ')}; file ${head.file}, SHA-256 ${head.sha256}${files}.`,
    ...(leads.length ? [tr`Leads: ${leads.join('; ')}.`] : []),
    ...(lines.length ? lines : ['Nothing left its course.']),
    ...(bad.length > MOST_LINES ? [tr`And ${bad.length - MOST_LINES} more in the recording.`] : []),
    ...power,
    ...notes
      .filter((n) => n.body.kind === 'mark')
      .map((n) => tr`Mark at ${moment(n.body.from_s)} by ${n.by}: ${n.body.text}`),
  ];
}

/** What to draw, in points from the upper left corner. */
export type Stroke =
  | {
      readonly kind: 'area';
      readonly role: 'lane' | 'limits' | 'marked';
      readonly box: readonly [number, number, number, number];
    }
  | { readonly kind: 'line'; readonly points: readonly (readonly [number, number])[] }
  | {
      readonly kind: 'text';
      readonly at: readonly [number, number];
      readonly text: string;
      readonly align: 'left' | 'right';
    };

export const LANE_HEIGHT = 62;
const [GAP, AXIS, FOOT] = [6, 40, 14];
export const pictureHeight = (p: TracePicture): number => p.lanes.length * (LANE_HEIGHT + GAP) + FOOT;

/** A picture as strokes, for a screen and for paper alike. */
export function strokesOf(p: TracePicture, width: number): Stroke[] {
  const x = (t: number): number =>
    AXIS + (Math.min(p.to_s, Math.max(p.from_s, t)) - p.from_s) * ((width - AXIS) / (p.to_s - p.from_s));
  const foot = pictureHeight(p) - FOOT + 2;
  return [
    ...p.lanes.flatMap((lane, i) => laneStrokes(lane, i * (LANE_HEIGHT + GAP), width, x, p.marked)),
    { kind: 'text', at: [AXIS, foot], text: moment(p.from_s), align: 'left' },
    { kind: 'text', at: [width, foot], text: moment(p.to_s), align: 'right' },
  ];
}

function laneStrokes(
  lane: PictureLane,
  top: number,
  width: number,
  x: (t: number) => number,
  marked: TracePicture['marked'],
): Stroke[] {
  const values = lane.points.map(([, v]) => v).filter((v) => Number.isFinite(v));
  const limits = [lane.lower, lane.upper].filter((v): v is number => v !== undefined);
  const least = Math.min(0, ...values);
  const most = Math.max(...values, ...limits.filter((v) => v < 2 * Math.max(...values)), least + 1e-6);
  const y = (v: number): number => top + 3 + (1 - (v - least) / (most - least)) * (LANE_HEIGHT - 6);
  const clamp = (v: number): number => Math.min(top + LANE_HEIGHT, Math.max(top, v));
  const lines: (readonly [number, number])[][] = [[]];
  for (const [t, v] of lane.points)
    if (Number.isFinite(v)) lines.at(-1)?.push([x(t), y(v)]);
    else if (lines.at(-1)?.length) lines.push([]);
  const [upper, lower] = [
    lane.upper === undefined ? top : clamp(y(lane.upper)),
    lane.lower === undefined ? top + LANE_HEIGHT : clamp(y(lane.lower)),
  ];
  const label = (v: number): Stroke => ({
    kind: 'text',
    at: [AXIS - 4, clamp(y(v)) - 5],
    text: significant(v, 3),
    align: 'right',
  });
  return [
    { kind: 'area', role: 'lane', box: [AXIS, top, width - AXIS, LANE_HEIGHT] },
    ...(limits.length
      ? [{ kind: 'area' as const, role: 'limits' as const, box: [AXIS, upper, width - AXIS, lower - upper] as const }]
      : []),
    ...(lane.isMeant
      ? [
          {
            kind: 'area' as const,
            role: 'marked' as const,
            box: [x(marked.from_s) - 1, top, Math.max(3, x(marked.to_s) - x(marked.from_s) + 1), LANE_HEIGHT] as const,
          },
        ]
      : []),
    ...lines.filter((l) => l.length > 1).map((points): Stroke => ({ kind: 'line', points })),
    label(least),
    label(most),
    { kind: 'text', at: [AXIS + 4, top + 3], text: `${lane.name}, ${lane.unit}`, align: 'left' },
  ];
}

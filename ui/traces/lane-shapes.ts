import { moment } from '../../core/signal/words';
import type { Finding } from '../../core/signal/types';
import type { Scene } from './scene';
import type { Rect, Shape } from './shapes';
import { timeTicks } from './time-ticks';
import type { TraceData } from './trace-data';

const TICKS = 6;
const MONO = '12px "Atkinson Hyperlegible Mono Variable", monospace';
const SANS = '13px "Atkinson Hyperlegible Next Variable", sans-serif';

/** Lowest and highest of a lane as it is drawn. */
export function spanOf(data: TraceData, lane: number): readonly [number, number] {
  const [low, high] = data.range(lane);
  const { lower, upper } = data.lanes[lane]?.channel.judgedBy ?? {};
  // Limits that are near are shown; a limit far off would flatten what was recorded.
  const near = Math.max(high - low, 1e-6);
  const seen = [lower, upper].filter((v): v is number => v !== undefined && v > low - near && v < high + near);
  const [bottom, top] = [Math.min(low, ...seen), Math.max(high, ...seen)];
  const pad = Math.max((top - bottom) * 0.08, 1e-6);
  return [bottom - pad, top + pad];
}

/** Whether a finding is about a part of the recording: what is said of all of it colours nothing. */
export const isPart = ({ data }: Scene, f: Finding): boolean => f.to_s - f.from_s < 0.5 * (data.to_s - data.from_s);

export const tone = ({ colours }: Scene, f: Finding): string =>
  f.severity === 'fail' ? colours.rust : f.severity === 'attention' ? colours.ochre : colours.edge;

/** Everything in a lane that moves with the window. */
export function laneShapes(scene: Scene, lane: number, r: Rect): Shape[] {
  const { from_s, to_s } = scene.window_s;
  const x = (t: number): number => r.x + ((t - from_s) / (to_s - from_s)) * r.width;
  const { column } = scene.data.lanes[lane]?.channel ?? { column: '' };
  const findings = scene.marked.findings.filter((f) => f.channel === column && f.to_s >= from_s && f.from_s <= to_s);
  return [
    ...ruling(scene, x, r),
    ...limits(scene, lane, r),
    ...findings.filter((f) => isPart(scene, f)).map((f) => band(scene, f, x, r)),
    ...course(scene, lane, r),
    ...findings.map((f) => notch(scene, f, x, r)),
    ...upright(scene, x, r),
    title(scene, lane, r),
  ];
}

const ticksOf = ({ window_s }: Scene): number[] => timeTicks(window_s.from_s, window_s.to_s, TICKS);

const ruling = (scene: Scene, x: (t: number) => number, r: Rect): Shape[] =>
  ticksOf(scene).map((t) => ({
    type: 'line',
    shape: { x1: x(t), x2: x(t), y1: r.y, y2: r.y + r.height },
    style: { stroke: scene.colours.line, lineWidth: 1, opacity: 0.5 },
  }));

/** The moments below the last lane. */
export function axisShapes(scene: Scene, r: Rect): Shape[] {
  const { from_s, to_s } = scene.window_s;
  const x = (t: number): number => r.x + ((t - from_s) / (to_s - from_s)) * r.width;
  return ticksOf(scene)
    .filter((t) => x(t) > r.x + 20 && x(t) < r.x + r.width - 20)
    .map((t) => ({
      type: 'text',
      x: x(t),
      y: r.y + r.height + 8,
      style: { text: moment(t), fill: scene.colours.soft, font: MONO, align: 'center' },
    }));
}

/** The limits of the shelf as the channel behind the course, as on a post. */
function limits({ data, colours }: Scene, lane: number, r: Rect): Shape[] {
  const { lower, upper } = data.lanes[lane]?.channel.judgedBy ?? {};
  if (lower === undefined && upper === undefined) return [];
  const [low, high] = spanOf(data, lane);
  const y = (v: number): number => r.y + r.height - ((v - low) / (high - low)) * r.height;
  const clamp = (v: number): number => Math.min(r.y + r.height, Math.max(r.y, v));
  const top = upper === undefined ? r.y : clamp(y(upper));
  const bottom = lower === undefined ? r.y + r.height : clamp(y(lower));
  const at = (v: number): Shape => ({
    type: 'line',
    shape: { x1: r.x, x2: r.x + r.width, y1: v, y2: v },
    style: { stroke: colours.estuary, lineWidth: 1, lineDash: [2, 4] },
  });
  return [
    {
      type: 'rect',
      shape: { x: r.x, y: top, width: r.width, height: Math.max(0, bottom - top) },
      style: { fill: colours.channel, opacity: 0.3 },
    },
    ...(upper === undefined || top <= r.y ? [] : [at(top)]),
    ...(lower === undefined || bottom >= r.y + r.height ? [] : [at(bottom)]),
  ];
}

function title({ data, colours }: Scene, lane: number, r: Rect): Shape {
  const channel = data.lanes[lane]?.channel;
  return {
    type: 'text',
    x: r.x + 8,
    y: r.y + 5,
    style: {
      text: channel ? `${lane + 1}  ${channel.name}, ${channel.unit}` : '',
      fill: colours.soft,
      // A course may run behind the name.
      backgroundColor: colours.card,
      padding: [1, 5],
      font: SANS,
    },
  };
}

/** The samples: as one line, or as strokes from the lowest to the highest of each column of pixels. */
function course({ data, window_s, colours }: Scene, lane: number, r: Rect): Shape[] {
  const { from_s, to_s } = window_s;
  const [low, high] = spanOf(data, lane);
  const drawn = data.drawn(lane, from_s, to_s, Math.round(r.width));
  const shape = { drawn, ...r, from_s, to_s, low, high };
  const isClose = drawn.isRaw && drawn.count < r.width / 6;
  return [
    { type: 'course', shape, style: { stroke: colours.estuary, fill: 'none', lineWidth: 1.5 } },
    ...(isClose ? [{ type: 'course-dots', shape, style: { fill: colours.estuary } } as const] : []),
  ];
}

function band(scene: Scene, f: Finding, x: (t: number) => number, r: Rect): Shape {
  const left = Math.max(r.x, x(f.from_s) - 1);
  const width = Math.max(3, Math.min(r.x + r.width, x(f.to_s) + 1) - left);
  const isSelected = f === scene.marked.selected;
  return {
    type: 'rect',
    shape: { x: left, y: r.y, width, height: r.height },
    style: { fill: tone(scene, f), opacity: isSelected ? 0.4 : 0.18 },
  };
}

/** A notch at the upper edge: downwards for what fell, upwards for what rose, a bar for what lasts. */
function notch(scene: Scene, f: Finding, x: (t: number) => number, r: Rect): Shape {
  const cx = Math.min(r.x + r.width - 6, Math.max(r.x + 6, x((f.from_s + f.to_s) / 2)));
  const style = { fill: tone(scene, f) };
  const top = r.y + 1;
  if (f.kind !== 'dropout' && f.kind !== 'spike')
    return { type: 'rect', shape: { x: cx - 6, y: top, width: 12, height: 4 }, style };
  const [base, tip] = f.kind === 'dropout' ? [top, top + 10] : [top + 10, top];
  return {
    type: 'polygon',
    shape: {
      points: [
        [cx - 6, base],
        [cx + 6, base],
        [cx, tip],
      ],
    },
    style,
  };
}

/** Marks of persons and the cursor. */
function upright({ window_s: { from_s, to_s }, marked, colours }: Scene, x: (t: number) => number, r: Rect): Shape[] {
  const at = (t: number, stroke: string, lineDash?: number[]): Shape => ({
    type: 'line',
    shape: { x1: x(t), y1: r.y, x2: x(t), y2: r.y + r.height },
    style: { stroke, lineWidth: 1.5, ...(lineDash ? { lineDash } : {}) },
  });
  const { cursor_s } = marked;
  return [
    ...marked.marks
      .filter((m) => m.from_s >= from_s && m.from_s <= to_s)
      .map((m) => at(m.from_s, colours.post, [5, 3])),
    ...(cursor_s !== null && cursor_s >= from_s && cursor_s <= to_s ? [at(cursor_s, colours.ink)] : []),
  ];
}

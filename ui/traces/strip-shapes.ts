import { isPart, spanOf, tone } from './lane-shapes';
import type { Scene } from './scene';
import type { Rect, Shape } from './shapes';
import type { Drawn } from './trace-data';

const xOf =
  ({ data: { from_s, to_s } }: Scene, r: Rect) =>
  (t: number): number =>
    r.x + ((t - from_s) / Math.max(1e-9, to_s - from_s)) * r.width;

/** The courses of the whole recording, small: they stay the same from window to window. */
export function stripCourses({ data, colours }: Scene, r: Rect): Shape[] {
  const { from_s, to_s } = data;
  const height = r.height / data.lanes.length;
  return data.lanes.map((_, i) => {
    const drawn = copied(data.drawn(i, from_s, to_s, Math.round(r.width / 2)));
    const [low, high] = spanOf(data, i);
    return {
      type: 'course',
      shape: { drawn, x: r.x, y: r.y + height * i, width: r.width, height, from_s, to_s, low, high },
      style: { stroke: colours.edge, fill: 'none', lineWidth: 1, opacity: 0.7 },
    };
  });
}

/** Every finding, what the drive did, and where the window is. */
export function stripShapes(scene: Scene, r: Rect): Shape[] {
  const x = xOf(scene, r);
  const { window_s, marked, colours } = scene;
  return [
    ...marked.findings
      .filter((f) => isPart(scene, f))
      .map((f): Shape => ({
        type: 'rect',
        shape: { x: x(f.from_s) - 1, y: r.y, width: Math.max(2, x(f.to_s) - x(f.from_s)), height: r.height },
        style: { fill: tone(scene, f), opacity: f === marked.selected ? 1 : 0.6 },
      })),
    ...drive(scene, x, r),
    {
      type: 'rect',
      shape: {
        x: x(window_s.from_s),
        width: Math.max(3, x(window_s.to_s) - x(window_s.from_s)),
        y: r.y,
        height: r.height,
      },
      style: { fill: colours.channel, opacity: 0.35, stroke: colours.estuary, lineWidth: 2 },
    },
  ];
}

/** What the drive did, below the strip's courses: a line at each event, the engine's running as a bar. */
const drive = ({ marked, colours }: Scene, x: (t: number) => number, r: Rect): Shape[] =>
  marked.events.map((e) =>
    e.kind === 'running'
      ? {
          type: 'rect',
          shape: { x: x(e.from_s), y: r.y + r.height - 4, width: Math.max(2, x(e.to_s) - x(e.from_s)), height: 4 },
          style: { fill: colours.estuary },
        }
      : {
          type: 'line',
          shape: { x1: x(e.from_s), x2: x(e.from_s), y1: r.y, y2: r.y + r.height },
          style: { stroke: colours.post, lineWidth: 1.5, lineDash: [3, 3] },
        },
  );

/** What is drawn lies in buffers that the next window writes over: the strip keeps its own. */
const copied = (d: Drawn): Drawn => ({
  ...d,
  t: d.t.slice(0, d.count),
  low: d.low.slice(0, d.count),
  high: d.high.slice(0, d.count),
});

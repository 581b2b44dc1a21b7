import { CustomChart } from 'echarts/charts';
import { GridComponent } from 'echarts/components';
import { type EChartsType, init, use as register } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { moment } from '../../core/signal/words';
import type { DriveEvent } from '../../core/signal/drive';
import type { Finding } from '../../core/signal/types';
import type { TraceNoteBody } from '../../formats/requests/traces';
import type { TraceData } from './trace-data';

register([CustomChart, GridComponent, CanvasRenderer]);

export interface Window_s {
  readonly from_s: number;
  readonly to_s: number;
}
/** What is drawn beside the samples. */
export interface Marked {
  readonly findings: readonly Finding[];
  readonly selected: Finding | null;
  readonly marks: readonly TraceNoteBody[];
  readonly cursor_s: number | null;
  /** The lane that is drawn larger; `null`: all alike. */
  readonly large: number | null;
  /** What the drive did. */
  readonly events: readonly DriveEvent[];
}

export const STRIP_px = 64;
const [LEFT, RIGHT, GAP, AXIS] = [64, 34, 10, 26];
const COLOURS = [
  'ink',
  'soft',
  'line',
  'channel',
  'edge',
  'estuary',
  'rust',
  'ochre',
  'post',
  'card',
  'panel',
] as const;
type Colours = Readonly<Record<(typeof COLOURS)[number], string>>;

interface Rect {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

function coloursOf(element: HTMLElement): Colours {
  const style = getComputedStyle(element);
  return Object.fromEntries(COLOURS.map((c) => [c, style.getPropertyValue(`--${c}`).trim()])) as Colours;
}

/** Lanes over one time, with a strip of the whole recording above: drawn anew for each window, without animation. */
export class TraceChart {
  private readonly chart: EChartsType;
  private window_s: Window_s;
  private marked: Marked = { findings: [], selected: null, marks: [], cursor_s: null, large: null, events: [] };
  private colours: Colours;
  private version = 0;
  /** The strip's courses stay the same from window to window. */
  private stripCourses: object[] = [];
  private stripKey = '';

  constructor(
    private readonly element: HTMLElement,
    private readonly data: TraceData,
  ) {
    this.chart = init(element, null, { renderer: 'canvas' });
    this.window_s = { from_s: data.from_s, to_s: data.to_s };
    this.colours = coloursOf(element);
    this.layOut();
  }

  dispose(): void {
    this.chart.dispose();
  }
  resize(): void {
    this.chart.resize();
    this.layOut();
  }
  recolour(): void {
    this.colours = coloursOf(this.element);
    this.layOut();
  }

  /** Shows a window; the time that the script needed for it, in milliseconds. */
  show(window_s: Window_s, marked: Marked): number {
    const began = performance.now();
    const isOther = marked.large !== this.marked.large;
    this.window_s = window_s;
    this.marked = marked;
    if (isOther) this.layOut();
    else {
      const { from_s: min, to_s: max } = window_s;
      this.version++;
      this.chart.setOption({
        xAxis: this.data.lanes.map((_, i) => ({ id: `x${i}`, min, max })),
        series: [
          ...this.data.lanes.map((_, i) => ({ id: `lane${i}`, data: [this.version] })),
          { id: 'strip', data: [this.version] },
        ],
      });
    }
    return performance.now() - began;
  }

  /** The moment under a horizontal place in pixels, and whether the place is on the strip. */
  at(x: number, y: number): { readonly t_s: number; readonly onStrip: boolean } {
    const onStrip = y <= STRIP_px;
    const { from_s, to_s } = onStrip ? this.data : this.window_s;
    const share = (x - LEFT) / Math.max(1, this.element.clientWidth - LEFT - RIGHT);
    return { t_s: from_s + share * (to_s - from_s), onStrip };
  }

  private layOut(): void {
    const { lanes } = this.data;
    const room = Math.max(80, this.element.clientHeight - STRIP_px - AXIS - GAP * (lanes.length + 1));
    const { large } = this.marked;
    const shares = lanes.map((_, i) => (large === null ? 1 : i === large ? 3 : 0.5));
    const total = shares.reduce((a, b) => a + b, 0);
    let top = STRIP_px + GAP;
    const grids = shares.map((share, i) => {
      const height = (room * share) / total;
      const grid = {
        id: `g${i}`,
        left: LEFT,
        right: RIGHT,
        top,
        height,
        // Labels do not narrow a lane: all lanes have one time.
        outerBoundsMode: 'none' as const,
        show: true,
        backgroundColor: this.colours.card,
        borderColor: this.colours.line,
      };
      top += height + GAP;
      return grid;
    });
    const last = lanes.length - 1;
    const text = {
      color: this.colours.soft,
      fontFamily: 'Atkinson Hyperlegible Mono Variable, monospace',
      fontSize: 12,
    };
    const { from_s: min, to_s: max } = this.window_s;
    this.chart.setOption(
      {
        animation: false,
        textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable, sans-serif' },
        grid: [
          ...grids,
          {
            id: 'strip',
            left: LEFT,
            right: RIGHT,
            top: 4,
            height: STRIP_px - 8,
            outerBoundsMode: 'none' as const,
            show: true,
            backgroundColor: this.colours.panel,
            borderColor: this.colours.line,
          },
        ],
        xAxis: [
          ...lanes.map((_, i) => ({
            id: `x${i}`,
            gridIndex: i,
            type: 'value' as const,
            min,
            max,
            splitNumber: 6,
            axisLabel: {
              ...text,
              show: i === last,
              formatter: (t: number) => moment(t),
              hideOverlap: true,
              showMinLabel: false,
              showMaxLabel: false,
            },
            axisTick: { show: i === last },
            axisLine: { lineStyle: { color: this.colours.line } },
            splitLine: { lineStyle: { color: this.colours.line, opacity: 0.5 } },
          })),
          {
            id: 'xs',
            gridIndex: lanes.length,
            type: 'value' as const,
            min: this.data.from_s,
            max: this.data.to_s,
            show: false,
          },
        ],
        yAxis: [
          ...lanes.map((_, i) => {
            const [low, high] = this.span(i);
            return {
              id: `y${i}`,
              gridIndex: i,
              type: 'value' as const,
              min: low,
              max: high,
              splitNumber: 3,
              axisLabel: {
                ...text,
                showMinLabel: false,
                showMaxLabel: false,
                formatter: (v: number) => String(Number(v.toPrecision(4))),
              },
              axisLine: { show: false },
              axisTick: { show: false },
              splitLine: { lineStyle: { color: this.colours.line, opacity: 0.35 } },
            };
          }),
          { id: 'ys', gridIndex: lanes.length, type: 'value' as const, min: 0, max: 1, show: false },
        ],
        series: [
          ...lanes.map((_, i) => ({
            id: `lane${i}`,
            type: 'custom' as const,
            xAxisIndex: i,
            yAxisIndex: i,
            data: [this.version],
            silent: true,
            encode: { x: -1, y: -1 },
            renderItem: (params: { coordSys: unknown }) => this.lane(i, params.coordSys as Rect),
          })),
          {
            id: 'strip',
            type: 'custom' as const,
            xAxisIndex: lanes.length,
            yAxisIndex: lanes.length,
            data: [this.version],
            silent: true,
            encode: { x: -1, y: -1 },
            renderItem: (params: { coordSys: unknown }) => this.strip(params.coordSys as Rect),
          },
        ],
      },
      { notMerge: true },
    );
  }

  private span(lane: number): readonly [number, number] {
    const [low, high] = this.data.range(lane);
    const { lower, upper } = this.data.lanes[lane]?.channel.judgedBy ?? {};
    // Limits that are near are shown; a limit far off would flatten what was recorded.
    const near = Math.max(high - low, 1e-6);
    const seen = [lower, upper].filter((v): v is number => v !== undefined && v > low - near && v < high + near);
    const [bottom, top] = [Math.min(low, ...seen), Math.max(high, ...seen)];
    const pad = Math.max((top - bottom) * 0.08, 1e-6);
    return [bottom - pad, top + pad];
  }

  private lane(lane: number, r: Rect): object {
    const { from_s, to_s } = this.window_s;
    const [low, high] = this.span(lane);
    const x = (t: number): number => r.x + ((t - from_s) / (to_s - from_s)) * r.width;
    const y = (v: number): number => r.y + r.height - ((v - low) / (high - low)) * r.height;
    const { column } = this.data.lanes[lane]?.channel ?? { column: '' };
    const findings = this.marked.findings.filter((f) => f.channel === column && f.to_s >= from_s && f.from_s <= to_s);
    return {
      type: 'group',
      // Lines and points change places from window to window: nothing is taken over from the one before.
      $mergeChildren: false,
      children: [
        ...this.limits(lane, y, r),
        ...findings.filter((f) => this.isPart(f)).map((f) => this.band(f, x, r)),
        ...this.course(lane, x, y, r),
        ...findings.map((f) => this.notch(f, x, r)),
        ...this.upright(x, r),
        this.title(lane, r),
      ],
    };
  }

  /** The limits of the shelf as the channel behind the course, as on a post. */
  private limits(lane: number, y: (v: number) => number, r: Rect): object[] {
    const { lower, upper } = this.data.lanes[lane]?.channel.judgedBy ?? {};
    if (lower === undefined && upper === undefined) return [];
    const clamp = (v: number): number => Math.min(r.y + r.height, Math.max(r.y, v));
    const top = upper === undefined ? r.y : clamp(y(upper));
    const bottom = lower === undefined ? r.y + r.height : clamp(y(lower));
    const line = (v: number): object => ({
      type: 'line',
      shape: { x1: r.x, x2: r.x + r.width, y1: v, y2: v },
      style: { stroke: this.colours.estuary, lineWidth: 1, lineDash: [2, 4] },
    });
    return [
      {
        type: 'rect',
        shape: { x: r.x, y: top, width: r.width, height: Math.max(0, bottom - top) },
        style: { fill: this.colours.channel, opacity: 0.3 },
      },
      ...(upper === undefined || top <= r.y ? [] : [line(top)]),
      ...(lower === undefined || bottom >= r.y + r.height ? [] : [line(bottom)]),
    ];
  }

  /** Whether a finding is about a part of the recording: what is said of all of it colours nothing. */
  private isPart = (f: Finding): boolean => f.to_s - f.from_s < 0.5 * (this.data.to_s - this.data.from_s);

  private title(lane: number, r: Rect): object {
    const channel = this.data.lanes[lane]?.channel;
    return {
      type: 'text',
      x: r.x + 8,
      y: r.y + 5,
      style: {
        text: channel ? `${lane + 1}  ${channel.name}, ${channel.unit}` : '',
        fill: this.colours.soft,
        // A course may run behind the name.
        backgroundColor: this.colours.card,
        padding: [1, 5],
        font: '13px "Atkinson Hyperlegible Next Variable", sans-serif',
      },
    };
  }

  /** The samples: as one line, or as strokes from the lowest to the highest of each column of pixels. */
  private course(lane: number, x: (t: number) => number, y: (v: number) => number, r: Rect): object[] {
    const drawn = this.data.drawn(lane, this.window_s.from_s, this.window_s.to_s, Math.round(r.width));
    const lines: number[][][] = [];
    let line: number[][] = [];
    for (let i = 0; i < drawn.count; i++) {
      const [low, high] = [drawn.low[i] ?? NaN, drawn.high[i] ?? NaN];
      if (Number.isNaN(low)) {
        if (line.length) lines.push(line);
        line = [];
        continue;
      }
      const px = Math.min(r.x + r.width, Math.max(r.x, x(drawn.t[i] ?? 0)));
      if (i % 2) line.push([px, y(low)]);
      line.push([px, y(high)]);
      if (!(i % 2) && high > low) line.push([px, y(low)]);
    }
    if (line.length) lines.push(line);
    const isClose = drawn.isRaw && drawn.count < r.width / 6;
    return [
      ...lines.map((points) => ({
        type: 'polyline',
        shape: { points },
        style: { stroke: this.colours.estuary, fill: 'none', lineWidth: 1.5 },
      })),
      ...(isClose
        ? lines
            .flat()
            .map(([cx, cy]) => ({ type: 'circle', shape: { cx, cy, r: 2.5 }, style: { fill: this.colours.estuary } }))
        : []),
    ];
  }

  private band(f: Finding, x: (t: number) => number, r: Rect): object {
    const left = Math.max(r.x, x(f.from_s) - 1);
    const width = Math.max(3, Math.min(r.x + r.width, x(f.to_s) + 1) - left);
    const isSelected = f === this.marked.selected;
    return {
      type: 'rect',
      shape: { x: left, y: r.y, width, height: r.height },
      style: { fill: this.tone(f), opacity: isSelected ? 0.4 : 0.18 },
    };
  }

  /** A notch at the upper edge: downwards for what fell, upwards for what rose, a bar for what lasts. */
  private notch(f: Finding, x: (t: number) => number, r: Rect): object {
    const cx = Math.min(r.x + r.width - 6, Math.max(r.x + 6, x((f.from_s + f.to_s) / 2)));
    const fill = this.tone(f);
    const top = r.y + 1;
    if (f.kind === 'dropout')
      return {
        type: 'polygon',
        shape: {
          points: [
            [cx - 6, top],
            [cx + 6, top],
            [cx, top + 10],
          ],
        },
        style: { fill },
      };
    if (f.kind === 'spike')
      return {
        type: 'polygon',
        shape: {
          points: [
            [cx - 6, top + 10],
            [cx + 6, top + 10],
            [cx, top],
          ],
        },
        style: { fill },
      };
    return { type: 'rect', shape: { x: cx - 6, y: top, width: 12, height: 4 }, style: { fill } };
  }

  private tone = (f: Finding): string =>
    f.severity === 'fail' ? this.colours.rust : f.severity === 'attention' ? this.colours.ochre : this.colours.edge;

  /** Marks of persons and the cursor. */
  private upright(x: (t: number) => number, r: Rect): object[] {
    const { from_s, to_s } = this.window_s;
    const line = (t: number, stroke: string, lineDash: number[] | null): object => ({
      type: 'line',
      shape: { x1: x(t), y1: r.y, x2: x(t), y2: r.y + r.height },
      style: { stroke, lineWidth: 1.5, ...(lineDash ? { lineDash } : {}) },
    });
    const seen = this.marked.marks.filter((m) => m.from_s >= from_s && m.from_s <= to_s);
    const { cursor_s } = this.marked;
    return [
      ...seen.map((m) => line(m.from_s, this.colours.post, [5, 3])),
      ...(cursor_s !== null && cursor_s >= from_s && cursor_s <= to_s ? [line(cursor_s, this.colours.ink, null)] : []),
    ];
  }

  /** What the drive did, below the strip's courses: a line at each event, the engine's running as a bar. */
  private drive(x: (t: number) => number, r: Rect): object[] {
    return this.marked.events.flatMap((e): object[] =>
      e.kind === 'running'
        ? [
            {
              type: 'rect',
              shape: { x: x(e.from_s), y: r.y + r.height - 4, width: Math.max(2, x(e.to_s) - x(e.from_s)), height: 4 },
              style: { fill: this.colours.estuary },
            },
          ]
        : [
            {
              type: 'line',
              shape: { x1: x(e.from_s), x2: x(e.from_s), y1: r.y, y2: r.y + r.height },
              style: { stroke: this.colours.post, lineWidth: 1.5, lineDash: [3, 3] },
            },
          ],
    );
  }

  /** The whole recording: the first lanes small, every finding, and where the window is. */
  private strip(r: Rect): object {
    const { from_s, to_s } = this.data;
    const x = (t: number): number => r.x + ((t - from_s) / Math.max(1e-9, to_s - from_s)) * r.width;
    const rows = this.data.lanes.length;
    const height = r.height / rows;
    const key = `${r.width} ${this.colours.edge} ${this.data.arrived}`;
    if (this.stripKey !== key)
      this.stripCourses = this.data.lanes.map((_, i) => {
        const drawn = this.data.drawn(i, from_s, to_s, Math.round(r.width / 2));
        const [low, high] = this.span(i);
        const y = (v: number): number => r.y + height * (i + 1) - ((v - low) / (high - low)) * height;
        const points: number[][] = [];
        for (let k = 0; k < drawn.count; k++) {
          const [a, b] = [drawn.low[k] ?? NaN, drawn.high[k] ?? NaN];
          if (Number.isFinite(a))
            points.push([x(drawn.t[k] ?? 0), y(k % 2 ? a : b)], [x(drawn.t[k] ?? 0), y(k % 2 ? b : a)]);
        }
        return {
          type: 'polyline',
          shape: { points },
          style: { stroke: this.colours.edge, fill: 'none', lineWidth: 1, opacity: 0.7 },
        };
      });
    this.stripKey = key;
    const ticks = this.marked.findings
      .filter((f) => this.isPart(f))
      .map((f) => ({
        type: 'rect',
        shape: { x: x(f.from_s) - 1, y: r.y, width: Math.max(2, x(f.to_s) - x(f.from_s)), height: r.height },
        style: { fill: this.tone(f), opacity: f === this.marked.selected ? 1 : 0.6 },
      }));
    const window_ = { x: x(this.window_s.from_s), width: Math.max(3, x(this.window_s.to_s) - x(this.window_s.from_s)) };
    return {
      type: 'group',
      $mergeChildren: false,
      children: [
        ...this.stripCourses,
        ...ticks,
        ...this.drive(x, r),
        {
          type: 'rect',
          shape: { ...window_, y: r.y, height: r.height },
          style: { fill: this.colours.channel, opacity: 0.35, stroke: this.colours.estuary, lineWidth: 2 },
        },
      ],
    };
  }
}

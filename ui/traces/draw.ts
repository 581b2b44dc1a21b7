import { significant } from '../../core/locale/numbers';
import { GridComponent } from 'echarts/components';
import { type EChartsType, graphic, init, use as register } from 'echarts/core';
import { CanvasRenderer } from 'echarts/renderers';
import { axisShapes, laneShapes, spanOf } from './lane-shapes';
import { type Colours, coloursOf, type Marked, type Scene, type Window_s } from './scene';
import { fill, type Rect } from './shapes';
import { stripCourses, stripShapes } from './strip-shapes';
import type { TraceData } from './trace-data';

register([GridComponent, CanvasRenderer]);

export const STRIP_px = 64;
const [LEFT, RIGHT, GAP, AXIS] = [64, 34, 10, 26];
/** What stands still is drawn on one canvas, what moves with the window on another. */
const [STILL, MOVING] = [0, 1];

/**
 * Lanes over one time, with a strip of the whole recording above. The library lays out lanes and their axes
 * of values once; what moves with the window is put onto its canvas as shapes, so that a window costs no more
 * than what it shows.
 */
export class TraceChart {
  private readonly chart: EChartsType;
  private window_s: Window_s;
  private marked: Marked = { findings: [], selected: null, marks: [], cursor_s: null, large: null, events: [] };
  private colours: Colours;
  private readonly moving = new graphic.Group();
  private readonly strip = new graphic.Group();
  private stripKey = '';
  private rects: readonly Rect[] = [];

  constructor(
    private readonly element: HTMLElement,
    private readonly data: TraceData,
  ) {
    this.chart = init(element, null, { renderer: 'canvas' });
    this.chart.getZr().add(this.strip);
    this.chart.getZr().add(this.moving);
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

  /** Shows a window. */
  show(window_s: Window_s, marked: Marked): void {
    const isOther = marked.large !== this.marked.large;
    this.window_s = window_s;
    this.marked = marked;
    if (isOther) this.layOut();
    else this.draw();
  }

  /** The moment under a horizontal place in pixels, and whether the place is on the strip. */
  at(x: number, y: number): { readonly t_s: number; readonly onStrip: boolean } {
    const onStrip = y <= STRIP_px;
    const { from_s, to_s } = onStrip ? this.data : this.window_s;
    const share = (x - LEFT) / this.width();
    return { t_s: from_s + share * (to_s - from_s), onStrip };
  }

  private width = (): number => Math.max(1, this.element.clientWidth - LEFT - RIGHT);
  private stripRect = (): Rect => ({ x: LEFT, y: 4, width: this.width(), height: STRIP_px - 8 });

  private draw(): void {
    const scene: Scene = { data: this.data, window_s: this.window_s, marked: this.marked, colours: this.colours };
    const strip = this.stripRect();
    const key = `${strip.width} ${this.colours.edge} ${this.data.arrived}`;
    if (this.stripKey !== key) fill(this.strip, stripCourses(scene, strip), STILL);
    this.stripKey = key;
    const last = this.rects.at(-1);
    fill(
      this.moving,
      [
        ...this.rects.flatMap((r, i) => laneShapes(scene, i, r)),
        ...(last ? axisShapes(scene, last) : []),
        ...stripShapes(scene, strip),
      ],
      MOVING,
    );
  }

  /** Where each lane is: one of them may be larger. */
  private places(): Rect[] {
    const { lanes } = this.data;
    const { large } = this.marked;
    const room = Math.max(80, this.element.clientHeight - STRIP_px - AXIS - GAP * (lanes.length + 1));
    const shares = lanes.map((_, i) => (large === null ? 1 : i === large ? 3 : 0.5));
    const total = shares.reduce((a, b) => a + b, 0);
    let y = STRIP_px + GAP;
    return shares.map((share) => {
      const rect = { x: LEFT, y, width: this.width(), height: (room * share) / total };
      y += rect.height + GAP;
      return rect;
    });
  }

  private layOut(): void {
    this.rects = this.places();
    const grid = (r: Rect, backgroundColor: string): object => ({
      left: r.x,
      right: RIGHT,
      top: r.y,
      height: r.height,
      // Labels do not narrow a lane: all lanes have one time.
      outerBoundsMode: 'none',
      show: true,
      backgroundColor,
      borderColor: this.colours.line,
    });
    const hidden = { type: 'value', min: 0, max: 1, show: false };
    this.chart.setOption(
      {
        animation: false,
        grid: [...this.rects.map((r) => grid(r, this.colours.card)), grid(this.stripRect(), this.colours.panel)],
        xAxis: [...this.rects, null].map((_, gridIndex) => ({ ...hidden, gridIndex })),
        yAxis: [...this.rects.map((_, i) => this.valueAxis(i)), { ...hidden, gridIndex: this.rects.length }],
        series: [],
      },
      { notMerge: true },
    );
    this.draw();
  }

  private valueAxis(lane: number): object {
    const [min, max] = spanOf(this.data, lane);
    return {
      gridIndex: lane,
      type: 'value',
      min,
      max,
      splitNumber: 3,
      axisLabel: {
        color: this.colours.soft,
        fontFamily: 'Atkinson Hyperlegible Mono Variable, monospace',
        fontSize: 12,
        showMinLabel: false,
        showMaxLabel: false,
        formatter: (v: number) => significant(v, 4),
      },
      axisLine: { show: false },
      axisTick: { show: false },
      splitLine: { lineStyle: { color: this.colours.line, opacity: 0.35 } },
    };
  }
}

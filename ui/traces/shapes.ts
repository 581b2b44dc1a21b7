import { graphic } from 'echarts/core';
import { type CourseShape, dots, line } from './course-shape';

/** A place on the canvas, in pixels. */
export interface Rect {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}
interface Style {
  readonly fill?: string;
  readonly stroke?: string;
  readonly opacity?: number;
  readonly lineWidth?: number;
  readonly lineDash?: number[];
}

/** What is drawn, as data. */
export type Shape =
  | { readonly type: 'rect'; readonly shape: Rect; readonly style: Style }
  | {
      readonly type: 'line';
      readonly shape: { readonly x1: number; readonly y1: number; readonly x2: number; readonly y2: number };
      readonly style: Style;
    }
  | { readonly type: 'polygon'; readonly shape: { readonly points: number[][] }; readonly style: Style }
  | { readonly type: 'course' | 'course-dots'; readonly shape: CourseShape; readonly style: Style }
  | { readonly type: 'text'; readonly x: number; readonly y: number; readonly style: TextStyle };
interface TextStyle {
  readonly text: string;
  readonly fill: string;
  readonly font: string;
  readonly align?: 'left' | 'center';
  readonly backgroundColor?: string;
  readonly padding?: number[];
}

/** A course as a path of its own: it is drawn from the samples, without a list of points between. */
const courseOf = (draw: typeof line) =>
  graphic.extendShape({
    shape: {},
    // The library has no place for the type of an own shape.
    buildPath: (pen, shape) => draw(pen, shape as unknown as CourseShape),
  });
const CLASSES = {
  rect: graphic.Rect,
  line: graphic.Line,
  polygon: graphic.Polygon,
  course: courseOf(line),
  'course-dots': courseOf(dots),
  text: graphic.Text,
} as const;

/**
 * Puts shapes into a group, instead of those that were there. `zlevel`: which canvas; what changes seldom has
 * its own.
 */
export function fill(group: InstanceType<typeof graphic.Group>, shapes: readonly Shape[], zlevel: number): void {
  group.removeAll();
  for (const [z, s] of shapes.entries()) {
    const Class = CLASSES[s.type] as new (options: object) => Parameters<typeof group.add>[0];
    group.add(new Class({ ...s, silent: true, zlevel, z }));
  }
}

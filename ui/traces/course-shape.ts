import type { Drawn } from './trace-data';

/** A course in a rectangle: from the samples to the path, without a list of points between. */
export interface CourseShape {
  readonly drawn: Drawn;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly from_s: number;
  readonly to_s: number;
  readonly low: number;
  readonly high: number;
}

/** As much of a canvas as a course needs. */
export interface Pen {
  moveTo(x: number, y: number): void;
  lineTo(x: number, y: number): void;
  arc(x: number, y: number, r: number, from: number, to: number): void;
}

const DOT_px = 2.5;

/** Calls back for each column: its place, and where its lowest and highest value lie; `null` for a gap. */
function eachColumn(s: CourseShape, take: (x: number, low: number, high: number) => void, gap: () => void): void {
  const { t, low, high, count } = s.drawn;
  const perSecond = s.width / (s.to_s - s.from_s);
  const perUnit = s.height / (s.high - s.low);
  const [right, bottom] = [s.x + s.width, s.y + s.height];
  for (let i = 0; i < count; i++) {
    const [a, b] = [low[i] as number, high[i] as number];
    if (Number.isNaN(a)) {
      gap();
      continue;
    }
    const x = Math.min(right, Math.max(s.x, s.x + ((t[i] as number) - s.from_s) * perSecond));
    take(x, bottom - (a - s.low) * perUnit, bottom - (b - s.low) * perUnit);
  }
}

/** One line through the samples, or strokes from the lowest to the highest of each column. */
export function line(pen: Pen, shape: CourseShape): void {
  let isDown = false;
  let isUp = false;
  const to = (x: number, y: number): void => {
    if (isDown) pen.lineTo(x, y);
    else pen.moveTo(x, y);
    isDown = true;
  };
  eachColumn(
    shape,
    (x, low, high) => {
      // Up and down in turn: the pen goes on from where the last stroke ended.
      if (low === high) to(x, low);
      else {
        to(x, isUp ? high : low);
        to(x, isUp ? low : high);
      }
      isUp = !isUp;
    },
    () => (isDown = false),
  );
}

export function dots(pen: Pen, shape: CourseShape): void {
  eachColumn(
    shape,
    (x, y) => {
      pen.moveTo(x + DOT_px, y);
      pen.arc(x, y, DOT_px, 0, 2 * Math.PI);
    },
    () => undefined,
  );
}

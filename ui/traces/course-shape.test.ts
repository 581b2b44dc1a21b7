import { seededRandom } from '../../core/numerics/random';
import { type CourseShape, dots, line, type Pen } from './course-shape';

type Point = readonly [number, number];

/** Writes down what is drawn: strokes as lists of points, and the middles of dots. */
function drawnBy(draw: (pen: Pen, shape: CourseShape) => void, shape: CourseShape) {
  const strokes: Point[][] = [];
  const middles: Point[] = [];
  draw(
    {
      moveTo: (x, y) => void strokes.push([[x, y]]),
      lineTo: (x, y) => void strokes.at(-1)?.push([x, y]),
      arc: (x, y) => void middles.push([x, y]),
    },
    shape,
  );
  return { strokes, middles };
}

const shapeOf = (low: number[], high: number[] = low): CourseShape => ({
  drawn: {
    t: Float64Array.from(low, (_, i) => i),
    low: Float64Array.from(low),
    high: Float64Array.from(high),
    count: low.length,
    isRaw: true,
  },
  x: 100,
  y: 50,
  width: 90,
  height: 20,
  from_s: 0,
  to_s: 9,
  low: 0,
  high: 10,
});

it('joins samples, upwards is up', () => {
  expect(drawnBy(line, shapeOf([0, 10, 5])).strokes).toEqual([
    [
      [100, 70],
      [110, 50],
      [120, 60],
    ],
  ]);
});

it('breaks at a gap', () => {
  expect(drawnBy(line, shapeOf([0, NaN, 5, 5])).strokes.map((s) => s.length)).toEqual([1, 2]);
});

it('reaches the lowest and the highest of every column, whatever lies beside it', () => {
  const random = seededRandom(3);
  const low = Array.from({ length: 200 }, () => 10 * random());
  const high = low.map((v) => Math.min(10, v + (random() < 0.5 ? 0 : 10 * random())));
  const points = drawnBy(line, shapeOf(low, high)).strokes.flat();
  for (const [i, v] of low.entries()) {
    const x = Math.min(190, 100 + 10 * i);
    for (const level of [v, high[i] ?? NaN])
      expect(points.some(([px, py]) => Math.abs(px - x) < 1e-9 && Math.abs(py - (70 - 2 * level)) < 1e-9)).toBe(true);
  }
});

it('puts a dot on each sample', () => {
  expect(drawnBy(dots, shapeOf([0, NaN, 10])).middles).toEqual([
    [100, 70],
    [120, 50],
  ]);
});

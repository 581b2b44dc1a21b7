import { thin } from '../pulses';
import { quantile } from '../../numerics/select';
import { speedOf, turned } from './axis';
import { type Capture, cylinderAfter, phaseOf, positionOf } from './capture';
import { camMarks, type CamMark } from './timing';

/**
 * A capture over one cycle of 720 degrees: what each channel does on the average, and how far cycles differ.
 */
export interface Cycle {
  readonly from: 'crank' | 'cylinder';
  readonly cycles: number;
  readonly speed_rpm: number;
  /**
   * Whether angle 0 is the injection of the first cylinder of the order; else the first tooth after the gap.
   */
  readonly isNamed: boolean;
  /** Places of the firing order with their cylinders, degrees. */
  readonly places: readonly { readonly cylinder: number | null; readonly angle_deg: number }[];
  readonly lanes: readonly CycleLane[];
  readonly cam: readonly CamMark[];
  /** Of the crank wheel; `null`: no crank was recorded. */
  readonly teeth: number | null;
}
export interface CycleLane {
  readonly column: string;
  /** A value for each step of angle; the middle of the cycles, and what nine of ten lie between. */
  readonly middle: readonly number[];
  readonly low: readonly number[];
  readonly high: readonly number[];
}

export const CYCLE_STEPS = 240;
/** More cycles tell no more of a picture. */
const MOST_CYCLES = 40;

/** The capture over one cycle; `null` where no axis of angle or no whole cycle is there. */
export function cycleOf(capture: Capture): Cycle | null {
  const position = positionOf(capture);
  const phase = phaseOf(capture, position);
  if (!phase) return null;
  const { axis, named } = phase;
  const order = capture.firingOrder;
  const n = Math.max(1, capture.cylinders);
  // Angle 0 is the first of the order, so that all captures of an engine lie on top of each other.
  const steps = named && order ? Math.max(0, (order.length - order.indexOf(named.cylinder)) % order.length) : 0;
  const zero = named ? turned(named.angle_deg + (steps * 720) / n, 720) : 0;
  const first = Math.ceil((axis.first_deg - zero) / 720);
  const count = Math.min(MOST_CYCLES, Math.floor((axis.last_deg - zero) / 720) - first);
  if (count < 1) return null;
  const starts = Array.from({ length: count }, (_, k) => zero + (first + k) * 720);
  return {
    from: axis.from,
    cycles: count,
    speed_rpm: speedOf(axis),
    isNamed: named !== null,
    places: Array.from({ length: n }, (_, slot) => ({
      cylinder: named ? cylinderAfter(order, order?.[0] ?? named.cylinder, slot) : null,
      angle_deg: (slot * 720) / n,
    })),
    lanes: [
      ...(position ? [speedLane(starts, axis.timeAt, position.train.wheel.teeth)] : []),
      ...capture.channels.map((c) => laneOf(c, starts, axis.timeAt)),
    ],
    cam: position ? camMarks(position) : [],
    teeth: position && !position.isFromCam ? position.train.wheel.teeth : null,
  };
}

function laneOf(
  { id, values, clock }: Capture['channels'][number],
  starts: readonly number[],
  timeAt: (angle: number) => number,
): CycleLane {
  const step = 720 / CYCLE_STEPS;
  const at = (angle: number): number => values[clock.before(timeAt(angle))] ?? NaN;
  const columns = Array.from({ length: CYCLE_STEPS }, (_, k) =>
    starts.map((s) => at(s + k * step)).filter(Number.isFinite),
  );
  const digits = digitsFor(values);
  const of = (q: number): number[] => columns.map((c) => (c.length ? Number(quantile(c, q).toFixed(digits)) : 0));
  return { column: id, middle: of(0.5), low: of(0.05), high: of(0.95) };
}

/** The lane of the crank's speed; no channel of a file is called so. */
export const SPEED_LANE = 'crank speed, rpm';

/**
 * The speed over angle, over two teeth to either side: each firing speeds the crank up, each compression
 * slows it.
 */
function speedLane(starts: readonly number[], timeAt: (angle: number) => number, teeth: number): CycleLane {
  const step = 720 / CYCLE_STEPS;
  const reach = Math.max(step, 720 / teeth);
  const at = (a: number): number => (2 * reach) / 6 / (timeAt(a + reach) - timeAt(a - reach));
  const columns = Array.from({ length: CYCLE_STEPS }, (_, k) =>
    starts.map((s) => at(s + k * step)).filter(Number.isFinite),
  );
  const of = (q: number): number[] => columns.map((c) => (c.length ? Number(quantile(c, q).toFixed(1)) : 0));
  return { column: SPEED_LANE, middle: of(0.5), low: of(0.05), high: of(0.95) };
}

/** A thousandth of what the channel covers is enough for a picture. */
function digitsFor(values: Float64Array): number {
  const some = thin(values);
  const span = quantile(some, 0.99) - quantile(some, 0.01);
  return Math.min(6, Math.max(0, Math.ceil(3 - Math.log10(Math.max(span, 1e-9)))));
}

import type { Channel } from '../types';
import { type Axis, crankAxis, cylinderAxis, nearZero, turned } from './axis';
import { type Edges, edgesOf } from './edges';
import { currentPulses, cylinderPulses } from './pulses-of';
import { inOwnTurns } from './turns';
import { type ToothTrain, toothTrain, type Wheel } from './wheel';

/** What is asked over angle: channels, engine and wheel. */
export interface Capture {
  readonly channels: readonly CaptureChannel[];
  readonly cylinders: number;
  /** Cylinder numbers in the order in which they fire. */
  readonly firingOrder: readonly number[] | null;
  /** Banks, each with its cylinders; an inline engine has one. */
  readonly banks: readonly (readonly number[])[];
  readonly wheel: Wheel | null;
  /** What the engine did, where somebody said it. */
  readonly condition?: string | undefined;
}
export interface CaptureChannel extends Channel {
  /** Of an injector's own current. */
  readonly cylinder?: number | undefined;
}

/** The crank's teeth, the cam's edges, and which channel is which: roles may have been swapped. */
export interface Position {
  readonly crank: CaptureChannel;
  readonly crankEdges: Edges;
  readonly train: ToothTrain;
  readonly cam: CaptureChannel | null;
  readonly camEdges: Edges | null;
  readonly isSwapped: boolean;
  /** No crank was recorded: the teeth are those of the cam's own wheel, which turns half as often. */
  readonly isFromCam: boolean;
}

/** What was found of a capture before: several questions ask for the same teeth. */
const found = new WeakMap<Capture, Position | null>();

/** Finds crank wheel and cam among the channels that are called so. */
export function positionOf(capture: Capture): Position | null {
  const known = found.get(capture);
  if (known !== undefined) return known;
  const position = lookForPosition(capture);
  found.set(capture, position);
  return position;
}

function lookForPosition({ channels, wheel }: Capture): Position | null {
  const crank = channels.find((c) => c.role === 'crank');
  const cam = channels.find((c) => c.role === 'cam');
  const edges = new Map([crank, cam].flatMap((c) => (c ? [[c, edgesOf(c)] as const] : [])));
  const count = (c: CaptureChannel | undefined): number => (c && edges.get(c)?.rising.length) ?? 0;
  // A crank wheel has more teeth in a cycle than a cam has edges.
  const isSwapped = crank !== undefined && cam !== undefined && count(cam) > 2 * count(crank);
  const [a, b] = isSwapped ? [cam, crank] : [crank, cam];
  if (!a) return b ? fromCam(b, edges.get(b) ?? null) : null;
  const crankEdges = edges.get(a);
  if (!crankEdges) return null;
  const pattern = toothTrain(crankEdges, wheel ?? undefined);
  if (!pattern) return null;
  const own = channels.find((c) => c.role === 'injector-current' && c.cylinder !== undefined);
  const train = wheel ? pattern : inOwnTurns(pattern, own, (b && edges.get(b)) ?? null);
  return {
    crank: a,
    crankEdges,
    train,
    cam: b ?? null,
    camEdges: (b && edges.get(b)) ?? null,
    isSwapped,
    isFromCam: false,
  };
}

/** Fewer teeth in a cycle tell no speed within it, and may be windows at uneven distances. */
const FEWEST_OF_CAM = 12;

/** From tooth to tooth it takes about as long as before: a wheel, not windows that come in a pattern. */
function isEven({ times }: ToothTrain): boolean {
  let even = 0;
  for (let i = 2; i < times.length; i++) {
    const [a, b, c] = [times[i - 2] ?? NaN, times[i - 1] ?? NaN, times[i] ?? NaN];
    if (Math.abs((c - b) / (b - a) - 1) < 0.3) even++;
  }
  return even > 0.95 * (times.length - 2);
}

/** The axis of a cam that carries a toothed wheel of its own; `null` where it has but some windows. */
function fromCam(cam: CaptureChannel, edges: Edges | null): Position | null {
  const own = edges && toothTrain(edges);
  if (!own || own.counted < 0.9) return null;
  if (own.wheel.teeth < FEWEST_OF_CAM || !isEven(own)) return null;
  const { teeth, missing } = own.wheel;
  // One turn of the cam is a cycle of 720 degrees.
  const train = { ...own, wheel: { teeth: teeth / 2, missing: missing / 2 }, angles: own.angles.map((x) => 2 * x) };
  return { crank: cam, crankEdges: edges, train, cam: null, camEdges: null, isSwapped: false, isFromCam: true };
}

/** Which cylinder is when: an axis, and the angle at which a named cylinder injects. */
export interface Phase {
  readonly axis: Axis;
  /** Cylinder and angle of its injection, 0 to 720 on the axis; `null`: no channel names a cylinder. */
  readonly named: { readonly cylinder: number; readonly angle_deg: number } | null;
}

/**
 * Injections of one cylinder lie within so many degrees, so many of them at least. Common practice, no
 * source.
 */
const SAME_deg = 40;
const TOGETHER = 0.7;

/** The axis of a capture: of the crank where it was recorded, else of an injector that has a cylinder. */
export function phaseOf(capture: Capture, position: Position | null = positionOf(capture)): Phase | null {
  const own = capture.channels.find((c) => c.role === 'injector-current' && c.cylinder !== undefined);
  const pulses = own ? cylinderPulses(own) : null;
  const cylinder = own?.cylinder;
  if (position) {
    const axis = crankAxis(position.train);
    if (!own || cylinder === undefined) return { axis, named: null };
    // On a crank they need not come in every cycle: it is enough that they come at one angle.
    const angles = (currentPulses(own)?.pulses ?? []).map((p) => axis.angleAt(p.start_s)).filter(Number.isFinite);
    const angle = medianAngle(angles);
    const near = angles.filter((a) => Math.abs(nearZero(a - (angle ?? 0), 720)) < SAME_deg).length;
    return { axis, named: angle === null || near < TOGETHER * angles.length ? null : { cylinder, angle_deg: angle } };
  }
  const axis = pulses && cylinderAxis(pulses);
  return axis && cylinder !== undefined ? { axis, named: { cylinder, angle_deg: 0 } } : null;
}

/** The middle one of angles that go round in 720 degrees; `null` where there is none. */
export function medianAngle(angles: readonly number[]): number | null {
  const [first] = angles;
  if (first === undefined) return null;
  const off = angles.map((a) => turned(a - first + 360, 720) - 360).sort((a, b) => a - b);
  return turned(first + (off[off.length >> 1] ?? 0), 720);
}

/** The cylinder that fires `steps` after a named one; `null` where the order is not known. */
export function cylinderAfter(order: readonly number[] | null, cylinder: number | null, steps: number): number | null {
  if (!order || cylinder === null) return null;
  const at = order.indexOf(cylinder);
  return at < 0 ? null : (order[(((at + steps) % order.length) + order.length) % order.length] ?? null);
}

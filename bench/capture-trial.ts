import { answerAngle, ANGLE_ASKS } from '../application/traces/capture';
import type { Capture, CaptureChannel } from '../core/signal/angle/capture';
import { rateClock } from '../core/signal/clock';
import { seededRandom } from '../core/numerics/random';
import type { ChannelRole, Finding } from '../core/signal/types';
import {
  type EngineCapture,
  type EngineFault,
  type EngineSettings,
  type EngineSignal,
  simulateEngine,
} from '../core/simulate/engine/engine';
import type { AngleAsk } from '../formats/trace-question';

/** How often the right cylinder, or the shift, was found in simulated captures of one question. */
export interface CaptureTally {
  readonly ask: AngleAsk;
  faulty: number;
  right: number;
  healthy: number;
  wrongly: number;
  /** What an answer could not be given for. */
  refused: number;
}

const ORDERS: readonly (readonly number[])[] = [
  [1, 3, 2],
  [1, 3, 4, 2],
  [1, 2, 4, 5, 3],
  [1, 5, 3, 6, 2, 4],
  [1, 8, 4, 3, 6, 5, 7, 2],
  [1, 12, 5, 8, 3, 10, 6, 7, 2, 11, 4, 9],
];
const WHEELS = [
  [60, 2],
  [36, 1],
  [36, 2],
  [24, 1],
  [58, 2],
] as const;
const ROLES: Readonly<Record<EngineSignal, ChannelRole>> = {
  crank: 'crank',
  cam: 'cam',
  starter: 'starter-current',
  battery: 'battery',
  injectors: 'injector-current',
  'injector 1': 'injector-current',
  knock: 'knock',
};
const UNITS: Readonly<Record<EngineSignal, string>> = {
  crank: 'V',
  cam: 'V',
  starter: 'A',
  battery: 'V',
  injectors: 'A',
  'injector 1': 'A',
  knock: 'V',
};
const NEEDED: Readonly<Record<AngleAsk, readonly EngineSignal[]>> = {
  timing: ['crank', 'cam'],
  'relative-compression': ['starter', 'injector 1'],
  firing: ['injectors', 'injector 1', 'crank'],
  contribution: ['crank', 'injector 1'],
  knock: ['knock', 'injector 1'],
};

/** A simulated capture as it is asked about. */
export function captureFrom(
  { settings, channels }: EngineCapture,
  signals: readonly EngineSignal[],
  more: Partial<Capture> = {},
): Capture {
  return {
    cylinders: settings.cylinders,
    firingOrder: settings.firingOrder,
    banks: [],
    wheel: null,
    channels: signals.map((id): CaptureChannel => ({
      id,
      name: id,
      unit: UNITS[id],
      role: ROLES[id],
      clock: rateClock(settings.rate_Hz, channels[id].length),
      values: channels[id],
      step: 0.001,
      cylinder: id === 'injector 1' ? 1 : undefined,
    })),
    ...more,
  };
}

/**
 * Asks each question of so many simulated captures in all, half of them healthy. The same seed gives the same
 * table.
 */
export function captureTrial(captures: number, seed: number): readonly CaptureTally[] {
  const random = seededRandom(seed);
  return ANGLE_ASKS.map((ask) => {
    const tally: CaptureTally = { ask, faulty: 0, right: 0, healthy: 0, wrongly: 0, refused: 0 };
    for (let i = 0; i < captures / ANGLE_ASKS.length; i++) one(ask, i % 2 === 1, random, tally);
    return tally;
  });
}

function one(ask: AngleAsk, isFaulty: boolean, random: () => number, tally: CaptureTally): void {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const firingOrder = pick(ORDERS);
  const [teeth, missing] = pick(WHEELS);
  const base: EngineSettings = {
    cylinders: firingOrder.length,
    firingOrder,
    condition: ask === 'relative-compression' ? 'cranking' : ask === 'timing' ? pick(['cranking', 'idle']) : 'idle',
    seconds: ask === 'knock' ? 3 : 4,
    rate_Hz: Math.round(
      (ask === 'relative-compression' ? 1e3 : 2.5e4) * 10 ** (random() * (ask === 'relative-compression' ? 1.5 : 0.8)),
    ),
    wheel: { teeth, missing, kind: random() < 0.3 ? 'coil' : 'hall' },
    cam: camOf(random),
    faults: [],
    seed: Math.floor(random() * 2 ** 30),
  };
  // Cylinder 1 is what the others are named by: where it does not inject nobody has a name.
  const cylinder = pick(firingOrder.filter((c) => c !== 1 || ask !== 'firing'));
  const tooth = 360 / teeth;
  const fault = faultOf(ask, cylinder, tooth, random);
  const healthy = captureFrom(simulateEngine(base), NEEDED[ask]);
  const own = isFaulty
    ? captureFrom(simulateEngine({ ...base, seed: base.seed + 1, faults: [fault] }), NEEDED[ask])
    : healthy;
  const other = { ...base, seed: base.seed + 2, condition: 'idle' as const };
  const reference = ask === 'timing' ? captureFrom(simulateEngine(other), NEEDED[ask]) : null;
  const answer = answerAngle(ask, own, reference, '/ask/0');
  if (isFaulty) tally.faulty++;
  else tally.healthy++;
  if (!answer.ok) {
    tally.refused++;
    return;
  }
  const named = accused(ask, answer.value.findings);
  if (isFaulty && ask === 'timing') tally.right += Number(named.length === 1);
  else if (isFaulty) tally.right += Number(named.length === 1 && named[0] === cylinder);
  else tally.wrongly += Number(named.length > 0);
}

/** Windows of a cam wheel, apart from each other and unlike. */
function camOf(random: () => number): [number, number][] {
  const count = 1 + Math.floor(random() * 3);
  return Array.from({ length: count }, (_, i) => {
    const from = i * 230 + 20 + 60 * random();
    return [from, from + 40 + 80 * random()];
  });
}

function faultOf(ask: AngleAsk, cylinder: number, tooth: number, random: () => number): EngineFault {
  switch (ask) {
    case 'timing':
      return { kind: 'timing', shift_deg: (random() < 0.5 ? 1 : 0.5) * tooth * (random() < 0.5 ? 1 : -1) };
    case 'relative-compression':
      return { kind: 'low compression', cylinder, share: 0.1 + 0.6 * random() };
    case 'firing':
      return random() < 0.5
        ? { kind: 'no injection', cylinder }
        : { kind: 'late injection', cylinder, late_deg: 8 + 8 * random() };
    case 'contribution':
      return { kind: 'misfires', cylinder, share: 0.5 + 0.5 * random() };
    case 'knock':
      return { kind: 'leaking injector', cylinder, victims: [] };
  }
}

/** Cylinders that an answer accuses; of timing one entry where the cam is out. */
function accused(ask: AngleAsk, findings: readonly Finding[]): (number | null)[] {
  return findings.flatMap((f) => {
    if (ask === 'timing') return f.kind === 'timing' && f.inTime === false ? [0] : [];
    if (f.kind !== 'compression' && f.kind !== 'pulse' && f.kind !== 'contribution' && f.kind !== 'knock') return [];
    return f.severity === 'fail' ? [f.cylinder] : [];
  });
}

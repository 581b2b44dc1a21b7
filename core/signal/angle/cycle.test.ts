import { simulateEngine, type EngineFault } from '../../simulate/engine/engine';
import { rateClock } from '../clock';
import type { Capture, CaptureChannel } from './capture';
import { CYCLE_STEPS, cycleOf, SPEED_LANE } from './cycle';

const RATE = 15_000;
function capture(
  only: readonly ('crank' | 'cam' | 'injectors' | 'injector 1' | 'starter')[],
  faults: readonly EngineFault[] = [],
): Capture {
  const { channels } = simulateEngine({
    cylinders: 4,
    firingOrder: [1, 3, 4, 2],
    condition: 'idle',
    seconds: 2,
    rate_Hz: RATE,
    wheel: { teeth: 36, missing: 1, kind: 'hall' },
    cam: [[30, 120]],
    faults,
    seed: 4,
  });
  const roles = {
    crank: 'crank',
    cam: 'cam',
    injectors: 'injector-current',
    'injector 1': 'injector-current',
    starter: 'starter-current',
  } as const;
  return {
    cylinders: 4,
    firingOrder: [1, 3, 4, 2],
    banks: [],
    wheel: null,
    channels: only.map((id): CaptureChannel => ({
      id,
      name: id,
      unit: 'V',
      role: roles[id],
      clock: rateClock(RATE, channels[id].length),
      values: channels[id],
      step: 0.001,
      cylinder: id === 'injector 1' ? 1 : undefined,
    })),
  };
}
const lane = (c: ReturnType<typeof cycleOf>, column: string) => c?.lanes.find((l) => l.column === column);

it('lays all cycles over each other from cylinder 1 on, with the speed of the crank beside', () => {
  const cycle = cycleOf(capture(['crank', 'cam', 'injectors', 'injector 1']));
  expect(cycle).toMatchObject({ from: 'crank', isNamed: true, teeth: 36 });
  expect(cycle?.places.map((p) => [p.cylinder, p.angle_deg])).toEqual([
    [1, 0],
    [3, 180],
    [4, 360],
    [2, 540],
  ]);
  const pulses = lane(cycle, 'injectors')?.middle ?? [];
  expect(pulses).toHaveLength(CYCLE_STEPS);
  // A pulse begins at every quarter of the cycle, that of injector 1 at the first only.
  const isUp = (of: readonly number[], angle: number): boolean =>
    (of[Math.round((angle + 6) / (720 / CYCLE_STEPS))] ?? 0) > 5;
  expect([0, 180, 360, 540].map((a) => isUp(pulses, a))).toEqual([true, true, true, true]);
  expect([0, 180, 360, 540].map((a) => isUp(lane(cycle, 'injector 1')?.middle ?? [], a))).toEqual([
    true,
    false,
    false,
    false,
  ]);
  const speed = lane(cycle, SPEED_LANE)?.middle ?? [];
  expect(Math.abs(speed.reduce((a, b) => a + b, 0) / speed.length - (cycle?.speed_rpm ?? 0))).toBeLessThan(10);
  expect(Math.max(...speed)).toBeGreaterThan(Math.min(...speed) + 5);
});

it('takes its angle from one injector where no crank was recorded, and no name where none is known', () => {
  expect(cycleOf(capture(['injectors', 'injector 1']))).toMatchObject({
    from: 'cylinder',
    isNamed: true,
    teeth: null,
    cam: [],
  });
  expect(cycleOf(capture(['crank', 'cam']))).toMatchObject({ from: 'crank', isNamed: false });
  expect(cycleOf(capture(['crank', 'cam']))?.places.every((p) => p.cylinder === null)).toBe(true);
  expect(cycleOf(capture(['cam']))).toBeNull();
});

import { answerAngle, ANGLE_ASKS } from '../application/traces/capture';
import { ENGINE_SIGNALS, simulateEngine } from '../core/simulate/engine/engine';
import { captureFrom, captureTrial } from './capture-trial';
import { report } from './measure';

const CAPTURES = Number(process.env.MUDFLAT_CAPTURES ?? 400);
const SEED = Number(process.env.MUDFLAT_SEED ?? 11);
const [RATE_Hz, SECONDS] = [1e6, 10];

/** Captures over crank angle: what is found in simulated ones, and how long ten seconds at 1 MHz take. */
export function benchCapture(): void {
  for (const t of captureTrial(CAPTURES, SEED)) {
    report(
      `${t.ask}: ${t.faulty} faulty captures, right`,
      (100 * t.right) / t.faulty,
      '%',
      t.ask === 'timing' ? 95 : 98,
    );
    report(`… ${t.healthy} healthy ones, wrongly accused`, (100 * t.wrongly) / t.healthy, '%', 1);
    report('… not answered', t.refused, '', null);
  }
  const idle = simulateEngine({
    cylinders: 4,
    firingOrder: [1, 3, 4, 2],
    condition: 'idle',
    seconds: SECONDS,
    rate_Hz: RATE_Hz,
    wheel: { teeth: 60, missing: 2, kind: 'hall' },
    cam: [[30, 120]],
    faults: [],
    seed: SEED,
  });
  const capture = captureFrom(
    idle,
    ENGINE_SIGNALS.filter((s) => s !== 'starter' && s !== 'battery' && s !== 'knock'),
  );
  let all = 0;
  for (const ask of ANGLE_ASKS.filter((a) => a !== 'relative-compression' && a !== 'knock')) {
    const began = performance.now();
    answerAngle(ask, capture, null, '');
    const took = (performance.now() - began) / 1000;
    all += took;
    report(`${ask} of ${SECONDS} s at 1 MHz, four channels`, took, 's', null);
  }
  report('all of them', all, 's', 2);
}

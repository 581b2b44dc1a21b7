import { percentile, report } from './measure';
import { touchTrial } from './touch-trial';

const TOUCHES = Number(process.env.MUDFLAT_TOUCHES ?? 2000);
const SEED = Number(process.env.MUDFLAT_SEED ?? 11);

/** Values that a meter shows while a probe is put on: what is taken of them, and when. */
export function benchTouch(): void {
  const t = touchTrial(TOUCHES, SEED);
  report(`${t.touches} simulated touches: wrong value taken`, (100 * t.wrong) / t.touches, '%', 0.1);
  report('… nothing taken', (100 * t.missed) / t.touches, '%', 2);
  report('… contact to capture beyond 1.2 of the settling, median', percentile(t.over_s, 0.5), 's', 0.5);
  report('… 95 of 100', percentile(t.over_s, 0.95), 's', null);
}

import { normalFrom, seededRandom } from '../numerics/random';
import { rateClock } from './clock';
import type { Channel, ChannelRole } from './types';

/** A channel for tests: 100 Hz, volts, steps of a millivolt. */
export function channel(
  values: Float64Array,
  more: Partial<Channel> & { rate_Hz?: number; role?: ChannelRole } = {},
): Channel {
  const { rate_Hz = 100, ...rest } = more;
  return {
    id: 'a',
    name: 'a',
    unit: 'V',
    role: 'sensor',
    clock: rateClock(rate_Hz, values.length),
    values,
    step: 0.001,
    ...rest,
  };
}

/**
 * A pin voltage that moves as an engine makes it: levels that are approached within tenths of a second, with
 * noise.
 */
export function drive(samples: number, seed: number, { rate_Hz = 100, noise = 0.005 } = {}): Float64Array {
  const random = seededRandom(seed);
  let [level, target, tau_s, next] = [1, 1, 0.3, 0];
  return Float64Array.from({ length: samples }, (_, i) => {
    if (i >= next) {
      target = 1 + 3.4 * random() * random();
      tau_s = 0.08 + 0.5 * random();
      next = i + rate_Hz * (1 + 10 * random());
    }
    level += (target - level) / (tau_s * rate_Hz);
    return Math.round((level + noise * normalFrom(random)) * 1000) / 1000;
  });
}

import { tr } from '../../locale/translate';
import { quantile } from '../../numerics/select';
import { thin } from '../pulses';
import type { Channel, Clipped } from '../types';
import { say } from '../words';

/** Of the samples: so many at the highest value to the last digit are no chance. */
const FLAT_SHARE = 0.01;
const FEWEST = 6;

/**
 * A channel whose range has ended: its highest or lowest value comes again and again in runs, although it
 * moves to either side of that. Signals that switch rest at their levels by nature: noise tells a level from
 * an end.
 */
export function clipping(channel: Channel): Clipped[] {
  const { values, clock } = channel;
  const some = thin(values);
  const [low, high] = [quantile(some, 0), quantile(some, 1)];
  if (!(high > low)) return [];
  return ([high, low] as const).flatMap((level): Clipped[] => {
    let [count, runs, run, first, last] = [0, 0, 0, -1, -1];
    for (let i = 0; i < values.length; i++) {
      if (values[i] !== level) {
        run = 0;
        continue;
      }
      if (first < 0) first = i;
      last = i;
      count++;
      if (++run === 4) runs++;
    }
    // How noisy it is just beside that level: a clean level of a switch has no noise either.
    const beside = some.filter((v) => v !== level && Math.abs(v - level) < 0.03 * (high - low)).length;
    const isFlat =
      count > Math.max(FEWEST, FLAT_SHARE * values.length) &&
      runs >= 3 &&
      beside < 0.25 * (count / values.length) * some.length;
    if (!isFlat || isLevelOfSwitch(some, level, high - low)) return [];
    return [
      {
        kind: 'clipped',
        channel: channel.id,
        from_s: clock.at(first),
        to_s: clock.at(last),
        severity: 'attention',
        confidence: 0.8,
        level,
        samples: count,
        reasons: [
          tr`It rests ${runs} times at exactly ${say(level, channel)} ${channel.unit}: the range ended there, and heights are not true. Choose a larger range and record again.`,
        ],
      },
    ];
  });
}

/** A signal that hardly is anywhere between two levels has a level there, and no end of a range. */
function isLevelOfSwitch(some: Float64Array, level: number, span: number): boolean {
  let between = 0;
  for (const v of some) if (Math.abs(v - level) > 0.15 * span && Math.abs(v - level) < 0.85 * span) between++;
  return between < 0.2 * some.length;
}

import { fixed } from '../../locale/numbers';
import { tr } from '../../locale/translate';
import { quantile } from '../../numerics/select';
import type { Channel, Noise } from '../types';
import { type Axis, turned } from './axis';

/**
 * Heights of spikes on a position signal that are watched, and that may be counted as an edge, V. Common
 * practice, no source.
 */
const [WATCH_V, FAIL_V] = [0.5, 1];
/** A spike leaves its neighbours and comes back within so many samples. */
const WIDEST = 3;
const LISTED = 6;

/**
 * Spikes on a position signal in volts, with the angles of the crank where they sit. Empty for other units.
 */
export function spikes(channel: Channel, axis: Axis | null): Noise[] {
  if (channel.unit !== 'V') return [];
  const { values, clock } = channel;
  const found: { t: number; height: number }[] = [];
  for (let i = 2; i < values.length - WIDEST - 2; i++) {
    const before = ((values[i - 1] ?? NaN) + (values[i - 2] ?? NaN)) / 2;
    const jump = (values[i] ?? NaN) - before;
    if (!(Math.abs(jump) > WATCH_V)) continue;
    // It must come back to where it was: an edge does not.
    let width = 1;
    while (width <= WIDEST && Math.abs((values[i + width] ?? NaN) - before) > 0.35 * Math.abs(jump)) width++;
    if (width > WIDEST) continue;
    const after = ((values[i + width] ?? NaN) + (values[i + width + 1] ?? NaN)) / 2;
    const isCalm =
      Math.abs((values[i - 1] ?? NaN) - (values[i - 2] ?? NaN)) < 0.3 * Math.abs(jump) &&
      Math.abs(after - before) < 0.3 * Math.abs(jump);
    if (isCalm) found.push({ t: clock.at(i), height: Math.abs(jump) });
    i += width;
  }
  if (found.length === 0) return [];
  const heights = found.map((f) => f.height);
  const peak = Math.max(...heights);
  const high = heights.filter((h) => h >= FAIL_V).length;
  const angles = axis
    ? found
        .map((f) => axis.angleAt(f.t))
        .filter((a) => Number.isFinite(a))
        .slice(0, LISTED)
        .map((a) => `${Math.round(turned(a, 720))}°`)
    : [];
  return [
    {
      kind: 'noise',
      channel: channel.id,
      from_s: found[0]?.t ?? 0,
      to_s: found.at(-1)?.t ?? 0,
      severity: high > 0 ? 'fail' : 'attention',
      confidence: 0.85,
      rms: quantile(heights, 0.5),
      peak,
      reasons: [
        tr`${found.length} spikes, the highest ${fixed(peak, 2)} V; ${high} of ${FAIL_V} V or more, which a controller may count as an edge. Common practice: ${WATCH_V} V is watched.`,
        ...(angles.length ? [tr`At ${angles.join(', ')} of the crank.`] : []),
      ],
    },
  ];
}

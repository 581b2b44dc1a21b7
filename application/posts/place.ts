import type { JudgedReading } from '../../core/judge/types';
import type { Scale } from './scale';

/**
 * Where a reading's mark stands on its post, and the band that its uncertainty or wander spans. Heights from
 * 0 to 1.
 */
export interface Placed {
  readonly height: number;
  readonly band: { readonly from: number; readonly to: number } | null;
}

export function placeMark(r: JudgedReading, scale: Scale): Placed {
  if (r.wander) {
    const [from, to] = [scale.height(r.wander.low), r.wander.high === null ? 1 : scale.height(r.wander.high)];
    return { height: (from + to) / 2, band: { from, to } };
  }
  if (r.verdict === 'open') return { height: 0.97, band: null };
  if (r.verdict === 'short') return { height: 0.02, band: null };
  if (r.verdict === 'failed') return { height: scale.height(0), band: null };
  if (r.corrected === null && r.reasons.some((x) => x.rule === 'seen')) return { height: scale.height(1), band: null };
  if (r.corrected === null)
    return {
      height: r.verdict === 'within' || r.verdict === 'no-limit' || r.verdict === 'recheck' ? 1 : 0.2,
      band: null,
    };
  const spread = 2 * (r.standardUncertainty ?? 0);
  return {
    height: scale.height(r.corrected),
    band: { from: scale.height(r.corrected - spread), to: scale.height(r.corrected + spread) },
  };
}

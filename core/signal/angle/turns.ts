import type { Channel } from '../types';
import { crankAxis } from './axis';
import type { Edges } from './edges';
import { currentPulses } from './pulses-of';
import { inTurns, type ToothTrain } from './wheel';

/** More even gaps than these no crank wheel has. Common practice, no source. */
const TRIED = [1, 2, 3, 4];
/** What comes back within so many degrees of the pattern has come back. */
const SAME_deg = 12;
/** So many of them must. */
const SHARE = 0.8;
const FEWEST = 4;

/**
 * A wheel with several gaps at even distances looks like a smaller wheel that turns more often. What comes
 * once in a cycle tells: an injection of one cylinder, else the pattern of the cam. Where neither was
 * recorded the pattern is taken for the turn.
 */
export function inOwnTurns(train: ToothTrain, injector: Channel | undefined, cam: Edges | null): ToothTrain {
  const axis = crankAxis(train);
  const angles = (times: Iterable<number>): number[] =>
    [...times].map((t) => axis.angleAt(t)).filter((a) => Number.isFinite(a));
  const injections = injector ? angles((currentPulses(injector)?.pulses ?? []).map((p) => p.start_s)) : [];
  const found = perTurn(injections) ?? perTurn(angles(cam?.rising ?? []));
  return found !== null && found > 1 ? inTurns(train, found) : train;
}

/**
 * After how many patterns of 720 degrees each of these comes back; `null` where too few were seen, or they do
 * not come back.
 */
function perTurn(angles: readonly number[]): number | null {
  if (angles.length < FEWEST) return null;
  const last = angles.at(-1) ?? 0;
  for (const many of TRIED) {
    const due = angles.filter((a) => a + 720 * many < last - SAME_deg);
    if (due.length < 2) return null;
    const back = due.filter((a) => angles.some((b) => Math.abs(b - a - 720 * many) < SAME_deg));
    if (back.length >= SHARE * due.length) return many;
  }
  return null;
}

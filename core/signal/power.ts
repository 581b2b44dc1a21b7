import { quantileInPlace } from '../numerics/select';
import { BLOCK, thresholdAt } from './course';
import { longNeeds, pulseIn, type Stretched } from './pulses';

/** With which probability the stated dropout is found. */
export const PROBABILITY = 0.99;
/** Dropouts planted to prove the statement. */
const PLANTED = 400;
/** Samples around a planted dropout that the look at it needs. */
const AROUND = 80;

export interface Power {
  readonly depth: number;
  readonly probability: number;
}

/**
 * The depth from which a dropout of one sample, or of more, is found with the stated probability, anywhere in
 * the recording. First from the channel's own residual: at each of many places the depth that lifts it above
 * the threshold there. Then proven by planting dropouts of that depth into the recorded samples and looking
 * at them in the way the search does; where fewer are found, the depth grows. Where the channel moves so
 * steeply for so much of the time that this probability is not reached, the best that is reached is said.
 * `null`: hardly any is found.
 */
export function findableDepth(stretches: readonly Stretched[], random: () => number): Power | null {
  const places = placesIn(stretches, random);
  if (places.length < 20) return null;
  const step = stretches[0]?.step ?? 0;
  const at = (value: (p: Place) => number, q: number): number => quantileInPlace(Float64Array.from(places, value), q);
  const short = at(({ s, i }) => neededAt(s, i), 0.985);
  const long = at(({ s, i }) => longNeeds(s, sigmaAt(s, i)), 0.99);
  let depth = Math.max(short, long);
  let best: Power = { depth, probability: 0 };
  for (let tries = 0; tries < 24; tries++) {
    const rounded = step > 0 ? Math.ceil(depth / step - 1e-9) * step : Number(depth.toPrecision(3));
    const found = places.filter(({ s, i }) => isFound(s, i, rounded)).length / places.length;
    // A little more than the share asks for: the proof itself is a sample.
    if (found >= PROBABILITY + 0.002) return { depth: rounded, probability: PROBABILITY };
    if (found > best.probability + 0.004) best = { depth: rounded, probability: found };
    depth = rounded * 1.12;
  }
  return best.probability < 0.5 ? null : { ...best, probability: Math.floor(best.probability * 100) / 100 };
}

interface Place {
  readonly s: Stretched;
  readonly i: number;
}

/** Places spread evenly over all stretches, each moved a little at random. */
function placesIn(stretches: readonly Stretched[], random: () => number): Place[] {
  const total = stretches.reduce((n, s) => n + Math.max(0, s.values.length - 2 * AROUND), 0);
  const every = total / PLANTED;
  return stretches.flatMap((s) => {
    const room = s.values.length - 2 * AROUND;
    const places: Place[] = [];
    for (let i = every * random(); i < room; i += every * (0.5 + random()))
      places.push({ s, i: AROUND + Math.floor(i) });
    return places;
  });
}

const sigmaAt = ({ levels: [level] }: Stretched, i: number): number => level?.sigma[Math.floor(i / BLOCK)] ?? 0;

function neededAt(s: Stretched, i: number): number {
  const [level] = s.levels;
  if (!level) return Infinity;
  return thresholdAt(level, i, s.step) + (level.values[i] ?? 0) - (level.course[i] ?? 0);
}

/** Plants a dropout of one sample into a copy of the place and looks at it as the search does. */
function isFound(s: Stretched, i: number, depth: number): boolean {
  const [level] = s.levels;
  if (!level) return false;
  const was = s.values[i] ?? NaN;
  const course = level.course[i] ?? NaN;
  const planted = was - depth;
  // As in a search: below the threshold it would be no candidate.
  if (course - planted <= thresholdAt(level, i, s.step)) return false;
  s.values[i] = planted;
  try {
    return pulseIn(s, level, i, i, -1) !== null;
  } finally {
    s.values[i] = was;
  }
}

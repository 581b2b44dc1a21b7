import { fixed } from '../../locale/numbers';
import { tr } from '../../locale/translate';
import type { Finding } from '../types';
import type { Change, Compression, Contribution, Cranking, FiringPulse, Knock } from './types';

/** What two captures are to each other. */
export interface Against {
  /** The other one, in words: "known good of PL-07", "before". */
  readonly name: string;
  /**
   * Both did the same: both idled, or the starter turned both. Else nothing is called worse: the conditions
   * differ.
   */
  readonly isAlike: boolean;
}

/** A difference below this is none, whatever its uncertainty. Common practice, no source. */
const LEAST = { contribution: 0.1, compression: 0.08, pulse: 2, knock: 0.5 } as const;
/** So many standard errors are a change. */
const CLEAR = 3;
/** Shares of the earlier value. Common practice, no source. */
const [LEAST_CURRENT, LEAST_SPEED] = [0.25, 0.2];

/**
 * Two captures of one engine or family by their numbers: each cylinder's contribution, misfires, knock,
 * compression and pulse, and how the starter turns. From findings alone, so that kept captures need no
 * samples.
 */
export function compareCaptures(own: readonly Finding[], other: readonly Finding[], against: Against): Change[] {
  return own.flatMap((now): Change[] => {
    switch (now.kind) {
      case 'contribution':
        return changes(contributionOf(now, twin(other, now)), now, against);
      case 'compression':
        return changes(compressionOf(now, twin(other, now)), now, against);
      case 'knock':
        return changes(knockOf(now, twin(other, now)), now, against);
      case 'pulse':
        return changes(pulseOf(now, twin(other, now)), now, against);
      case 'cranking':
        return crankingOf(
          now,
          other.find((f) => f.kind === 'cranking'),
        ).flatMap((d) => changes([d], now, against));
      default:
        return [];
    }
  });
}

interface Difference {
  readonly quantity: Change['quantity'];
  readonly now: number;
  readonly before: number;
  /** Standard error of the difference. */
  readonly uncertainty: number;
  /** Less than this is no change. */
  readonly least: number;
  /** Which way is worse; 0: neither. */
  readonly worse: 1 | -1 | 0;
  readonly say: (value: number) => string;
  readonly what: string;
}

type PerCylinder = Contribution | Compression | Knock | FiringPulse;

/** The same cylinder of the other capture; places in order of time are not the same cylinder. */
function twin<F extends PerCylinder>(other: readonly Finding[], now: F): F | undefined {
  return now.cylinder === null
    ? undefined
    : other.find((f): f is F => f.kind === now.kind && 'cylinder' in f && f.cylinder === now.cylinder);
}

const percent = (v: number): string => `${Math.round(100 * v)} %`;

/** Of a capture that does not say how many cycles it has: as few as a short one. */
const FEW_CYCLES = 15;

/**
 * Standard error of the share of misfires in so many cycles, after two more of either kind were added
 * (Agresti and Coull, The American Statistician 52, 1998; from memory): none of a few is not none of all.
 */
function shareError({ misfires, cycles = FEW_CYCLES }: Contribution): number {
  const n = cycles + 4;
  const p = (misfires * cycles + 2) / n;
  return Math.sqrt((p * (1 - p)) / n);
}

const contributionOf = (now: Contribution, before: Contribution | undefined): Difference[] =>
  before
    ? [
        {
          quantity: 'relative',
          now: now.relative,
          before: before.relative,
          uncertainty: Math.hypot(now.uncertainty, before.uncertainty),
          least: LEAST.contribution,
          worse: -1,
          say: percent,
          what: 'contribution',
        },
        {
          quantity: 'misfires',
          now: now.misfires,
          before: before.misfires,
          uncertainty: Math.hypot(shareError(now), shareError(before)),
          least: LEAST.contribution,
          worse: 1,
          say: percent,
          what: 'misfired cycles',
        },
      ]
    : [];

const compressionOf = (now: Compression, before: Compression | undefined): Difference[] =>
  before
    ? [
        {
          quantity: 'relative',
          now: now.relative,
          before: before.relative,
          uncertainty: Math.hypot(now.uncertainty, before.uncertainty),
          least: LEAST.compression,
          worse: -1,
          say: percent,
          what: 'relative compression',
        },
      ]
    : [];

const knockOf = (now: Knock, before: Knock | undefined): Difference[] =>
  before
    ? [
        {
          quantity: 'ratio',
          now: now.ratio,
          before: before.ratio,
          // Band energies of single windows differ by about a tenth. Common practice, no source.
          uncertainty: 0.1 * Math.hypot(now.ratio, before.ratio),
          least: LEAST.knock,
          worse: 1,
          say: (v) => tr`${fixed(v, 1)} times the others`,
          what: 'knock',
        },
      ]
    : [];

const pulseOf = (now: FiringPulse, before: FiringPulse | undefined): Difference[] =>
  before && now.offset_deg !== null && before.offset_deg !== null
    ? [
        {
          quantity: 'offset_deg',
          now: now.offset_deg,
          before: before.offset_deg,
          uncertainty: Math.hypot(now.uncertainty_deg, before.uncertainty_deg),
          least: LEAST.pulse,
          worse: 0,
          say: (v) => tr`${fixed(v, 1)} degrees off the grid`,
          what: 'pulse',
        },
      ]
    : [];

function crankingOf(now: Cranking, before: Cranking | undefined): Difference[] {
  if (!before) return [];
  const row = (
    quantity: 'speed_rpm' | 'meanCurrent' | 'peakCurrent',
    what: string,
    unit: string,
    share: number,
    worse: 1 | -1,
  ): Difference[] => {
    const [a, b] = [now[quantity], before[quantity]];
    if (a === null || b === null || !(b > 0)) return [];
    const say = (v: number): string => `${Math.round(v)} ${unit}`;
    return [{ quantity, now: a, before: b, uncertainty: (share / 6) * b, least: share * b, worse, say, what }];
  };
  return [
    ...row('speed_rpm', 'speed', 'rpm', LEAST_SPEED, -1),
    ...row('meanCurrent', 'mean current', 'A', LEAST_CURRENT, 1),
    ...row('peakCurrent', 'current at the peaks', 'A', LEAST_CURRENT, 1),
  ];
}

function changes(differences: readonly Difference[], of: PerCylinder | Cranking, against: Against): Change[] {
  return differences.map((d) => {
    const difference = d.now - d.before;
    const isClear = Math.abs(difference) > Math.max(d.least, CLEAR * d.uncertainty);
    const isWorse = isClear && against.isAlike && d.worse !== 0 && Math.sign(difference) === d.worse;
    const cylinder = of.kind === 'cranking' ? null : of.cylinder;
    const who = of.kind === 'cranking' ? 'The engine while it is cranked' : tr`Cylinder ${cylinder}`;
    const verdict = !isClear
      ? 'no difference beyond what is uncertain'
      : !against.isAlike
        ? 'they differ'
        : isWorse
          ? 'worse'
          : d.worse === 0
            ? 'it has moved'
            : d.quantity === 'relative'
              ? // A share of the mean of all rises too when the others fall.
                'more, beside the others'
              : 'better';
    return {
      kind: 'change',
      channel: of.channel,
      from_s: of.from_s,
      to_s: of.to_s,
      severity: isWorse || (isClear && against.isAlike && d.worse === 0) ? 'attention' : isClear ? 'none' : 'pass',
      confidence: Math.min(0.95, of.confidence),
      of: of.kind,
      quantity: d.quantity,
      cylinder,
      ...(of.kind === 'cranking' ? {} : { position: of.position }),
      now: d.now,
      before: d.before,
      difference,
      uncertainty: d.uncertainty,
      reasons: [`${who}, ${d.what}: ${d.say(d.now)}, ${against.name} ${d.say(d.before)}: ${verdict}.`],
    };
  });
}

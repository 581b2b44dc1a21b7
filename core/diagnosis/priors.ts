import { tr } from '../locale/translate';
import type { LibraryCircuit } from '../circuits/types';
import type { DriveCondition, Evidence } from '../evidence/types';
import type { Member, PriorFactor } from './types';

/** A finding of an earlier job: of this unit, or of the fleet on engines of the same family. */
export interface PastFinding {
  readonly is: 'part' | 'path' | 'shared' | 'input' | 'mechanics';
  readonly name: string;
  readonly positions: readonly (number | string)[];
  readonly thisUnit: boolean;
}

/** A part that was renewed on this unit. */
export interface Renewed {
  readonly name: string;
  readonly position: number | null;
  readonly days: number;
}

export interface History {
  readonly findings: readonly PastFinding[];
  readonly renewed: readonly Renewed[];
  /** When the complaint shows itself. */
  readonly conditions: readonly DriveCondition[];
  /** Of the unit; `null`: not noted. */
  readonly hours: number | null;
}

/** How many findings the data of a circuit count as much as. Common practice, no source. */
const DATA_COUNTS = 20;
/**
 * Days within which a new part is less likely to be worn; it may still be bad. Common practice, no source.
 */
const YOUNG_days = 180;
const YOUNG = 0.35;
const INTERMITTENT = 4;
const STEADY_COMPLAINT = 0.5;
/** Hours of which connectors and looms are no longer young. Common practice, no source. */
const OLD_h = 10_000;
const OLD_PATH = 1.3;

/**
 * What age, history of the unit and the fleet, and the complaint say before anything is measured; each with
 * its reason.
 */
export function priorFactorsFrom(circuit: LibraryCircuit, h: History): PriorFactor[] {
  return [
    ...fromFindings(circuit, h.findings),
    ...fromRenewed(h.renewed),
    ...fromConditions(h.conditions),
    ...(h.hours !== null && h.hours > OLD_h
      ? [
          {
            is: 'path' as const,
            factor: OLD_PATH,
            why: tr`${Math.round(h.hours)} hours: looms and connectors are no longer young`,
          },
        ]
      : []),
  ];
}

/**
 * Shares of the kinds of suspects in the data, drawn towards what this fleet has found (a Dirichlet prior
 * that weighs as much as some findings).
 */
function fromFindings(circuit: LibraryCircuit, findings: readonly PastFinding[]): PriorFactor[] {
  const kinds = new Map<string, { is: Member['is']; name: string; prior: number; found: number; thisUnit: number }>();
  for (const s of circuit.suspects) {
    const key = `${s.is}|${s.name}`;
    const own = kinds.get(key) ?? { is: s.is, name: s.name, prior: 0, found: 0, thisUnit: 0 };
    kinds.set(key, { ...own, prior: own.prior + s.prior });
  }
  for (const f of findings) {
    const own = kinds.get(`${f.is}|${f.name}`);
    if (own)
      kinds.set(`${f.is}|${f.name}`, { ...own, found: own.found + 1, thisUnit: own.thisUnit + (f.thisUnit ? 1 : 0) });
  }
  const all = [...kinds.values()];
  const total = all.reduce((s, k) => s + k.prior, 0);
  const seen = all.reduce((s, k) => s + k.found, 0);
  if (seen === 0) return [];
  return all.flatMap((k): PriorFactor[] => {
    const share = k.prior / total;
    const factor = (k.found + DATA_COUNTS * share) / ((seen + DATA_COUNTS) * share);
    return Math.abs(Math.log(factor)) < 0.1
      ? []
      : [
          {
            is: k.is,
            name: k.name,
            factor,
            why: tr`${k.name} (${k.is}): ${k.found} of ${seen} findings on such engines${k.thisUnit ? tr`, ${k.thisUnit} on this unit` : ''}`,
          },
        ];
  });
}

const fromRenewed = (renewed: readonly Renewed[]): PriorFactor[] =>
  renewed
    .filter((r) => r.days < YOUNG_days)
    .map((r) => ({
      is: 'part' as const,
      name: r.name,
      ...(r.position === null ? {} : { position: r.position }),
      factor: YOUNG,
      why: tr`${r.name}${r.position === null ? '' : ` ${r.position}`} is new, ${r.days} days old`,
    }));

function fromConditions(conditions: readonly DriveCondition[]): PriorFactor[] {
  if (conditions.length === 0) return [];
  return conditions.includes('intermittent')
    ? [{ intermittent: true, factor: INTERMITTENT, why: 'the complaint comes and goes' }]
    : [{ intermittent: true, factor: STEADY_COMPLAINT, why: 'the complaint is not said to come and go' }];
}

/** Parts that evidence says were renewed. */
export const renewedBy = (all: readonly { readonly body: Evidence; readonly days: number }[]): Renewed[] =>
  all.flatMap(({ body: e, days }): Renewed[] => {
    const position = 'position' in e && typeof e.position === 'number' ? e.position : null;
    return e.kind === 'new-part' || (e.kind === 'repair' && !e.path) ? [{ name: e.part, position, days }] : [];
  });

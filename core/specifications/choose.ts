import { because } from './because';
import { SCOPES, type Scope, type Situation, type Specification, type When } from './types';

/** Why a specification was passed over. */
export type PassedOver =
  | 'withdrawn'
  | 'older revision'
  | 'other condition'
  | 'more general'
  | 'fewer conditions met'
  | 'other school'
  | 'not approved'
  | 'other part'
  | 'other family'
  | 'other depot'
  | 'came first';

export interface Choice {
  readonly chosen: Specification | null;
  /** Why that one, as a sentence; empty where there is none. */
  readonly because: string;
  readonly passedOver: readonly { readonly specification: Specification; readonly why: PassedOver }[];
}

/** The shelf, arranged so that choosing looks only at the few that are about one test. */
export interface ArrangedSpecifications {
  readonly byTest: ReadonlyMap<string, TestShelf>;
}

interface TestShelf {
  /** Newest revisions only, by what they are for. */
  readonly current: ReadonlyMap<string, readonly Specification[]>;
  readonly all: readonly Specification[];
}

const place = (scope: Scope, of: string | null): string => `${scope}/${of ?? ''}`;

/**
 * Arranges specifications. Only the newest revision of a series counts; a withdrawn one takes the series off
 * the shelf.
 */
export function arrangeSpecifications(specifications: readonly Specification[]): ArrangedSpecifications {
  const newest = new Map<string, Specification>();
  for (const s of specifications) {
    const known = newest.get(s.series);
    if (!known || s.revision > known.revision) newest.set(s.series, s);
  }
  const tests = new Map<string, { current: Map<string, Specification[]>; all: Specification[] }>();
  const shelfOf = (test: string) => {
    const there = tests.get(test) ?? { current: new Map<string, Specification[]>(), all: [] };
    tests.set(test, there);
    return there;
  };
  for (const s of specifications) shelfOf(s.test).all.push(s);
  for (const s of newest.values()) {
    if (s.status === 'withdrawn') continue;
    const { current } = shelfOf(s.test);
    const key = place(s.scope, s.of);
    current.set(key, [...(current.get(key) ?? []), s]);
  }
  return { byTest: tests };
}

/**
 * How many conditions are met; `null` where one contradicts. What is not known neither meets nor contradicts.
 */
export function conditionsMet(when: When, s: Situation): number | null {
  let met = 0;
  for (const field of ['systemVoltage_V', 'key', 'engine', 'connection'] as const) {
    if (when[field] === undefined || s[field] === undefined) continue;
    if (when[field] !== s[field]) return null;
    met += 1;
  }
  const { fromTemperature_degC: from, toTemperature_degC: to } = when;
  if ((from === undefined && to === undefined) || s.temperature_degC === undefined) return met;
  return s.temperature_degC >= (from ?? -Infinity) && s.temperature_degC <= (to ?? Infinity) ? met + 1 : null;
}

const STATUS_RANK: Readonly<Record<Specification['status'], number>> = {
  approved: 0,
  draft: 1,
  'rule-of-thumb': 2,
  withdrawn: 3,
};
const ofScope = (scope: Scope, s: Situation): string | null =>
  ({ part: s.part, family: s.family, depot: s.depot, general: null })[scope];

interface Candidate {
  readonly specification: Specification;
  readonly met: number;
  readonly schoolRank: number;
}

/**
 * The depot's school first, then what belongs to none, then another school: that one only where nothing else
 * is there.
 */
const schoolRank = (school: string | null, picked: string | null): number =>
  school === null ? 1 : school === picked ? 0 : 2;

/** Below 0 where `a` goes before `b`. Within one scope. */
function compare(a: Candidate, b: Candidate): number {
  return (
    a.schoolRank - b.schoolRank ||
    b.met - a.met ||
    STATUS_RANK[a.specification.status] - STATUS_RANK[b.specification.status] ||
    Number(a.specification.series > b.specification.series) - Number(a.specification.series < b.specification.series)
  );
}

function candidates(shelf: TestShelf, scope: Scope, situation: Situation): Candidate[] {
  const of = ofScope(scope, situation);
  if (of === null && scope !== 'general') return [];
  return (shelf.current.get(place(scope, of)) ?? [])
    .flatMap((specification) => {
      const met = conditionsMet(specification.when, situation);
      return met === null
        ? []
        : [{ specification, met, schoolRank: schoolRank(specification.school, situation.school) }];
    })
    .toSorted(compare);
}

/**
 * The specification that judges: exact part, then family, depot, general rule; in each the best match of
 * condition.
 */
export function chooseSpecification(shelf: ArrangedSpecifications, situation: Situation): Specification | null {
  const ofTest = shelf.byTest.get(situation.test);
  if (!ofTest) return null;
  for (const scope of SCOPES) {
    const [best] = candidates(ofTest, scope, situation);
    if (best) return best.specification;
  }
  return null;
}

/** As `chooseSpecification`, with why, and why not the others. */
export function explainChoice(shelf: ArrangedSpecifications, situation: Situation): Choice {
  const chosen = chooseSpecification(shelf, situation);
  const ofTest = shelf.byTest.get(situation.test);
  if (!ofTest) return { chosen: null, because: '', passedOver: [] };
  const newest = new Set([...ofTest.current.values()].flat());
  const passedOver = ofTest.all
    .filter((s) => s !== chosen)
    .map((s) => ({ specification: s, why: whyNot(s, newest.has(s), chosen, situation) }));
  return {
    chosen,
    because: chosen ? because(chosen, situation, conditionsMet(chosen.when, situation) ?? 0) : '',
    passedOver,
  };
}

function whyNot(s: Specification, isNewest: boolean, chosen: Specification | null, situation: Situation): PassedOver {
  if (s.status === 'withdrawn') return 'withdrawn';
  if (!isNewest) return 'older revision';
  if (s.scope !== 'general' && s.of !== ofScope(s.scope, situation)) return `other ${s.scope}`;
  const met = conditionsMet(s.when, situation);
  if (met === null) return 'other condition';
  if (!chosen || SCOPES.indexOf(s.scope) > SCOPES.indexOf(chosen.scope)) return 'more general';
  const rank = (x: Specification): number => schoolRank(x.school, situation.school);
  if (rank(s) > rank(chosen)) return 'other school';
  if (met < (conditionsMet(chosen.when, situation) ?? 0)) return 'fewer conditions met';
  return STATUS_RANK[s.status] > STATUS_RANK[chosen.status] ? 'not approved' : 'came first';
}

import { tr } from '../locale/translate';
import { expandElements, expandSuspects, type PlacedElement, type Wiring } from '../circuits/expand';
import type { LibraryCircuit } from '../circuits/types';
import type { Hypothesis, Member } from './types';

/**
 * Faults that the data of a circuit do not list. Any element may have resistance, be open, wander or have
 * another value; any node may leak to ground or to the supply; any source may be low. Their sizes go on
 * outwards, up to open: a fault between good and the smallest one that is listed would be read into good
 * parts.
 */

/** Of the weight of all listed suspects, what these have together. Common practice, no source. */
const UNLISTED_SHARE = 0.2;
/** How that is divided among the kinds. Common practice, no source. */
const SHARES = { series: 0.32, open: 0.16, wander: 0.2, leak: 0.16, supply: 0.06, value: 0.06, source: 0.04 } as const;
type Kind = keyof typeof SHARES;

/**
 * Sizes grow by this factor; where there are copies per cylinder, what lies between is covered by their
 * reach.
 */
const STEP = { few: 3, copies: 6 } as const;
/** Above this nothing differs from open. */
const OPEN_ohm = 3e7;
/** Of what is healthy: a smaller additional resistance is not called a fault. */
const LEAST_SERIES = 12;
const LEAST_SERIES_ohm = 0.004;
const LEAKS_ohm = { from: 0.5, to: 3e4 } as const;
/** What is left of a source that is low. */
const SOURCE_LEFT = [0.02, 0.3, 0.5, 0.65, 0.78, 0.87] as const;
/** How often a battery is flat, against how often it is weak. Common practice, no source. */
const FLAT = 0.6;
const SAGS = 0.05;
const INSULATION_ohm = 1e7;

/** Sizes from the smallest to the largest, evenly by their logarithm, about a factor apart. */
function spaced(from: number, to: number, factor: number): number[] {
  if (!(to > from)) return [from];
  const steps = Math.max(1, Math.round(Math.log(to / from) / Math.log(factor)));
  return Array.from({ length: steps + 1 }, (_, k) => from * (to / from) ** (k / steps));
}

/** A resistor that is only there when something leaks: its ends, and what it is called. */
export interface PossibleLeak {
  readonly id: string;
  readonly node: string;
  readonly to: 'ground' | 'supply';
  readonly position: number | null;
}

const leakId = (node: string, to: PossibleLeak['to']): string => `${node} to ${to}`;

/** Every node that could leak: not one at ground or supply itself, nor one inside a unit. */
export function possibleLeaks(circuit: LibraryCircuit, elements: readonly PlacedElement[]): PossibleLeak[] {
  const healthy = (e: PlacedElement): number => circuit.values[e.value]?.value ?? 1;
  const sources = elements.filter((e) => e.kind === 'source');
  const fixed = new Set([circuit.reference, ...sources.flatMap((e) => [e.from, e.to])]);
  const isWire = (e: PlacedElement): boolean =>
    e.kind !== 'source' && e.symbol !== 'hidden' && healthy(e) < INSULATION_ohm && e.id !== 'jumper';
  const leaking = new Set(elements.filter((e) => e.symbol === 'leak').map((e) => e.from));
  const nodes = [...new Set(elements.filter(isWire).flatMap((e) => [e.from, e.to]))].filter((n) => !fixed.has(n));
  return nodes.flatMap((node): PossibleLeak[] => {
    const own = elements.filter((e) => isWire(e) && (e.from === node || e.to === node));
    const isGround = own.some(
      (e) =>
        fixed.has(e.from === node ? e.to : e.from) && e.kind === 'resistor' && healthy(e) < 1 && e.symbol === 'ground',
    );
    const isInside = own.every((e) => e.symbol === 'input' || e.symbol === 'module');
    const isBody = elements.some(
      (e) => e.to === circuit.reference && e.from === node && e.symbol === 'hidden' && healthy(e) < 1,
    );
    if (isGround || isInside || isBody) return [];
    const position = own.every((e) => e.position !== null && e.position === own[0]?.position)
      ? (own[0]?.position ?? null)
      : null;
    const leak = (to: PossibleLeak['to']): PossibleLeak => ({ id: leakId(node, to), node, to, position });
    return leaking.has(node) ? [leak('supply')] : [leak('ground'), leak('supply')];
  });
}

interface Draft {
  readonly kind: Kind;
  readonly member: Omit<Member, 'ohms'>;
  readonly sizes: readonly number[];
  /** Against those of the data, where it is known better than by kind. */
  readonly weight?: number;
}

/** All faults of the circuit that its data do not list; their weights are against those of the data. */
export function unlistedHypotheses(circuit: LibraryCircuit, wiring: Wiring): Hypothesis[] {
  const elements = expandElements(circuit, wiring);
  const drafts = [
    ...ofElements(circuit, wiring, elements),
    ...ofLeaks(circuit, elements),
    ...ofSources(circuit, elements),
  ];
  const listed = expandSuspects(circuit, wiring).reduce((sum, s) => sum + s.prior, 0);
  const many = new Map<Kind, number>();
  for (const d of drafts) many.set(d.kind, (many.get(d.kind) ?? 0) + 1);
  return drafts.flatMap(({ kind, member, sizes, weight: known }) => {
    const weight = known ?? (UNLISTED_SHARE * listed * SHARES[kind]) / (many.get(kind) ?? 1);
    return sizes.map((ohms): Hypothesis => ({
      key: member.key,
      weight: weight / sizes.length,
      members: [{ ...member, ohms }],
    }));
  });
}

function ofElements(circuit: LibraryCircuit, wiring: Wiring, elements: readonly PlacedElement[]): Draft[] {
  const suspects = expandSuspects(circuit, wiring);
  return elements.flatMap((e): Draft[] => {
    const step = e.position === null ? STEP.few : STEP.copies;
    const healthy = circuit.values[e.value]?.value ?? 1;
    if (e.kind === 'source' || e.symbol === 'hidden' || healthy >= INSULATION_ohm || e.id === 'jumper') return [];
    const own = suspects.filter((s) => s.element === e.id);
    const has = (fault: Member['fault'], wanders: boolean): boolean =>
      own.some((s) => s.fault === fault && (s.intermittent ?? false) === wanders);
    const called = nameOf(e, own[0]);
    const draft = (
      kind: Kind,
      fault: Member['fault'],
      words: string,
      sizes: readonly number[],
      intermittent = false,
    ): Draft => ({
      kind,
      sizes,
      member: {
        ...called,
        key: `${e.id}: ${words}, not listed`,
        element: e.id,
        fault,
        intermittent,
        when: [],
        words,
        isListed: false,
        stretch: [e.id],
      },
    });
    const series = own.filter((s) => s.fault === 'series' && !s.intermittent).flatMap((s) => s.sizes ?? []);
    const from = series.length
      ? Math.max(...series) * step
      : Math.max(LEAST_SERIES_ohm, LEAST_SERIES * healthy, leastIn(circuit, healthy));
    const known = own.filter((s) => s.fault === 'resistance').flatMap((s) => s.sizes ?? []);
    return [
      ...(from < OPEN_ohm / step
        ? [draft('series', 'series', 'has resistance', spaced(from, OPEN_ohm / step, step))]
        : []),
      ...(has('open', false) ? [] : [draft('open', 'open', 'is open', [0])]),
      draft(
        'wander',
        'series',
        has('series', true) ? 'breaks now and then' : 'comes and goes',
        has('series', true) ? [OPEN_ohm * 100] : [from, 30 * from, OPEN_ohm * 100],
        true,
      ),
      ...(isPart(e)
        ? [
            draft(
              'value',
              'resistance',
              'has another value',
              otherValues(healthy, circuit.values[e.value]?.spread ?? 0, known, step),
            ),
          ]
        : []),
    ];
  });
}

const isPart = (e: PlacedElement): boolean =>
  e.symbol === 'plug' || e.symbol === 'coil' || e.symbol === 'module' || e.symbol === 'input';

/**
 * The smallest resistance that the data of the circuit call a fault of elements about as good; 0 where there
 * is none.
 */
function leastIn(circuit: LibraryCircuit, healthy: number): number {
  const own = new Map(
    [...circuit.elements, ...circuit.perCylinder].map((e) => [e.id, circuit.values[e.value]?.value ?? 1]),
  );
  const alike = circuit.suspects.filter((s) => {
    const value = own.get(s.element) ?? 1;
    return s.fault === 'series' && !s.intermittent && value < 10 * healthy && value > healthy / 10;
  });
  const sizes = alike.flatMap((s) => s.sizes ?? []);
  return sizes.length ? Math.min(...sizes) : 0;
}

/** Values that a part may have beside good ones and those that are listed. */
function otherValues(healthy: number, spread: number, known: readonly number[], step: number): number[] {
  const edge = Math.max(1.8, Math.exp(3.5 * spread));
  const below = spaced(healthy / (edge * 30), healthy / edge, step);
  const above = spaced(healthy * edge, healthy * edge * 300, step);
  const left = [...below, ...above].filter((v) => !known.some((k) => Math.abs(Math.log(k / v)) < Math.log(step) / 3));
  return left.length ? left : [healthy * edge];
}

/** As the data call what is wrong there; otherwise by the label of the drawing. */
function nameOf(
  e: PlacedElement,
  listed: Pick<Member, 'is' | 'name'> | undefined,
): Pick<Member, 'is' | 'name' | 'position'> {
  const named = listed ?? {
    is: isPart(e)
      ? e.symbol === 'input'
        ? ('input' as const)
        : ('part' as const)
      : e.position === null && e.symbol !== 'wire'
        ? ('shared' as const)
        : ('path' as const),
    name: e.position === null ? e.label : e.of.label.replace(/\s*\{\}/, ''),
  };
  return { is: named.is, name: named.name, position: e.position };
}

function ofLeaks(circuit: LibraryCircuit, elements: readonly PlacedElement[]): Draft[] {
  return possibleLeaks(circuit, elements).map(({ id, node, to, position }): Draft => {
    const step = position === null ? STEP.few : STEP.copies;
    const bare = position === null ? node : node.replace(new RegExp(`\\s*${position}$`), '');
    const words = to === 'ground' ? 'leaks to ground' : 'leaks to the supply';
    return {
      kind: to === 'ground' ? 'leak' : 'supply',
      sizes: spaced(LEAKS_ohm.from, LEAKS_ohm.to, step),
      member: {
        key: `${id}: ${words}, not listed`,
        element: id,
        position,
        fault: 'resistance',
        intermittent: false,
        when: [],
        is: 'path',
        name: tr`wire at ${bare}`,
        called: tr`the wire at ${node}`,
        words,
        isListed: false,
        stretch: [node, ...elements.filter((e) => e.from === node || e.to === node).map((e) => e.id)],
      },
    };
  });
}

/**
 * A battery that is flat, a reference or a boosted supply that is low: named as what stands for its inside.
 */
function ofSources(circuit: LibraryCircuit, elements: readonly PlacedElement[]): Draft[] {
  return elements
    .filter((e) => e.kind === 'source')
    .flatMap((e): Draft[] => {
      const inside = elements.find((o) => o.kind !== 'source' && (o.from === e.from || o.to === e.from));
      const listed = circuit.suspects.find((s) => s.element === inside?.id);
      const draft = (words: string, intermittent: boolean): Draft => ({
        kind: 'source',
        sizes: SOURCE_LEFT,
        ...(e.symbol === 'battery' && listed ? { weight: listed.prior * (intermittent ? SAGS : FLAT) } : {}),
        member: {
          key: `${e.id}: ${words}, not listed`,
          element: e.id,
          fault: 'source',
          intermittent,
          when: [],
          ...(listed ? { is: listed.is, name: listed.name } : { is: 'shared' as const, name: e.label }),
          position: null,
          words,
          isListed: false,
          stretch: [e.id, ...(inside ? [inside.id] : [])],
        },
      });
      return [draft('is too low', false), draft('sags now and then', true)];
    });
}

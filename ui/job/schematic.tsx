import { tr } from '../../core/locale/translate';
import {
  expandElements,
  expandProbes,
  named,
  type Place,
  type PlacedElement,
  type PlacedProbe,
  type Wiring,
} from '../../core/circuits/expand';
import type { LibraryCircuit, LibraryElement } from '../../core/circuits/types';
import type { Position } from '../../core/judge/types';
import { Sideways } from '../kit/sideways';

export interface SchematicProps {
  readonly circuit: LibraryCircuit;
  readonly wiring: Wiring;
  /** Share of suspicion by element. */
  readonly shares: ReadonlyMap<string, number>;
  /** Where to put the probes. */
  readonly probe: { readonly test: string; readonly position: Position } | null;
  /** Names everything and marks every test point: where nothing is suspected. */
  readonly named?: boolean;
}

interface Point {
  readonly x: number;
  readonly y: number;
}
interface Drawn {
  readonly id: string;
  readonly label: string;
  readonly symbol: LibraryElement['symbol'];
  readonly path: readonly Point[];
  readonly rail: readonly Point[];
  readonly at: Point;
  /** Its cylinder: its label stands beneath the column. */ readonly column: number | null;
}

const STEP = 62;
const MARGIN = 44;
/** What names at the right side take. */
const NAMES = 50;

interface Drawing {
  readonly elements: readonly Drawn[];
  readonly at: (node: string) => Point;
  readonly width: number;
  readonly top: number;
  readonly height: number;
}

/** Which copy of a node that is: a cylinder's, a bank's, a pair's. */
const copyOf = (node: string, place: Place | null): number =>
  place === null
    ? 1
    : node.includes('{}')
      ? (place.cylinder ?? 1)
      : node.includes('{bank}')
        ? place.bank
        : node.includes('{pair}')
          ? place.pair
          : 1;

/**
 * Where everything stands: along the way of the current, upper line the feed, lower line the return, one
 * column a cylinder.
 */
function drawing(circuit: LibraryCircuit, wiring: Wiring): Drawing {
  const places = new Map<string, Point>();
  const isColumn = (node: string): boolean => circuit.drawing[node]?.dx !== undefined;
  const placed = expandElements(circuit, wiring).filter((e) => e.symbol !== 'hidden');
  for (const e of placed)
    for (const node of [e.of.from, e.of.to]) {
      const { x = 0, y = 0, dx = 0, dy = 0 } = circuit.drawing[node] ?? {};
      const step = copyOf(node, e.place) - 1;
      places.set(named(node, e.place), {
        x: MARGIN + STEP * (x + dx * step),
        y: MARGIN / 2 + STEP * 0.82 * (y + dy * step),
      });
    }
  const at = (node: string): Point => places.get(node) ?? { x: 0, y: 0 };
  const draw = (e: PlacedElement): Drawn => {
    const [a, b] = [at(e.from), at(e.to)];
    const aside = e.symbol === 'leak' ? STEP * 0.42 : 0;
    const [own, other] = [isColumn(e.of.from), isColumn(e.of.to)];
    const plain = { id: e.id, label: e.label, symbol: e.symbol };
    // What runs along the feed or the return belongs to all of them: drawn apart from the element.
    if (own && !other) {
      const [top, bottom] = [
        { x: a.x + aside, y: a.y },
        { x: a.x + aside, y: b.y },
      ];
      return {
        ...plain,
        path: aside ? [a, top, bottom] : [a, bottom],
        rail: [bottom, b],
        at: { x: a.x + aside, y: (a.y + b.y) / 2 },
        column: e.position,
      };
    }
    if (e.aside !== undefined) {
      const x = a.x + STEP * e.aside;
      return {
        ...plain,
        path: [a, { x, y: a.y }, { x, y: b.y }, b],
        rail: [],
        at: { x, y: 0.4 * a.y + 0.6 * b.y },
        column: e.position,
      };
    }
    const bend = { x: b.x, y: a.y };
    if (other && !own)
      return { ...plain, path: [bend, b], rail: [a, bend], at: { x: b.x, y: (a.y + b.y) / 2 }, column: e.position };
    // Rails one above the other leave the feed downwards first; the sign stands on the longer stretch.
    const corner =
      circuit.drawing[e.of.to]?.dy !== undefined && circuit.drawing[e.of.from]?.dy === undefined
        ? { x: a.x, y: b.y }
        : bend;
    const path = a.x === b.x || a.y === b.y ? [a, b] : [a, corner, b];
    return { ...plain, path, rail: [], at: middleOf(path), column: e.position };
  };
  const elements = placed.map(draw);
  const xs = elements.flatMap((e) => [...e.path, ...e.rail].map((p) => p.x));
  const ys = elements.flatMap((e) => e.path.map((p) => p.y));
  return {
    elements,
    at,
    width: Math.max(...xs) + MARGIN * 1.2,
    top: Math.min(...ys) - 38,
    height: Math.max(...ys) + (circuit.perCylinder.length ? 56 : 30),
  };
}

/** The middle of the longest stretch. */
function middleOf(path: readonly Point[]): Point {
  const stretches = path.slice(1).map((b, i) => ({ a: path[i] ?? b, b }));
  const length = ({ a, b }: { a: Point; b: Point }): number => Math.abs(a.x - b.x) + Math.abs(a.y - b.y);
  const [longest] = stretches.toSorted((x, y) => length(y) - length(x));
  return longest ? { x: (longest.a.x + longest.b.x) / 2, y: (longest.a.y + longest.b.y) / 2 } : { x: 0, y: 0 };
}

/** Shares from which an element is tinted, and from which it is named with its share. */
const SEEN = 0.03;
const NAMED = 0.08;

/** Of what is written: always in full, so that it can be read. */
const tone = (share: number): string =>
  share >= 0.5 ? 'var(--color-rust)' : share >= SEEN ? 'var(--color-ochre)' : 'var(--color-post)';

/** Of the line: the more suspected, the further from the plain post's colour, and the thicker. */
function tint(share: number): string {
  if (share < SEEN) return 'var(--color-post)';
  const full = Math.round(share < 0.5 ? 40 + 120 * share : 100 * Math.min(1, 0.6 + 0.45 * share));
  return share < 0.5
    ? `color-mix(in oklab, var(--color-ochre) ${full}%, var(--color-post))`
    : `color-mix(in oklab, var(--color-rust) ${full}%, var(--color-ochre))`;
}
const thickness = (share: number): number => (share < SEEN ? 2 : 2 + 2.5 * Math.sqrt(share));

/**
 * The circuit as it is wired, each element tinted by its share of suspicion, with that share in words beside
 * it.
 */
export function Schematic({ circuit, wiring, shares, probe, named: isNamed = false }: SchematicProps) {
  const { elements, at, width, top, height } = drawing(circuit, wiring);
  const shown = elements.filter((e) => e.symbol !== 'leak' || (shares.get(e.id) ?? 0) >= SEEN);
  const asked =
    probe && expandProbes(circuit, wiring).find((p) => p.test === probe.test && p.position === probe.position);
  const worst = [...shares]
    .filter(([, s]) => s >= SEEN)
    .sort((a, b) => b[1] - a[1])
    .map(([id, s]) => tr`${id} ${percent(s)}`);
  const columns = circuit.perCylinder.length ? Array.from({ length: wiring.cylinders }, (_, i) => i + 1) : [];
  return (
    // Smaller, its names could not be read: on a phone it is moved sideways.
    <Sideways name={tr`Drawing: ${circuit.name}`}>
      <svg
        viewBox={`0 ${top} ${width + (isNamed ? NAMES : 0)} ${height - top}`}
        className="w-full min-w-[30rem]"
        role="img"
        aria-label={tr`${circuit.name}. ${worst.length ? tr`Under suspicion: ${worst.join(', ')}` : 'Nothing under suspicion'}`}
      >
        {shown.map(
          (e) =>
            e.rail.length > 0 &&
            e.symbol !== 'leak' && (
              <polyline key={e.id} points={line(e.rail)} stroke="var(--color-post)" strokeWidth={2} fill="none" />
            ),
        )}
        {shown.map((e) => (
          <Part key={e.id} e={e} share={shares.get(e.id) ?? 0} />
        ))}
        {columns.map((n) => (
          <ColumnLabel
            key={n}
            n={n}
            elements={shown.filter((e) => (shares.get(e.id) ?? 0) >= NAMED && e.column === n)}
            shares={shares}
            x={shown.find((e) => e.column === n)?.at.x ?? 0}
            y={height - 36}
          />
        ))}
        {isNamed && <Names circuit={circuit} wiring={wiring} elements={shown} at={at} />}
        {shown.map((e) => {
          const share = shares.get(e.id) ?? 0;
          return share >= NAMED && e.column === null && <Suspicion key={e.id} e={e} share={share} />;
        })}
        {asked && <Probes probe={asked} at={at} elements={elements} />}
      </svg>
    </Sideways>
  );
}

/**
 * Every sign with its name, those of cylinders at the first one, and a ring at every point where something is
 * read.
 */
function Names({
  circuit,
  wiring,
  elements,
  at,
}: {
  circuit: LibraryCircuit;
  wiring: Wiring;
  elements: readonly Drawn[];
  at: (node: string) => Point;
}) {
  const points = new Set(
    expandProbes(circuit, wiring).flatMap((p) => [p.red, p.black].flatMap((n) => (n === undefined ? [] : [n]))),
  );
  return (
    <>
      {[...points].map((n) => {
        const { x, y } = at(n);
        return x || y ? (
          <circle
            key={n}
            cx={x}
            cy={y}
            r={4.5}
            fill="var(--color-card)"
            stroke="var(--color-estuary)"
            strokeWidth={2.5}
          />
        ) : null;
      })}
      {elements
        .filter((e) => (e.column === null && !/ ([2-9]|\d\d)$/.test(e.id)) || e.column === 1)
        .map((e) => {
          const upright = e.column !== null || isUpright(e);
          return (
            <text
              key={e.id}
              x={upright ? e.at.x + 18 : e.at.x}
              y={upright ? e.at.y + 4 : e.at.y - 15}
              textAnchor={upright ? 'start' : 'middle'}
              fill="var(--color-soft)"
              {...OVER_LINES}
              className="text-[11px]"
            >
              {e.label.replace(/ 1$/, '')}
            </text>
          );
        })}
    </>
  );
}

/** A name that crosses a line stands before it. */
const OVER_LINES = {
  paintOrder: 'stroke',
  stroke: 'var(--color-card)',
  strokeWidth: 4,
  strokeLinejoin: 'round',
} as const;

const isUpright = (e: Drawn): boolean => e.path.slice(1).some((b, i) => e.path[i]?.x === b.x && e.at.x === b.x);

const percent = (share: number): string => (share >= 0.995 ? 'nearly certain' : `${Math.round(share * 100)} %`);

const line = (points: readonly Point[]): string => points.map((p) => `${p.x},${p.y}`).join(' ');

/** The cylinder's number, and what of it is suspected most. */
function ColumnLabel({
  n,
  elements,
  shares,
  x,
  y,
}: {
  n: number;
  elements: readonly Drawn[];
  shares: ReadonlyMap<string, number>;
  x: number;
  y: number;
}) {
  const [worst] = [...elements].sort((a, b) => (shares.get(b.id) ?? 0) - (shares.get(a.id) ?? 0));
  const share = worst ? (shares.get(worst.id) ?? 0) : 0;
  return (
    <text
      textAnchor="middle"
      x={x}
      y={y}
      fill={worst ? tone(share) : 'var(--color-post)'}
      className="text-[13px] font-semibold"
    >
      <tspan x={x}>{worst ? worst.label : n}</tspan>
      {worst && (
        <tspan x={x} dy={16}>
          {share >= 0.995 ? 'certain' : `${Math.round(share * 100)} %`}
        </tspan>
      )}
    </text>
  );
}

/**
 * Beside the sign, in two lines: the next column is near. Drawn last, or it would stand behind what it
 * crosses.
 */
function Suspicion({ e, share }: { e: Drawn; share: number }) {
  const x = e.at.x + 18;
  return (
    <text y={e.at.y - 20} fill={tone(share)} {...OVER_LINES} className="text-[13px] font-semibold">
      <tspan x={x}>{e.label}</tspan>
      <tspan x={x} dy={15}>
        {percent(share)}
      </tspan>
    </text>
  );
}

function Part({ e, share }: { e: Drawn; share: number }) {
  const stroke = tint(share);
  return (
    <g stroke={stroke} strokeWidth={thickness(share)} fill="none">
      <polyline
        points={line(e.path)}
        strokeDasharray={e.symbol === 'leak' ? '5 5' : undefined}
        strokeLinejoin="round"
      />
      <Symbol symbol={e.symbol} at={e.at} stroke={stroke} />
    </g>
  );
}

/**
 * Our own signs: a post for what takes current, a gate for what opens, a bar for what feeds, a foot for
 * ground.
 */
function Symbol({ symbol, at: { x, y }, stroke }: { symbol: Drawn['symbol']; at: Point; stroke: string }) {
  const box = { fill: 'var(--color-card)', stroke };
  switch (symbol) {
    case 'plug':
      return <rect x={x - 6} y={y - 15} width={12} height={30} rx={6} {...box} />;
    case 'coil':
      return (
        <g>
          <rect x={x - 9} y={y - 15} width={18} height={30} rx={3} {...box} />
          <path d={`M${x - 9} ${y + 5} L${x + 9} ${y - 5}`} />
        </g>
      );
    case 'module':
    case 'input':
      return <rect x={x - 13} y={y - 11} width={26} height={22} rx={3} {...box} />;
    case 'battery':
      return (
        <g>
          <rect x={x - 16} y={y - 12} width={32} height={24} rx={3} {...box} />
          <path d={`M${x - 8} ${y} h6 m-3 -3 v6 M${x + 3} ${y} h6`} strokeWidth={2} />
        </g>
      );
    case 'fuse':
      return <rect x={x - 13} y={y - 6} width={26} height={12} rx={6} {...box} />;
    case 'relay':
      return (
        <g>
          <rect x={x - 14} y={y - 11} width={28} height={22} rx={3} {...box} />
          <path d={`M${x - 8} ${y + 4} L${x + 7} ${y - 5}`} strokeWidth={2} />
        </g>
      );
    case 'ground':
      return <path d={`M${x - 11} ${y + 6} h22 M${x - 6} ${y + 11} h12`} strokeWidth={2.5} />;
    case 'leak':
      return <path d={`M${x - 6} ${y - 8} l10 6 l-8 4 l10 6`} strokeWidth={2.5} />;
    default:
      return null;
  }
}

function Probes({
  probe,
  at,
  elements,
}: {
  probe: PlacedProbe;
  at: (node: string) => Point;
  elements: readonly Drawn[];
}) {
  if (probe.element !== undefined) {
    const own = elements.find((e) => e.id === probe.element);
    return own ? (
      <g>
        <circle cx={own.at.x} cy={own.at.y} r={15} fill="none" stroke="var(--color-estuary)" strokeWidth={4} />
        <text x={own.at.x - 22} y={own.at.y - 18} fill="var(--color-estuary)" className="text-[13px] font-bold">
          clamp here
        </text>
      </g>
    ) : null;
  }
  return (
    <>
      {(
        [
          ['red', 'R'],
          ['black', 'B'],
        ] as const
      ).map(([which, letter]) => {
        const node = probe[which];
        if (node === undefined) return null;
        const { x, y } = at(node);
        return (
          <g key={which}>
            <circle cx={x} cy={y} r={11} fill="var(--color-estuary)" />
            <text x={x} y={y + 5} textAnchor="middle" fill="var(--color-on-estuary)" className="text-[13px] font-bold">
              {letter}
            </text>
          </g>
        );
      })}
    </>
  );
}

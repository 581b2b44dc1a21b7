import { tr } from '../locale/translate';
import type { Problem } from '../foundation/result';

/**
 * Engine layouts, numbering conventions and firing orders.
 *
 * Makers number cylinders differently, so nothing is assumed: the convention is part of the engine's data and
 * is written beside the posts. Positions are always the maker's own cylinder numbers.
 */
export type Layout = 'inline' | 'vee';

/**
 * How the numbers run. `sequential`: 1..n along one bank, then the other. `odd-even`: odd on one bank, even
 * on the other.
 */
export type NumberingScheme = 'sequential' | 'odd-even';

export interface Numbering {
  readonly scheme: NumberingScheme;
  /** The end of the engine at which the numbers begin. */
  readonly from: 'front' | 'flywheel';
  /** The bank that holds cylinder 1, left and right as seen from the flywheel end looking forward. */
  readonly firstBank: 'left' | 'right';
}

export interface Engine {
  readonly layout: Layout;
  readonly cylinders: number;
  readonly numbering?: Partial<Numbering> | undefined;
  readonly firingOrder?: readonly number[] | undefined;
  readonly systemVoltage_V?: number | undefined;
  /** Cylinders, or pins and states by name, that share a conductor, a driver or a fuse. */
  readonly groups?: Readonly<Record<string, readonly (number | string)[]>> | undefined;
}

export interface BankRow {
  readonly bank: 'inline' | 'left' | 'right';
  /** Cylinder numbers, front of the engine first. */
  readonly cylinders: readonly number[];
}

export const DEFAULT_NUMBERING: Numbering = { scheme: 'sequential', from: 'front', firstBank: 'left' };

const LIMITS: Readonly<Record<Layout, readonly [number, number]>> = { inline: [1, 12], vee: [4, 16] };

const upTo = (n: number): number[] => Array.from({ length: n }, (_, i) => i + 1);

/**
 * All that is wrong with an engine's data, each with its path below `base`. An empty list means it can be
 * used.
 */
export function checkEngine(engine: Engine, base = ''): Problem[] {
  const [least, most] = LIMITS[engine.layout];
  const problems: Problem[] = [];
  if (!Number.isInteger(engine.cylinders) || engine.cylinders < least || engine.cylinders > most) {
    problems.push({
      path: `${base}/cylinders`,
      message: tr`A ${engine.layout} engine has ${least} to ${most} cylinders, not ${engine.cylinders}.`,
    });
    return problems;
  }
  if (engine.layout === 'vee' && engine.cylinders % 2 !== 0) {
    problems.push({ path: `${base}/cylinders`, message: 'A vee engine has an even number of cylinders.' });
  }
  return [...problems, ...checkFiringOrder(engine, base), ...checkGroups(engine, base)];
}

function checkFiringOrder({ firingOrder, cylinders }: Engine, base: string): Problem[] {
  if (!firingOrder) return [];
  const path = `${base}/firingOrder`;
  if (firingOrder.length !== cylinders) {
    return [
      { path, message: tr`The firing order names ${firingOrder.length} cylinders; the engine has ${cylinders}.` },
    ];
  }
  const seen = new Set<number>();
  for (const [i, c] of firingOrder.entries()) {
    if (!isCylinder(c, cylinders)) return [{ path: `${path}/${i}`, message: tr`The engine has no cylinder ${c}.` }];
    if (seen.has(c)) return [{ path: `${path}/${i}`, message: tr`Cylinder ${c} fires twice in the firing order.` }];
    seen.add(c);
  }
  return [];
}

function checkGroups({ groups, cylinders }: Engine, base: string): Problem[] {
  const problems: Problem[] = [];
  for (const [name, members] of Object.entries(groups ?? {})) {
    const path = `${base}/groups/${name.replaceAll('~', '~0').replaceAll('/', '~1')}`;
    if (members.length === 0) problems.push({ path, message: tr`Group "${name}" has no members.` });
    for (const [i, c] of members.entries()) {
      if (typeof c === 'number' && !isCylinder(c, cylinders))
        problems.push({ path: `${path}/${i}`, message: tr`The engine has no cylinder ${c}.` });
      else if (members.indexOf(c) !== i)
        problems.push({
          path: `${path}/${i}`,
          message: tr`${typeof c === 'number' ? tr`Cylinder ${c}` : `"${c}"`} is named twice in group "${name}".`,
        });
    }
  }
  return problems;
}

const isCylinder = (c: number, cylinders: number): boolean => Number.isInteger(c) && c >= 1 && c <= cylinders;

/**
 * The engine's rows, front of the engine to the left; of a vee the left bank is the upper row. The engine
 * must have passed `checkEngine`.
 */
export function arrange(engine: Engine): readonly BankRow[] {
  const numbering = { ...DEFAULT_NUMBERING, ...engine.numbering };
  const orient = (row: number[]): number[] => (numbering.from === 'front' ? row : row.toReversed());
  if (engine.layout === 'inline') return [{ bank: 'inline', cylinders: orient(upTo(engine.cylinders)) }];
  const half = engine.cylinders / 2;
  const all = upTo(engine.cylinders);
  const inFirst = (c: number): boolean => (numbering.scheme === 'sequential' ? c <= half : c % 2 === 1);
  const first = orient(all.filter(inFirst));
  const second = orient(all.filter((c) => !inFirst(c)));
  const rows = numbering.firstBank === 'left' ? { left: first, right: second } : { left: second, right: first };
  return [
    { bank: 'left', cylinders: rows.left },
    { bank: 'right', cylinders: rows.right },
  ];
}

/**
 * Groups to look for in a pattern: the engine's own, then the banks of a vee whose numbering is stated.
 * Without a stated numbering the banks are not known and none is guessed.
 */
export function sharedGroups(engine: Engine): ReadonlyMap<string, readonly (number | string)[]> {
  const groups = new Map<string, readonly (number | string)[]>(Object.entries(engine.groups ?? {}));
  if (engine.layout === 'vee' && engine.numbering?.scheme) {
    for (const { bank, cylinders } of arrange(engine)) {
      const name = tr`${bank} bank`;
      if (!groups.has(name)) groups.set(name, cylinders);
    }
  }
  return groups;
}

/** All positions of an engine in the order in which a technician works: numbering order. */
export const cylinderPositions = (engine: Engine): number[] => upTo(engine.cylinders);

/** The numbering convention in words, as it stands beside the posts. */
export function describeNumbering(engine: Engine): string {
  const { scheme, from, firstBank } = { ...DEFAULT_NUMBERING, ...engine.numbering };
  const end = from === 'front' ? 'front' : 'flywheel end';
  if (engine.layout === 'inline') return tr`numbered from the ${end}`;
  const other = firstBank === 'left' ? 'right' : 'left';
  return scheme === 'odd-even'
    ? tr`odd ${firstBank}, even ${other}, from the ${end}`
    : tr`${firstBank} bank first, then ${other}, from the ${end}`;
}

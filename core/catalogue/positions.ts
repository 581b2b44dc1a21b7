import { cylinderPositions, type Engine } from '../engine/layout';
import type { TestDefinition } from './types';

/** All positions of a test on an engine, in the order in which they are listed. */
export const positionsOf = (test: TestDefinition, engine: Engine): readonly (number | string)[] =>
  test.positions === 'cylinders' ? cylinderPositions(engine) : test.positions;

/** The same, of a run in which these were read: of alternatives only those, once one was. */
export function positionsInUse(
  test: TestDefinition,
  engine: Engine,
  read: readonly (number | string)[],
): readonly (number | string)[] {
  const all = positionsOf(test, engine);
  const own = all.filter((p) => read.includes(p));
  return test.alternatives !== undefined && own.length ? own : all;
}

/**
 * Readings in the order of the test's positions: cylinders by number, states and pins as the test lists them;
 * of an unknown test as they came.
 */
export function inOrder<R extends { readonly position: number | string }>(
  test: TestDefinition | undefined,
  readings: readonly R[],
): R[] {
  const listed = test?.positions;
  const rank = (p: number | string): number =>
    typeof p === 'number' ? p : Array.isArray(listed) ? listed.indexOf(p) : 0;
  return readings.toSorted((a, b) => rank(a.position) - rank(b.position));
}

/** Where the probes go at a position. */
export const probeAt = (test: TestDefinition, position: number | string): string =>
  test.probes?.[String(position)] ?? test.probe;

import { fail, type Result, ok } from '../../result';
import { MODULE_INPUT } from './feeds';
import { GLOW_RELAY } from './glow';
import { INJECTORS_COMMON } from './injectors';
import { SENSOR_PULL_DOWN, SENSOR_PULL_UP } from './sensor';
import type { LibraryCircuit } from './types';

/** The circuits that ship. */
export const CIRCUITS: readonly LibraryCircuit[] = [GLOW_RELAY, INJECTORS_COMMON, MODULE_INPUT, SENSOR_PULL_DOWN, SENSOR_PULL_UP];

export function findCircuit(id: string): Result<LibraryCircuit> {
  const found = CIRCUITS.find((c) => c.id === id);
  return found ? ok(found) : fail([{ path: '/circuit', message: `There is no circuit "${id}"; there are ${CIRCUITS.map((c) => c.id).join(', ')}.` }]);
}

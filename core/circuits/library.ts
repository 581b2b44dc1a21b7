import { fail, type Result, ok } from '../foundation/result';
import { ACTUATOR_LOW_SIDE, CONTROLLER_FEEDS, MODULE_INPUT, STARTER } from './feeds';
import { GLOW_RELAY, GLOW_UNIT } from './glow';
import { INJECTORS_COMMON, INJECTORS_PAIRED, INJECTORS_PIEZO } from './injectors';
import { SENSOR_COIL, SENSOR_HALL, SENSOR_PULL_DOWN, SENSOR_PULL_UP } from './sensor';
import type { LibraryCircuit } from './types';

/**
 * The circuits that ship. Of those of one area the first is taken where nothing says which one an engine has.
 */
export const CIRCUITS: readonly LibraryCircuit[] = [
  GLOW_RELAY,
  GLOW_UNIT,
  INJECTORS_COMMON,
  INJECTORS_PAIRED,
  INJECTORS_PIEZO,
  MODULE_INPUT,
  SENSOR_PULL_DOWN,
  SENSOR_PULL_UP,
  SENSOR_COIL,
  SENSOR_HALL,
  ACTUATOR_LOW_SIDE,
  CONTROLLER_FEEDS,
  STARTER,
];

export function findCircuit(id: string): Result<LibraryCircuit> {
  const found = CIRCUITS.find((c) => c.id === id);
  return found
    ? ok(found)
    : fail([
        {
          path: '/circuit',
          message: `There is no circuit "${id}"; there are ${CIRCUITS.map((c) => c.id).join(', ')}.`,
        },
      ]);
}

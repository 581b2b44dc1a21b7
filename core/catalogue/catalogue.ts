import { AIR_AND_FUEL, CONTROLLER } from './controller';
import { ENERGY } from './energy';
import { GLOW_PLUGS } from './glow-plugs';
import { HARNESS } from './harness';
import { INJECTOR_MODULE, INJECTORS } from './injectors';
import { ACTUATORS, POSITION_SENSORS } from './position-sensors';
import { RECORDINGS } from './recordings';
import { SENSORS } from './sensors';
import type { TestDefinition } from './types';

/**
 * The tests that ship, in the order in which the work is done: energy first. A workshop adds its own beside
 * them.
 */
export const CATALOGUE: readonly TestDefinition[] = [
  ...ENERGY,
  ...GLOW_PLUGS,
  ...HARNESS,
  ...INJECTOR_MODULE,
  ...INJECTORS,
  ...SENSORS,
  ...RECORDINGS,
  ...POSITION_SENSORS,
  ...ACTUATORS,
  ...CONTROLLER,
  ...AIR_AND_FUEL,
];

const BY_ID: ReadonlyMap<string, TestDefinition> = new Map(CATALOGUE.map((t) => [t.id, t]));

/** The test of that id among those that ship; `undefined` for any other. */
export const findTest = (id: string): TestDefinition | undefined => BY_ID.get(id);

/**
 * The tests that ship with a workshop's own over them: the same id replaces, a new one comes after its area.
 */
export function withOwn(own: readonly TestDefinition[]): readonly TestDefinition[] {
  const replaced = new Map(own.map((t) => [t.id, t]));
  const kept = CATALOGUE.map((t) => replaced.get(t.id) ?? t);
  const added = own.filter((t) => !BY_ID.has(t.id));
  const areas = [...new Set([...kept, ...added].map((t) => t.area))];
  return areas.flatMap((area) => [...kept, ...added].filter((t) => t.area === area));
}

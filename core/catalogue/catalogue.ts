import { ENERGY } from './energy';
import { GLOW_CIRCUIT } from './glow-circuit';
import { GLOW_PLUG_RESISTANCE } from './glow-plugs';
import { INJECTORS } from './injectors';
import { SENSORS } from './sensors';
import type { TestDefinition } from './types';

/** In the order in which the work is done: energy first. */
export const CATALOGUE: readonly TestDefinition[] = [...ENERGY, GLOW_PLUG_RESISTANCE, ...GLOW_CIRCUIT, ...INJECTORS, ...SENSORS];

const BY_ID: ReadonlyMap<string, TestDefinition> = new Map(CATALOGUE.map((t) => [t.id, t]));

/** The test of that id; `undefined` for one that the catalogue does not have. */
export const findTest = (id: string): TestDefinition | undefined => BY_ID.get(id);

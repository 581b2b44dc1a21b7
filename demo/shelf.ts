import { findTest } from '../core/catalogue/catalogue';
import type { TestDefinition } from '../core/catalogue/types';
import type { Limits } from '../core/limits/types';
import type { SpecificationEntry } from '../formats/specifications';

/** The invented depots' limits. `key` keeps ids steady from one loading to the next. */
type DemoEntry = SpecificationEntry & { readonly key: readonly string[] };

const PLUG = 'glow-plug-resistance';
const plug = (more: Partial<Limits>): Limits => ({
  quantity: 'resistance',
  unit: 'ohm',
  lower: 0.3,
  upper: 1,
  watchUpper: 0.9,
  shortBelow: 0.05,
  openAbove: 10000,
  steadyWithin: 0.1,
  neighbours: { maxRatio: 2.5 },
  referenceTemperature_degC: 20,
  ...more,
});
const ofFamily = (family: string, page: string, documentRevision: string, more: Partial<Limits> = {}): DemoEntry => {
  const document = `Levels Board service sheet LB-${family.split('-')[1] ?? family}`;
  return {
    key: [family],
    test: PLUG,
    scope: 'family',
    of: family,
    limits: plug(more),
    source: `${document}, page ${page}, revision ${documentRevision}`,
    document,
    page,
    documentRevision,
    status: 'approved',
  };
};

export const SHELF: readonly DemoEntry[] = [
  ofFamily('L4-20', '14', 'C'),
  ofFamily('L5-27', '9', 'B'),
  ofFamily('L6-109', '31', 'A', { lower: 0.8, upper: 2.4, watchUpper: 2.2 }),
  ofFamily('V8-61', '22', 'D'),
  {
    key: ['school', 'strict'],
    test: PLUG,
    scope: 'general',
    school: 'strict',
    limits: plug({ lower: 0.6, upper: 0.8, watchUpper: 0.75 }),
    source: 'Strict school, common practice',
    status: 'approved',
  },
  {
    key: ['school', 'tolerant'],
    test: PLUG,
    scope: 'general',
    school: 'tolerant',
    limits: plug({ upper: 1.5, watchUpper: 1 }),
    source: 'Tolerant school, common practice',
    status: 'approved',
  },
  {
    key: ['L4-20', 'transfer'],
    test: 'sensor-transfer',
    scope: 'family',
    of: 'L4-20',
    source: 'Levels Board service sheet LB-20, page 40, revision C',
    document: 'Levels Board service sheet LB-20',
    page: '40',
    documentRevision: 'C',
    status: 'approved',
    limits: {
      quantity: 'voltage',
      unit: 'V',
      steadyWithin: 0.02,
      tolerance: { absolute: 0.05, percentOfExpected: 2 },
      transfer: {
        kind: 'ratiometric',
        stimulus: { quantity: 'pressure', unit: 'kPa' },
        supply_V: 5,
        low: { at: 0, ratio: 0.1 },
        high: { at: 250, ratio: 0.9 },
      },
    },
  },
  {
    key: ['L5-27', 'current'],
    test: 'glow-plug-current',
    scope: 'family',
    of: 'L5-27',
    source: 'Depot notes, winter 2025',
    status: 'draft',
    limits: { quantity: 'current', unit: 'A', lower: 9, upper: 20, neighbours: { maxDifference: 3 } },
  },
  {
    key: ['North Sluice', 'drop'],
    test: 'voltage-drop',
    scope: 'depot',
    of: 'North Sluice',
    source: 'North Sluice rule 4, 2024',
    status: 'approved',
    limits: {
      quantity: 'voltage',
      unit: 'V',
      upper: 0.4,
      watchUpper: 0.2,
      byPosition: { ground: { upper: 0.2, watchUpper: 0.1 } },
    },
  },
];

/** Which school a depot has picked. */
export const SCHOOLS: readonly (readonly [string, string, string])[] = [
  ['North Sluice', PLUG, 'strict'],
  ['Quay Yard', PLUG, 'tolerant'],
];

const pins = findTest('harness-pins') as TestDefinition;

/** A test that the depots have made of one that ships. */
export const OWN_TESTS: readonly TestDefinition[] = [
  {
    ...pins,
    id: 'harness-pins-v8-61',
    name: 'V8-61 cover connector, pin by pin',
    purpose: 'Rings out the nine pins of the cover connector of the V8-61; pin 9 is the common.',
    positions: ['pin 1', 'pin 2', 'pin 3', 'pin 4', 'pin 5', 'pin 6', 'pin 7', 'pin 8', 'pin 9 (common)'],
    groups: { 'left side': ['pin 1', 'pin 3', 'pin 5', 'pin 7'], 'right side': ['pin 2', 'pin 4', 'pin 6', 'pin 8'] },
  },
];

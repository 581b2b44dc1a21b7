import { v5 } from 'uuid';
import type { Engine } from '../../core/engine/layout';
import type { Result } from '../../core/foundation/result';
import type { AccuracyRange } from '../../core/metrology/instrument';
import type { ProblemDetails } from '../../formats/problem';
import type { SpecificationEntry } from '../../formats/specifications';
import type { Db } from '../db/connection';
import { addDepot } from '../fleet/depots';
import { addEngineFamily, addUnit, chooseDepot } from '../fleet/fleet';
import { addInstrument } from '../instruments/instruments';
import { addPerson } from '../people/people';
import type { Actor } from '../policy/actor';
import { recordSpecification } from '../specifications/specifications';

/**
 * The small workshop that the server's tests run on: two depots of the invented board, its people and units,
 * their meters and a few limits, and nothing that was ever measured. It is not the demo, which may change
 * without a test of the server knowing.
 */

const NAMESPACE = '0a7f5f6b-7a3e-5c0e-9d0f-2d7f0c1b6a43';

/** The id of what has this name: `workshopId('unit', 'PL-14')`. */
export const workshopId = (...name: readonly string[]): string => v5(name.join('/'), NAMESPACE);

const DEPOTS = ['North Sluice', 'Quay Yard'] as const;
const WORKSHOP_PIN = '604913';

/** `depot` null: works for both. */
const PEOPLE = [
  { name: 'Ines Varga', role: 'technician', depot: null },
  { name: 'Tobin Marsh', role: 'technician', depot: 'Quay Yard' },
  { name: 'Jory Thane', role: 'technician', depot: 'North Sluice' },
  { name: 'Odile Brandt', role: 'lead', depot: null },
  { name: 'Runa Teller', role: 'lead', depot: 'Quay Yard' },
  { name: 'Pavel Osei', role: 'viewer', depot: null },
] as const;
const LEAD = 'Odile Brandt';

const inline = (systemVoltage_V: number, ...firingOrder: number[]): Engine => ({
  layout: 'inline',
  cylinders: firingOrder.length,
  firingOrder,
  systemVoltage_V,
  numbering: { scheme: 'sequential', from: 'front' },
});
const FAMILIES: Readonly<Record<string, Engine>> = {
  'L3-11': inline(12, 1, 2, 3),
  'L4-20': inline(12, 1, 3, 4, 2),
  'L5-27': inline(12, 1, 2, 4, 5, 3),
  'L6-109': inline(24, 1, 5, 3, 6, 2, 4),
  'V8-61': {
    layout: 'vee',
    cylinders: 8,
    firingOrder: [1, 2, 7, 8, 4, 5, 6, 3],
    systemVoltage_V: 12,
    numbering: { scheme: 'odd-even', from: 'front', firstBank: 'left' },
  },
};

/** Fleet number, family, depot. */
const UNITS = [
  ['PL-03', 'L6-109', 'North Sluice'],
  ['PL-08', 'L4-20', 'North Sluice'],
  ['PL-11', 'L5-27', 'Quay Yard'],
  ['PL-14', 'L4-20', 'Quay Yard'],
  ['PL-16', 'L4-20', 'North Sluice'],
  ['PL-19', 'L6-109', 'North Sluice'],
  ['PL-22', 'L3-11', 'Quay Yard'],
  ['PL-23', 'V8-61', 'North Sluice'],
  ['PL-27', 'L6-109', 'Quay Yard'],
  ['PL-30', 'L6-109', 'North Sluice'],
] as const;

const ohms = (upTo: number, resolution: number): AccuracyRange => ({
  quantity: 'resistance',
  upTo,
  resolution,
  percentOfReading: 0.8,
  counts: 3,
});
/** Name, and how finely it reads below 200 ohm. */
const METERS = [
  ['Yard meter 2', 0.1],
  ['Bench meter 1', 0.01],
] as const;

const PLUG = 'glow-plug-resistance';
const plugs = (lower: number, upper: number): SpecificationEntry['limits'] => ({
  quantity: 'resistance',
  unit: 'ohm',
  lower,
  upper,
  watchUpper: 0.9 * upper,
  shortBelow: 0.05,
  openAbove: 10_000,
  steadyWithin: 0.1,
  neighbours: { maxRatio: 2.5 },
});
const school = (name: string, lower: number, upper: number): SpecificationEntry => ({
  test: PLUG,
  scope: 'general',
  school: name,
  limits: plugs(lower, upper),
  source: `School “${name}”`,
  status: 'approved',
});
const ofFamily = (of: string, lower: number, upper: number): SpecificationEntry => ({
  test: PLUG,
  scope: 'family',
  of,
  limits: plugs(lower, upper),
  source: `Service sheet of the ${of}`,
  status: 'approved',
});
const LIMITS: readonly SpecificationEntry[] = [
  ofFamily('L4-20', 0.3, 1),
  ofFamily('L5-27', 0.3, 1),
  ofFamily('L6-109', 0.8, 2.4),
  ofFamily('V8-61', 0.3, 1),
  school('strict', 0.6, 0.8),
  school('tolerant', 0.3, 1.5),
  {
    test: 'voltage-drop',
    scope: 'depot',
    of: 'North Sluice',
    source: 'Rule 4 of the depot',
    status: 'approved',
    limits: { quantity: 'voltage', unit: 'V', upper: 0.4, byPosition: { ground: { upper: 0.2 } } },
  },
];
const SCHOOLS = { 'North Sluice': 'strict', 'Quay Yard': 'tolerant' } as const;

/** A person of the workshop, as whoever acts. */
export function workshopActor(name: string): Actor {
  const found = PEOPLE.find((p) => p.name === name);
  if (!found) throw new Error(`the workshop has no person ${name}`);
  const depotId = found.depot === null ? null : workshopId('depot', found.depot);
  return { id: workshopId('person', name), name, role: found.role, depotId };
}

async function must(command: Promise<Result<unknown, ProblemDetails>>): Promise<void> {
  const result = await command;
  if (!result.ok) throw new Error(`the workshop of the tests: ${result.error.detail}`);
}

/** Fills an empty database through the same commands as a user's data. */
export async function loadWorkshop(db: Db): Promise<void> {
  for (const name of DEPOTS) await must(addDepot(db, { id: workshopId('depot', name), name, timeZone: 'Etc/UTC' }));
  for (const { name, role, depot } of PEOPLE) {
    const depotId = depot === null ? null : workshopId('depot', depot);
    await must(addPerson(db, { id: workshopId('person', name), depotId, name, role, pin: WORKSHOP_PIN }));
  }
  for (const [code, engine] of Object.entries(FAMILIES))
    await must(addEngineFamily(db, { id: workshopId('family', code), code, engine }));
  for (const [fleetNumber, family, depot] of UNITS)
    await must(
      addUnit(db, {
        id: workshopId('unit', fleetNumber),
        depotId: workshopId('depot', depot),
        engineFamilyId: workshopId('family', family),
        fleetNumber,
        kind: 'Tipper',
      }),
    );
  await loadMeters(db);
  for (const [i, entry] of LIMITS.entries())
    await must(recordSpecification(db, { id: workshopId('limits', String(i)), by: LEAD, entry }, workshopActor(LEAD)));
  for (const depot of DEPOTS)
    await must(chooseDepot(db, workshopId('depot', depot), { by: LEAD, school: { test: PLUG, name: SCHOOLS[depot] } }));
}

async function loadMeters(db: Db): Promise<void> {
  for (const depot of DEPOTS)
    for (const [name, resolution] of METERS)
      await must(
        addInstrument(db, {
          id: workshopId('instrument', depot, name),
          depotId: workshopId('depot', depot),
          name,
          by: LEAD,
          calibrationDue: '2099-12-31',
          instrument: {
            kind: 'multimeter',
            leadRepeatability_ohm: 0.02,
            accuracy: [ohms(200, resolution), ohms(20_000, 10), ohms(2_000_000, 1000)],
          },
        }),
      );
}

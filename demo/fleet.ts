import type { Engine } from '../core/engine/layout';
import type { Limits } from '../core/judge/types';
import type { AccuracyRange } from '../core/metrology/instrument';

/** The invented Pellmarsh Levels Board. No number here is the specification of a real engine. */

export const DEPOTS = ['North Sluice', 'Quay Yard'] as const;
export const TIME_ZONE = 'Etc/UTC';

export const PERSONS = [
  { name: 'Ines Varga', role: 'technician', depot: 'North Sluice' },
  { name: 'Tobin Marsh', role: 'technician', depot: 'Quay Yard' },
  { name: 'Odile Brandt', role: 'lead', depot: 'North Sluice' },
  { name: 'Pavel Osei', role: 'viewer', depot: 'Quay Yard' },
] as const;

const inline = (cylinders: number, firingOrder: number[], systemVoltage_V: number): Engine => ({
  layout: 'inline', cylinders, firingOrder, systemVoltage_V, numbering: { scheme: 'sequential', from: 'front' },
});

export const FAMILIES: Readonly<Record<string, Engine>> = {
  'L3-11': inline(3, [1, 2, 3], 12),
  'L4-20': inline(4, [1, 3, 4, 2], 12),
  'L5-27': inline(5, [1, 2, 4, 5, 3], 12),
  'L6-109': inline(6, [1, 5, 3, 6, 2, 4], 24),
  'V8-61': {
    layout: 'vee', cylinders: 8, firingOrder: [1, 2, 7, 8, 4, 5, 6, 3], systemVoltage_V: 12,
    numbering: { scheme: 'odd-even', from: 'front', firstBank: 'left' },
  },
};

export const UNITS = [
  { fleetNumber: 'PL-03', kind: 'Tipper', family: 'L6-109', depot: 'North Sluice' },
  { fleetNumber: 'PL-07', kind: 'Weed cutter', family: 'V8-61', depot: 'North Sluice' },
  { fleetNumber: 'PL-08', kind: 'Weed cutter', family: 'L4-20', depot: 'North Sluice' },
  { fleetNumber: 'PL-11', kind: 'Gritter', family: 'L5-27', depot: 'Quay Yard' },
  { fleetNumber: 'PL-14', kind: 'Tipper', family: 'L4-20', depot: 'Quay Yard' },
  { fleetNumber: 'PL-19', kind: 'Tracked excavator', family: 'L6-109', depot: 'North Sluice' },
  { fleetNumber: 'PL-22', kind: 'Standby pump', family: 'L3-11', depot: 'Quay Yard' },
  { fleetNumber: 'PL-23', kind: 'Standby pump', family: 'V8-61', depot: 'North Sluice' },
] as const;

const range = (upTo: number, resolution: number): AccuracyRange => ({ quantity: 'resistance', upTo, percentOfReading: 0.8, counts: 3, resolution });

export const INSTRUMENTS = [
  { name: 'Yard meter 2', kind: 'multimeter', accuracy: [range(200, 0.1), range(2e3, 1), range(20e3, 10), range(200e3, 100), range(2e6, 1e3)], calibrationDue: '2027-03-31' },
  {
    name: 'Bench meter 1', kind: 'multimeter', calibrationDue: '2027-06-30',
    accuracy: [{ ...range(60, 0.01), percentOfReading: 0.4 }, { ...range(600, 0.1), percentOfReading: 0.4 }, { ...range(6e3, 1), percentOfReading: 0.4 }],
  },
] as const;

const plug = (more: Partial<Limits>): Limits => ({
  quantity: 'resistance', unit: 'ohm', lower: 0.3, upper: 1, watchUpper: 0.9, shortBelow: 0.05, openAbove: 10000, steadyWithin: 0.1,
  neighbours: { maxRatio: 2.5 }, referenceTemperature_degC: 20, ...more,
});

const PLUG = 'glow-plug-resistance';

export const SPECIFICATIONS = [
  { test: PLUG, family: null, limits: plug({ upper: 1.5, watchUpper: 1 }), source: 'Rule of thumb: 0.3 to 1.5 ohm cold', status: 'rule-of-thumb' },
  { test: PLUG, family: 'L4-20', limits: plug({}), source: 'Levels Board service sheet LB-20, page 14, revision C', status: 'approved' },
  { test: PLUG, family: 'L5-27', limits: plug({}), source: 'Levels Board service sheet LB-27, page 9, revision B', status: 'approved' },
  { test: PLUG, family: 'L6-109', limits: plug({ lower: 0.8, upper: 2.4, watchUpper: 2.2 }), source: 'Levels Board service sheet LB-109, page 31, revision A', status: 'approved' },
  { test: PLUG, family: 'V8-61', limits: plug({}), source: 'Levels Board service sheet LB-61, page 22, revision D', status: 'approved' },
] as const;

export interface DemoJob {
  readonly unit: string;
  readonly complaint: string;
  readonly hours: number;
  readonly by: string;
  readonly meter: string | null;
  readonly leadZero: string | null;
  readonly states: readonly string[];
  readonly partTemperature_degC: number;
  /** Default: glow plug resistance. */
  readonly test?: string;
  /** A further run in the job of the unit that stands before it. */
  readonly further?: boolean;
  /** Position and entry in the order in which they were read; a position named again is a correction. */
  readonly readings: readonly (readonly [number | string, string, string?])[];
}

const ALL_STATES = ['key-off', 'leads-off', 'same-temperature', 'meter-battery'] as const;
const set = (...entries: string[]) => entries.map((entry, i) => [i + 1, entry] as const);

export const JOBS: readonly DemoJob[] = [
  { unit: 'PL-03', complaint: 'Winter check before the gritting season, no complaint', hours: 8120, by: 'Ines Varga', meter: 'Yard meter 2', leadZero: '0.2', states: ALL_STATES, partTemperature_degC: 12, readings: set('1.6', '1.6', '1.7', '1.6', '1.5', '1.6') },
  { unit: 'PL-14', complaint: 'Starts on three when cold, clears after a minute', hours: 4310, by: 'Tobin Marsh', meter: 'Yard meter 2', leadZero: '0.2', states: ALL_STATES, partTemperature_degC: 9, readings: set('0.7', '0.8', '201', '0.7') },
  { unit: 'PL-11', complaint: 'Long cranking, white smoke; two plugs fitted last spring', hours: 5270, by: 'Tobin Marsh', meter: 'Yard meter 2', leadZero: '0.3', states: ALL_STATES, partTemperature_degC: 11, readings: set('3.4', 'OL', '0.9', '201', '1k2') },
  { unit: 'PL-07', complaint: 'Hard cold start, white smoke on one side', hours: 6420, by: 'Ines Varga', meter: 'Yard meter 2', leadZero: '0.2', states: ALL_STATES, partTemperature_degC: 9, readings: set('0.6', 'OL', '0.7', 'OL', '0.6', 'OL', '0.8', 'OL') },
  { unit: 'PL-08', complaint: 'Rough for half a minute after a cold start', hours: 2955, by: 'Ines Varga', meter: 'Yard meter 2', leadZero: '0.2', states: ALL_STATES, partTemperature_degC: 14, readings: set('1.2', '0.9', '1.2', '0.8') },
  { unit: 'PL-22', complaint: 'Monthly readiness run: slow to fire', hours: 611, by: 'Tobin Marsh', meter: 'Yard meter 2', leadZero: null, states: ['key-off', 'leads-off'], partTemperature_degC: 10, readings: set('1.7', '1.8', '1.7') },
  {
    unit: 'PL-23', complaint: 'Misfire code on two cylinders, cold', hours: 902, by: 'Ines Varga', meter: 'Yard meter 2', leadZero: '0.2', states: ALL_STATES, partTemperature_degC: 9,
    readings: [[1, '0.6'], [2, '0.8'], [3, '7'], [3, '0.7', 'point left out'], [4, 'OL'], [5, '201'], [6, '0.5~1.4'], [7, '0.6']],
  },
  {
    unit: 'PL-14', test: 'glow-plug-through-harness', further: true, complaint: 'Starts on three when cold, clears after a minute', hours: 4310, by: 'Tobin Marsh', meter: 'Yard meter 2', leadZero: '0.2',
    states: ['key-off', 'unplugged', 'meter-battery'], partTemperature_degC: 9, readings: set('1.1', '1.2', '202', '1.1'),
  },
  {
    unit: 'PL-19', test: 'injector-module-supply', complaint: 'Runs rough below freezing, clears when warm', hours: 3180, by: 'Ines Varga', meter: 'Yard meter 2', leadZero: null,
    states: ['battery-charged', 'plugged-in'], partTemperature_degC: 4,
    readings: [['key on', '48.1'], ['self-test buzz', '47.4'], ['cranking', '45.6'], ['idle', '47.0'], ['raised idle (cold)', '43.8']],
  },
];

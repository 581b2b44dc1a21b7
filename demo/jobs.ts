import type { Phase } from '../core/codes/phases';

/** Jobs of the invented fleet with their runs. All made up. */
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
  /** Which visit of the unit; default: its only one. */
  readonly visit?: string;
  /** A further run in the job of the unit that stands before it. */
  readonly further?: boolean;
  /** Position and entry in the order in which they were read; a position named again is a correction. */
  readonly readings: readonly (readonly [number | string, string, string?])[];
}

const ALL_STATES = ['key-off', 'leads-off', 'same-temperature', 'meter-battery'] as const;
const set = (...entries: string[]) => entries.map((entry, i) => [i + 1, entry] as const);

export const JOBS: readonly DemoJob[] = [
  {
    unit: 'PL-03',
    complaint: 'Winter check before the gritting season, no complaint',
    hours: 8120,
    by: 'Ines Varga',
    meter: 'Yard meter 2',
    leadZero: '0.2',
    states: ALL_STATES,
    partTemperature_degC: 12,
    readings: set('1.6', '1.6', '1.7', '1.6', '1.5', '1.6'),
  },
  {
    unit: 'PL-14',
    complaint: 'Starts on three when cold, clears after a minute',
    hours: 4310,
    by: 'Tobin Marsh',
    meter: 'Yard meter 2',
    leadZero: '0.2',
    states: ALL_STATES,
    partTemperature_degC: 9,
    readings: set('0.7', '0.8', '201', '0.7'),
  },
  {
    unit: 'PL-11',
    complaint: 'Long cranking, white smoke; two plugs fitted last spring',
    hours: 5270,
    by: 'Tobin Marsh',
    meter: 'Yard meter 2',
    leadZero: '0.3',
    states: ALL_STATES,
    partTemperature_degC: 11,
    readings: set('3.4', 'OL', '0.9', '201', '1k2'),
  },
  {
    unit: 'PL-07',
    complaint: 'Hard cold start, white smoke on one side',
    hours: 6420,
    by: 'Ines Varga',
    meter: 'Yard meter 2',
    leadZero: '0.2',
    states: ALL_STATES,
    partTemperature_degC: 9,
    readings: set('0.6', 'OL', '0.7', 'OL', '0.6', 'OL', '0.8', 'OL'),
  },
  {
    unit: 'PL-08',
    complaint: 'Rough for half a minute after a cold start',
    hours: 2955,
    by: 'Ines Varga',
    meter: 'Yard meter 2',
    leadZero: '0.2',
    states: ALL_STATES,
    partTemperature_degC: 14,
    readings: set('1.2', '0.9', '1.2', '0.8'),
  },
  {
    unit: 'PL-22',
    complaint: 'Monthly readiness run: slow to fire',
    hours: 611,
    by: 'Tobin Marsh',
    meter: 'Yard meter 2',
    leadZero: null,
    states: ['key-off', 'leads-off'],
    partTemperature_degC: 10,
    readings: set('1.7', '1.8', '1.7'),
  },
  {
    unit: 'PL-23',
    complaint: 'Misfire code on two cylinders, cold',
    hours: 902,
    by: 'Ines Varga',
    meter: 'Yard meter 2',
    leadZero: '0.2',
    states: ALL_STATES,
    partTemperature_degC: 9,
    readings: [
      [1, '0.6'],
      [2, '0.8'],
      [3, '7'],
      [3, '0.7', 'point left out'],
      [4, 'OL'],
      [5, '201'],
      [6, '0.5~1.4'],
      [7, '0.6'],
    ],
  },
  {
    unit: 'PL-14',
    test: 'glow-plug-through-harness',
    further: true,
    complaint: 'Starts on three when cold, clears after a minute',
    hours: 4310,
    by: 'Tobin Marsh',
    meter: 'Yard meter 2',
    leadZero: '0.2',
    states: ['key-off', 'unplugged', 'meter-battery'],
    partTemperature_degC: 9,
    readings: set('1.1', '1.2', '202', '1.1'),
  },
  {
    unit: 'PL-19',
    test: 'injector-module-supply',
    complaint: 'Runs rough below freezing, clears when warm',
    hours: 3180,
    by: 'Ines Varga',
    meter: 'Yard meter 2',
    leadZero: null,
    states: ['battery-charged', 'plugged-in'],
    partTemperature_degC: 4,
    readings: [
      ['key on', '48.1'],
      ['self-test buzz', '47.4'],
      ['cranking', '45.6'],
      ['idle', '47.0'],
      ['raised idle (cold)', '43.8'],
    ],
  },
  {
    unit: 'PL-19',
    test: 'battery-cranking',
    further: true,
    complaint: '',
    hours: 3180,
    by: 'Ines Varga',
    meter: 'Yard meter 2',
    leadZero: null,
    states: ['meter-proven', 'battery-charged'],
    partTemperature_degC: 4,
    readings: [
      ['at rest', '25.4'],
      ['cranking', '20.8'],
      ['after', '25.1'],
    ],
  },
  {
    unit: 'PL-11',
    test: 'glow-plug-current',
    further: true,
    complaint: '',
    hours: 5270,
    by: 'Tobin Marsh',
    meter: 'Clamp 4',
    leadZero: '2 mV',
    states: ['battery-charged', 'command-on', 'clamp-zeroed'],
    partTemperature_degC: 11,
    readings: [
      [1, '35 mV'],
      [2, '2 mV'],
      [3, '131 mV'],
      [4, '3 mV'],
      [5, '2 mV'],
    ],
  },
  {
    unit: 'PL-07',
    test: 'injector-self-test',
    further: true,
    complaint: '',
    hours: 6420,
    by: 'Ines Varga',
    meter: null,
    leadZero: null,
    states: ['key-on', 'battery-charged'],
    partTemperature_degC: 9,
    readings: set('pass', 'pass', 'pass', 'pass', 'pass', 'fail no click', 'pass', 'pass'),
  },
  {
    unit: 'PL-08',
    test: 'sensor-transfer',
    further: true,
    complaint: '',
    hours: 2955,
    by: 'Ines Varga',
    meter: 'Yard meter 2',
    leadZero: null,
    states: ['meter-proven', 'key-on', 'plugged-in'],
    partTemperature_degC: 14,
    readings: [
      ['at rest', '0.51 @ 0 kPa'],
      ['low', '1.14 @ 40 kPa'],
      ['middle', '1.62 @ 100 kPa'],
      ['high', '1.70 @ 180 kPa'],
    ],
  },
  {
    unit: 'PL-22',
    test: 'position-sweep',
    further: true,
    complaint: '',
    hours: 611,
    by: 'Tobin Marsh',
    meter: 'Yard meter 2',
    leadZero: null,
    states: ['meter-proven', 'key-on', 'plugged-in'],
    partTemperature_degC: 10,
    readings: [
      ['0 %', '0.52'],
      ['20 %', '1.38'],
      ['40 %', '2.20'],
      ['60 %', '1.95'],
      ['80 %', '3.85'],
      ['100 %', '4.61'],
    ],
  },
  {
    unit: 'PL-16',
    visit: 'last winter',
    complaint: 'Glow plug lamp, starts rough when cold',
    hours: 3790,
    by: 'Jory Thane',
    meter: 'Yard meter 2',
    leadZero: '0.2',
    states: ALL_STATES,
    partTemperature_degC: 6,
    readings: set('0.7', '0.8', '0.7', 'OL'),
  },
  {
    unit: 'PL-16',
    complaint: 'Glow plug lamp again, rough when cold',
    hours: 4120,
    by: 'Jory Thane',
    meter: 'Yard meter 2',
    leadZero: '0.2',
    states: ALL_STATES,
    partTemperature_degC: 7,
    readings: set('0.7', '0.8', '0.7', '0.7'),
  },
  {
    unit: 'PL-16',
    test: 'glow-plug-through-harness',
    further: true,
    complaint: '',
    hours: 4120,
    by: 'Jory Thane',
    meter: 'Yard meter 2',
    leadZero: '0.2',
    states: ['key-off', 'unplugged', 'meter-battery'],
    partTemperature_degC: 7,
    readings: set('1.0', '1.1', '1.0', '6.4'),
  },
  {
    unit: 'PL-27',
    complaint: 'Misfires under load, worse in the wet; six injectors fitted elsewhere in spring',
    hours: 9340,
    by: 'Tobin Marsh',
    meter: 'Yard meter 2',
    leadZero: '0.2',
    test: 'injector-resistance',
    states: ['key-off', 'unplugged', 'same-temperature', 'meter-battery'],
    partTemperature_degC: 18,
    readings: set('0.6', '0.6', '0.6', '0.6', '1.9', '0.6'),
  },
  {
    unit: 'PL-30',
    complaint: 'Dies on the long hill when hot, starts again after ten minutes',
    hours: 7015,
    by: 'Ines Varga',
    meter: 'Yard meter 2',
    leadZero: '0.2',
    test: 'position-sensor-primary',
    states: ['key-off', 'unplugged', 'meter-battery'],
    partTemperature_degC: 21,
    readings: [['primary', '98']],
  },
];

export interface DemoCodes {
  readonly unit: string;
  readonly visit?: string;
  readonly phase: Phase;
  readonly status: 'active' | 'stored' | 'intermittent' | 'unknown';
  /** Empty: somebody looked and there was none. */
  readonly codes: readonly string[];
}

export const CODES: readonly DemoCodes[] = [
  { unit: 'PL-14', phase: 'as-found', status: 'stored', codes: ['P0673', 'P0380'] },
  { unit: 'PL-14', phase: 'after-clearing', status: 'active', codes: ['P0673'] },
  { unit: 'PL-23', phase: 'as-found', status: 'active', codes: ['P0304', 'P0305', 'SPN 676 FMI 5'] },
  { unit: 'PL-19', phase: 'as-found', status: 'intermittent', codes: ['P0611', 'P2146'] },
  { unit: 'PL-08', phase: 'as-found', status: 'stored', codes: ['P0471'] },
  { unit: 'PL-08', phase: 'caused-by-testing', status: 'active', codes: ['P0473'] },
  { unit: 'PL-03', phase: 'as-found', status: 'unknown', codes: [] },
  { unit: 'PL-16', visit: 'last winter', phase: 'as-found', status: 'active', codes: ['P0674'] },
  { unit: 'PL-16', phase: 'as-found', status: 'active', codes: ['P0674', 'P1604'] },
  { unit: 'PL-27', phase: 'as-found', status: 'intermittent', codes: ['P0303', 'P0203'] },
  { unit: 'PL-30', phase: 'as-found', status: 'unknown', codes: [] },
];

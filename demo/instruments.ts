import type { AccuracyRange } from '../core/metrology/instrument';
import type { InstrumentDocument } from '../formats/instrument';

/** What the invented depots measure with. */
const ohms = (upTo: number, resolution: number, percentOfReading = 0.8, counts = 3): AccuracyRange => ({
  quantity: 'resistance',
  upTo,
  percentOfReading,
  counts,
  resolution,
});
const volts = (upTo: number, resolution: number): AccuracyRange => ({
  quantity: 'voltage',
  upTo,
  percentOfReading: 0.5,
  counts: 2,
  resolution,
});

export const INSTRUMENTS: readonly (InstrumentDocument & { readonly name: string; readonly calibrationDue: string })[] =
  [
    {
      name: 'Yard meter 2',
      kind: 'multimeter',
      calibrationDue: '2027-03-31',
      leadRepeatability_ohm: 0.02,
      accuracy: [
        ohms(200, 0.1),
        ohms(2e3, 1),
        ohms(20e3, 10),
        ohms(200e3, 100),
        ohms(2e6, 1e3),
        volts(2, 0.001),
        volts(20, 0.01),
        volts(200, 0.1),
      ],
    },
    {
      name: 'Bench meter 1',
      kind: 'multimeter',
      calibrationDue: '2027-06-30',
      leadRepeatability_ohm: 0.01,
      accuracy: [
        ohms(60, 0.01, 0.4),
        ohms(600, 0.1, 0.4),
        ohms(6e3, 1, 0.4),
        ohms(60e3, 10, 0.4),
        ohms(600e3, 100, 0.4),
        volts(6, 0.001),
        volts(60, 0.01),
      ],
    },
    {
      name: 'Clamp 4',
      kind: 'clamp',
      calibrationDue: '2026-10-15',
      clamp_mVperA: 10,
      accuracy: [
        { quantity: 'current', upTo: 60, percentOfReading: 2, counts: 3, resolution: 0.1 },
        { quantity: 'current', upTo: 600, percentOfReading: 2, counts: 5, resolution: 1 },
      ],
    },
    {
      name: 'Gauge 10 bar',
      kind: 'gauge',
      calibrationDue: '2027-01-31',
      accuracy: [{ quantity: 'pressure', upTo: 1e6, percentOfReading: 0, counts: 1, resolution: 1e4 }],
    },
  ];

export const TEST_LEADS: readonly (readonly [string, string])[] = [
  ['Short leads', '0.2'],
  ['Leads with 5 m extension', '0.5'],
];

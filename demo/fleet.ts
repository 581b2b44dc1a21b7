import type { Engine } from '../core/engine/layout';

/** The invented Pellmarsh Levels Board. No number here is the specification of a real engine. */

/** Whose workshop it is: invented, like everything here. */
export const BOARD = 'Pellmarsh Levels Board';
export const DEPOTS = ['North Sluice', 'Quay Yard'] as const;
export const TIME_ZONE = 'Etc/UTC';

/** `depot` null: works for both. */
export const PERSONS = [
  { name: 'Ines Varga', role: 'technician', depot: null },
  { name: 'Tobin Marsh', role: 'technician', depot: 'Quay Yard' },
  { name: 'Jory Thane', role: 'technician', depot: 'North Sluice' },
  { name: 'Odile Brandt', role: 'lead', depot: null },
  { name: 'Runa Teller', role: 'lead', depot: 'Quay Yard' },
  { name: 'Pavel Osei', role: 'viewer', depot: null },
] as const;

/** What all of them sign in with; the start scripts name it, so that the sign-in page can show it. */
export const DEMO_PIN = process.env.MUDFLAT_DEMO_PIN ?? '471147';

const inline = (cylinders: number, firingOrder: number[], systemVoltage_V: number): Engine => ({
  layout: 'inline',
  cylinders,
  firingOrder,
  systemVoltage_V,
  numbering: { scheme: 'sequential', from: 'front' },
});

export const FAMILIES: Readonly<Record<string, Engine>> = {
  'L3-11': inline(3, [1, 2, 3], 12),
  'L4-20': inline(4, [1, 3, 4, 2], 12),
  'L5-27': inline(5, [1, 2, 4, 5, 3], 12),
  'L6-109': inline(6, [1, 5, 3, 6, 2, 4], 24),
  'V8-61': {
    layout: 'vee',
    cylinders: 8,
    firingOrder: [1, 2, 7, 8, 4, 5, 6, 3],
    systemVoltage_V: 12,
    numbering: { scheme: 'odd-even', from: 'front', firstBank: 'left' },
  },
};

export const UNITS = [
  { fleetNumber: 'PL-03', kind: 'Tipper', family: 'L6-109', depot: 'North Sluice' },
  { fleetNumber: 'PL-07', kind: 'Weed cutter', family: 'V8-61', depot: 'North Sluice' },
  { fleetNumber: 'PL-08', kind: 'Weed cutter', family: 'L4-20', depot: 'North Sluice' },
  { fleetNumber: 'PL-11', kind: 'Gritter', family: 'L5-27', depot: 'Quay Yard' },
  { fleetNumber: 'PL-14', kind: 'Tipper', family: 'L4-20', depot: 'Quay Yard' },
  { fleetNumber: 'PL-16', kind: 'Gritter', family: 'L4-20', depot: 'North Sluice' },
  { fleetNumber: 'PL-19', kind: 'Tracked excavator', family: 'L6-109', depot: 'North Sluice' },
  { fleetNumber: 'PL-22', kind: 'Standby pump', family: 'L3-11', depot: 'Quay Yard' },
  { fleetNumber: 'PL-23', kind: 'Standby pump', family: 'V8-61', depot: 'North Sluice' },
  { fleetNumber: 'PL-27', kind: 'Tipper', family: 'L6-109', depot: 'Quay Yard' },
  { fleetNumber: 'PL-30', kind: 'Tipper', family: 'L6-109', depot: 'North Sluice' },
] as const;

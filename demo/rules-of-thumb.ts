import type { Limits } from '../core/judge/types';

/**
 * General limits where an engine family has none of its own: common practice, no source. The bench labels them as rules of thumb and asks
 * for the maker's own. Those that hang on the system voltage are per family.
 */
const ohm = (limits: Partial<Limits>): Limits => ({ quantity: 'resistance', unit: 'ohm', ...limits });
const volt = (limits: Partial<Limits>): Limits => ({ quantity: 'voltage', unit: 'V', ...limits });

export const GENERAL: Readonly<Record<string, Limits>> = {
  'glow-plug-through-harness': ohm({ lower: 0.3, upper: 2.5, watchUpper: 2, shortBelow: 0.05, openAbove: 1e4, neighbours: { maxRatio: 2.5 } }),
  'glow-plug-current': { quantity: 'current', unit: 'A', lower: 8, upper: 30, neighbours: { maxDifference: 3 } },
  'harness-ring-out': ohm({ upper: 2, watchUpper: 1, openAbove: 1e4, steadyWithin: 0.1 }),
  'injector-resistance': ohm({ lower: 0.2, upper: 10, shortBelow: 0.05, openAbove: 1e4, neighbours: { maxRatio: 1.3 } }),
  'injector-insulation': ohm({ lower: 1e6, shortBelow: 100 }),
  'injector-module-supply': volt({ lower: 45, watchLower: 46 }),
  'sensor-reference': volt({ lower: 4.75, upper: 5.25, watchLower: 4.9, watchUpper: 5.1, steadyWithin: 0.05 }),
  'sensor-ground': volt({ lower: -0.1, upper: 0.1, watchUpper: 0.05, steadyWithin: 0.02 }),
  'position-sensor-primary': ohm({ lower: 75, upper: 150, openAbove: 1e5, shortBelow: 5, steadyWithin: 2 }),
  'position-sensor-secondary': ohm({ lower: 600, upper: 1800, openAbove: 1e5, shortBelow: 20, steadyWithin: 20 }),
  'vane-actuator-coil': ohm({ lower: 3.4, upper: 5, shortBelow: 0.5, openAbove: 1e4 }),
  'low-side-driver': ohm({ lower: 60e3, upper: 86e3, recheckMargin: 0.2, shortBelow: 1000, openAbove: 1e6 }),
};

/** By system voltage. */
export const BY_SYSTEM: Readonly<Record<12 | 24, Readonly<Record<string, Limits>>>> = {
  12: { 'battery-at-rest': volt({ lower: 12.4, watchLower: 12.6, upper: 13.2 }), 'glow-feed-voltage': volt({ lower: 11, upper: 15 }) },
  24: { 'battery-at-rest': volt({ lower: 24.8, watchLower: 25.2, upper: 26.4 }), 'glow-feed-voltage': volt({ lower: 22, upper: 30 }) },
};

/** Failure mode identifiers after SAE J1939-73, appendix A; from memory. 22 to 30 are reserved. */
export const FMI: Readonly<Record<number, string>> = {
  0: 'above normal, most severe',
  1: 'below normal, most severe',
  2: 'erratic, intermittent or incorrect',
  3: 'voltage above normal, or shorted to high source',
  4: 'voltage below normal, or shorted to low source',
  5: 'current below normal, or open circuit',
  6: 'current above normal, or grounded circuit',
  7: 'mechanical system not responding or out of adjustment',
  8: 'abnormal frequency, pulse width or period',
  9: 'abnormal update rate',
  10: 'abnormal rate of change',
  11: 'root cause not known',
  12: 'bad device or component',
  13: 'out of calibration',
  14: 'special instructions',
  15: 'above normal, least severe',
  16: 'above normal, moderately severe',
  17: 'below normal, least severe',
  18: 'below normal, moderately severe',
  19: 'received network data in error',
  20: 'data drifted high',
  21: 'data drifted low',
  31: 'condition exists',
};

export interface Suspect {
  readonly system: string;
  readonly component: string;
}
const s = (system: string, component: string): Suspect => ({ system, component });

/** Suspect parameter numbers that this trade meets; from memory of the public list. */
export const SPN: Readonly<Record<number, Suspect>> = {
  94: s('fuel pressure', 'fuel delivery pressure'),
  97: s('fuel supply', 'water in fuel'),
  98: s('oil', 'engine oil level'),
  100: s('oil', 'engine oil pressure'),
  102: s('pressure sensors', 'intake manifold (boost) pressure'),
  103: s('boost', 'turbocharger speed'),
  105: s('air temperature', 'intake manifold temperature'),
  107: s('pressure sensors', 'air filter differential pressure'),
  108: s('pressure sensors', 'barometric pressure'),
  110: s('coolant temperature', 'engine coolant temperature'),
  111: s('coolant', 'engine coolant level'),
  132: s('airflow', 'mass airflow'),
  157: s('pressure sensors', 'fuel rail pressure, rail 1'),
  158: s('supply', 'keyswitch battery voltage'),
  168: s('supply', 'battery voltage'),
  174: s('fuel temperature', 'fuel temperature'),
  175: s('oil', 'engine oil temperature'),
  190: s('position sensors', 'engine speed'),
  411: s('pressure sensors', 'exhaust gas recirculation differential pressure'),
  412: s('exhaust gas recirculation', 'exhaust gas recirculation temperature'),
  620: s('supply', '5 V sensor supply'),
  626: s('glow plugs', 'start enable device (intake heater or glow plugs)'),
  627: s('supply', 'power supply'),
  628: s('controller', 'program memory'),
  629: s('controller', 'controller 1'),
  630: s('controller', 'calibration memory'),
  636: s('position sensors', 'engine position sensor'),
  637: s('position sensors', 'timing sensor'),
  639: s('network', 'vehicle network 1'),
  641: s('actuators', 'variable-geometry turbocharger actuator 1'),
  675: s('glow plugs', 'glow plug lamp'),
  676: s('glow plugs', 'glow plug relay'),
  677: s('starter', 'starter relay'),
  723: s('position sensors', 'engine speed sensor 2'),
  729: s('glow plugs', 'intake air heater driver 1'),
  730: s('glow plugs', 'intake air heater driver 2'),
  1127: s('boost', 'turbocharger 1 boost pressure'),
  1188: s('actuators', 'wastegate actuator 1'),
  1209: s('pressure sensors', 'exhaust pressure'),
  1322: s('misfire', 'several cylinders'),
  1347: s('fuel pressure', 'fuel pump pressurizing assembly 1'),
  1349: s('pressure sensors', 'fuel rail pressure, rail 2'),
  2791: s('exhaust gas recirculation', 'exhaust gas recirculation valve'),
  3251: s('pressure sensors', 'particulate filter differential pressure'),
  3509: s('supply', 'sensor supply voltage 1'),
  3510: s('supply', 'sensor supply voltage 2'),
  3511: s('supply', 'sensor supply voltage 3'),
  3512: s('supply', 'sensor supply voltage 4'),
};

/** Numbers that run with the cylinders: the first is cylinder 1. */
export const BY_CYLINDER: readonly { readonly first: number; readonly cylinders: number; readonly suspect: Suspect }[] =
  [
    { first: 651, cylinders: 24, suspect: s('injectors', 'injector') },
    { first: 1323, cylinders: 24, suspect: s('misfire', 'cylinder') },
  ];

/** Numbers that makers may assign as they like. */
export const MAKERS_OWN = { from: 516096, to: 524287 } as const;
export const LARGEST_SPN = 524287;

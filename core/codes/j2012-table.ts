/**
 * Ranges of the five-digit codes after SAE J2012, written from memory of the standard's structure. A row covers `from` up to
 * `from + failures.length - 1` for one circuit, or, with `cylinders`, as many circuits one after the other.
 */
export interface Range {
  /** Without the letter P, hexadecimal as written: "0671". */
  readonly from: string;
  readonly system: string;
  readonly component: string;
  readonly failures: readonly string[];
  /** The same failures for each cylinder in turn. */
  readonly cylinders?: number;
}

const CIRCUIT = ['circuit', 'range or performance', 'low', 'high', 'intermittent'] as const;
const OPEN_LOW_HIGH = ['circuit or open', 'low', 'high'] as const;
const range = (
  from: string,
  system: string,
  component: string,
  failures: readonly string[],
  cylinders?: number,
): Range => ({ from, system, component, failures, ...(cylinders ? { cylinders } : {}) });

export const RANGES: readonly Range[] = [
  // Glow plugs.
  range('0380', 'glow plugs', 'glow plug or heater circuit A', ['circuit']),
  range('0381', 'glow plugs', 'glow plug or heater indicator', ['circuit']),
  range('0382', 'glow plugs', 'glow plug or heater circuit B', ['circuit']),
  range('0383', 'glow plugs', 'glow plug control module, control circuit', ['low', 'high']),
  range('0670', 'glow plugs', 'glow plug control module, control circuit', ['circuit or open']),
  range('0671', 'glow plugs', 'glow plug', ['circuit or open'], 12),
  range('0683', 'glow plugs', 'glow plug control module, communication with the controller', [
    'circuit',
    'range or performance',
  ]),
  // Injectors, by cylinder.
  range('0200', 'injectors', 'injector', ['circuit or open']),
  range('0201', 'injectors', 'injector', ['circuit or open'], 12),
  range('0213', 'injectors', 'cold start injector 1', ['circuit']),
  range('0214', 'injectors', 'cold start injector 2', ['circuit']),
  range('0216', 'injectors', 'injection timing control', ['circuit']),
  range('0261', 'injectors', 'injector', ['low', 'high', 'contribution or balance'], 12),
  range('0611', 'injector module', 'fuel injector control module', ['performance']),
  range('2146', 'injectors', 'injector group A supply', OPEN_LOW_HIGH),
  range('2149', 'injectors', 'injector group B supply', OPEN_LOW_HIGH),
  range('2152', 'injectors', 'injector group C supply', OPEN_LOW_HIGH),
  range('2155', 'injectors', 'injector group D supply', OPEN_LOW_HIGH),
  // Misfire.
  range('0300', 'misfire', 'several cylinders', ['misfire']),
  range('0301', 'misfire', 'cylinder', ['misfire'], 12),
  range('0313', 'misfire', 'low fuel', ['misfire']),
  range('0314', 'misfire', 'single cylinder, not named', ['misfire']),
  // Position and speed.
  range('0335', 'position sensors', 'crankshaft position sensor A', CIRCUIT),
  range('0340', 'position sensors', 'camshaft position sensor A, bank 1', CIRCUIT),
  range('0345', 'position sensors', 'camshaft position sensor A, bank 2', CIRCUIT),
  range('0365', 'position sensors', 'camshaft position sensor B, bank 1', CIRCUIT),
  range('0385', 'position sensors', 'crankshaft position sensor B', CIRCUIT),
  range('0390', 'position sensors', 'camshaft position sensor B, bank 2', CIRCUIT),
  range('0120', 'position sensors', 'throttle or pedal position sensor A', CIRCUIT),
  range('0220', 'position sensors', 'throttle or pedal position sensor B', CIRCUIT),
  range('0500', 'vehicle speed', 'vehicle speed sensor', [
    'circuit',
    'range or performance',
    'low',
    'high or intermittent',
  ]),
  // Pressure.
  range('0105', 'pressure sensors', 'manifold or barometric pressure sensor', CIRCUIT),
  range('0190', 'pressure sensors', 'fuel rail pressure sensor', CIRCUIT),
  range('0235', 'pressure sensors', 'boost pressure sensor A', ['circuit', 'range or performance', 'low', 'high']),
  range('0239', 'pressure sensors', 'boost pressure sensor B', ['circuit', 'range or performance', 'low', 'high']),
  range('0470', 'pressure sensors', 'exhaust pressure sensor', CIRCUIT),
  range('0475', 'actuators', 'exhaust pressure control valve', CIRCUIT),
  range('0520', 'pressure sensors', 'engine oil pressure sensor', ['circuit', 'range or performance', 'low', 'high']),
  range('0524', 'oil', 'engine oil pressure', ['too low']),
  range('2226', 'pressure sensors', 'barometric pressure sensor', CIRCUIT),
  range('2452', 'pressure sensors', 'particulate filter differential pressure sensor', CIRCUIT),
  // Air.
  range('0100', 'airflow', 'mass or volume airflow meter A', CIRCUIT),
  range('0110', 'air temperature', 'intake air temperature sensor', CIRCUIT),
  range('0115', 'coolant temperature', 'engine coolant temperature sensor', CIRCUIT),
  range('0234', 'boost', 'turbocharger', ['overboost']),
  range('0299', 'boost', 'turbocharger', ['underboost']),
  range('0243', 'actuators', 'wastegate solenoid A', ['circuit', 'range or performance', 'low', 'high']),
  range('0247', 'actuators', 'wastegate solenoid B', ['circuit', 'range or performance', 'low', 'high']),
  range('2562', 'actuators', 'boost control position sensor', CIRCUIT),
  range('2263', 'boost', 'boost system', ['performance']),
  range('0400', 'exhaust gas recirculation', 'flow', ['flow', 'flow insufficient', 'flow excessive']),
  range('0403', 'exhaust gas recirculation', 'control', ['circuit', 'range or performance']),
  range('0405', 'exhaust gas recirculation', 'sensor A', ['low', 'high']),
  range('0407', 'exhaust gas recirculation', 'sensor B', ['low', 'high']),
  // Fuel.
  range('0087', 'fuel pressure', 'rail pressure', ['too low', 'too high']),
  range('0089', 'fuel pressure', 'fuel pressure regulator 1', ['performance', 'circuit', 'low', 'high']),
  range('0093', 'fuel pressure', 'fuel system', ['large leak', 'small leak']),
  range('0180', 'fuel temperature', 'fuel temperature sensor A', CIRCUIT),
  range('0185', 'fuel temperature', 'fuel temperature sensor B', CIRCUIT),
  range('0215', 'fuel shut-off', 'engine shut-off solenoid', ['circuit']),
  range('0251', 'injection pump', 'fuel metering control A', CIRCUIT),
  range('0256', 'injection pump', 'fuel metering control B', CIRCUIT),
  range('0627', 'fuel supply', 'fuel pump A control', OPEN_LOW_HIGH),
  range('2002', 'particulate filter', 'particulate filter, bank 1', ['efficiency below threshold']),
  range('2463', 'particulate filter', 'particulate filter', ['soot accumulation']),
  // Controller and its supplies.
  range('0560', 'supply', 'system voltage', ['circuit', 'unstable', 'low', 'high']),
  range('0641', 'supply', 'sensor reference voltage A', OPEN_LOW_HIGH),
  range('0651', 'supply', 'sensor reference voltage B', OPEN_LOW_HIGH),
  range('0685', 'supply', 'controller power relay, control', OPEN_LOW_HIGH),
  range('0600', 'controller', 'serial communication link', ['circuit']),
  range('0601', 'controller', 'memory', ['checksum']),
  range('0602', 'controller', 'programming', ['missing']),
  range('0603', 'controller', 'keep-alive memory', ['failure']),
  range('0604', 'controller', 'random access memory', ['failure']),
  range('0605', 'controller', 'read-only memory', ['failure']),
  range('0606', 'controller', 'processor', ['failure']),
  range('0607', 'controller', 'control module', ['performance']),
];

/** The third sign of a P0 code, where no range above says more. */
export const DIVISIONS: Readonly<Record<string, string>> = {
  0: 'fuel and air metering',
  1: 'fuel and air metering',
  2: 'fuel and air metering',
  3: 'ignition or misfire',
  4: 'emission control',
  5: 'speed, idle and auxiliary inputs',
  6: 'controller and outputs',
  7: 'transmission',
  8: 'transmission',
  9: 'transmission',
  A: 'hybrid drive',
  B: 'hybrid drive',
  C: 'hybrid drive',
};
/** The third sign of a P2 code. */
export const DIVISIONS_2: Readonly<Record<string, string>> = {
  0: 'fuel and air metering',
  1: 'fuel and air metering',
  2: 'fuel and air metering',
  3: 'ignition or misfire',
  4: 'emission control',
  5: 'speed, idle and auxiliary inputs',
  6: 'controller and outputs',
  7: 'transmission',
  8: 'transmission',
  9: 'transmission',
};
export const LETTERS: Readonly<Record<string, string>> = { P: 'powertrain', C: 'chassis', B: 'body', U: 'network' };

/** Failure type bytes that may follow a dash, SAE J2012-DA; from memory. */
export const FAILURE_TYPES: Readonly<Record<string, string>> = {
  '00': 'no further information',
  11: 'short to ground',
  12: 'short to battery',
  13: 'open',
  14: 'short to ground or open',
  15: 'short to battery or open',
  16: 'voltage below threshold',
  17: 'voltage above threshold',
  18: 'current below threshold',
  19: 'current above threshold',
  '1A': 'resistance below threshold',
  '1B': 'resistance above threshold',
  '1C': 'voltage out of range',
  '1D': 'current out of range',
  '1E': 'resistance out of range',
  '1F': 'intermittent',
  62: 'signals do not agree',
  64: 'signal not plausible',
  71: 'actuator stuck',
  77: 'commanded position not reachable',
  92: 'performance or incorrect operation',
};

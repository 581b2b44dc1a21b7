import { steinhartHart_degC, betaResistance_ohm, steinhartHartResistance_ohm } from '../limits/transfer';
import { pt100_degC, pt100_ohm } from '../metrology/temperature';
import { findUnit, fromBase, toBase } from '../quantity/units';
import { enteredValue } from '../quantity/values';
import { stateOfCharge_percent } from './battery';
import { awgArea_mm2, IEC_60228_CLASS_5, wireResistance_ohm } from './wire';
import type { Inputs, Outcome, Slot, Calculation } from './types';

/** An input that `runSum` has asked for before the sum is computed. */
function num(inputs: Inputs, id: string): number {
  const value = inputs[id];
  if (typeof value !== 'number') throw new RangeError(`the sum was run without its input "${id}"`);
  return value;
}
const opt = (inputs: Inputs, id: string): number => {
  const value = inputs[id];
  return typeof value === 'number' ? value : 0;
};
const out = (label: string, value: number, unit: string): Outcome => ({ label, value, unit });
const slot = (id: string, label: string, unit: string, more: Partial<Slot> = {}): Slot => ({
  id,
  label,
  unit,
  ...more,
});
const OHMS_LAW = 'Ohm’s law';
const NONE: Partial<Slot> = { optional: true, min: 0 };

/** Converts by the units of `core/quantity`. */
const converted = (value: number, from: string, to: readonly string[]): Outcome[] => {
  const source = findUnit(from);
  return to
    .filter((t) => t !== from)
    .flatMap((t) => {
      const target = findUnit(t);
      return source && target ? [out('', fromBase(toBase(enteredValue(value), source), target), t)] : [];
    });
};
const units = (names: readonly string[]) => names.map((label, value) => ({ value, label }));
const PRESSURES = ['kPa', 'bar', 'psi', 'inHg'] as const;
const TORQUES = ['Nm', 'lbf ft'] as const;

export const CALCULATIONS: readonly Calculation[] = [
  {
    id: 'ohms-law',
    name: 'Current, with source and series resistance',
    formula: 'I = U / (Ri + Rs + R);  U at the part = I · R;  P = I² · R',
    source: OHMS_LAW,
    inputs: [
      slot('u', 'Source', 'V', { from: 'system-voltage', min: 0 }),
      slot('r', 'Part', 'Ω', { from: 'reading', min: 0 }),
      slot('rs', 'In series (wire, contact)', 'Ω', NONE),
      slot('ri', 'Inside the source', 'Ω', NONE),
    ],
    compute: (x) => {
      const total = num(x, 'r') + opt(x, 'rs') + opt(x, 'ri');
      if (!(total > 0)) return 'All resistances together are 0: the current would have no limit.';
      const i = num(x, 'u') / total;
      return [
        out('Current', i, 'A'),
        out('At the part', i * num(x, 'r'), 'V'),
        out('Power in the part', i * i * num(x, 'r'), 'W'),
        out('Lost in series', i * (opt(x, 'rs') + opt(x, 'ri')), 'V'),
      ];
    },
  },
  {
    id: 'plug-behind-harness',
    name: 'Plug behind a harness',
    formula: 'share of current = R / (R + Rs);  share of power = (R / (R + Rs))²',
    source: OHMS_LAW,
    inputs: [
      slot('u', 'Feed', 'V', { from: 'system-voltage', min: 0 }),
      slot('r', 'Plug', 'Ω', { from: 'reading', min: 0 }),
      slot('rs', 'Harness', 'Ω', { min: 0 }),
    ],
    compute: (x) => {
      const [u, r, rs] = [num(x, 'u'), num(x, 'r'), num(x, 'rs')];
      if (!(r > 0)) return 'The plug’s resistance is above 0.';
      const i = u / (r + rs);
      return [
        out('Current', i, 'A'),
        out('Of what it should be', (100 * r) / (r + rs), '%'),
        out('Heat in the plug', i * i * r, 'W'),
        out('Of what it should be', 100 * (r / (r + rs)) ** 2, '%'),
      ];
    },
  },
  {
    id: 'series-parallel',
    name: 'Series and parallel',
    formula: 'series: R = ΣRi;  parallel: 1/R = Σ 1/Ri',
    source: OHMS_LAW,
    inputs: [slot('r', 'Resistances', 'Ω', { list: true, min: 0 })],
    compute: (x) => {
      const r = x.r as readonly number[];
      if (r.length === 0) return 'Type two resistances or more.';
      return [
        out(
          'In series',
          r.reduce((a, b) => a + b, 0),
          'Ω',
        ),
        out('In parallel', r.some((v) => v === 0) ? 0 : 1 / r.reduce((a, b) => a + 1 / b, 0), 'Ω'),
      ];
    },
  },
  {
    id: 'wire-mm2',
    name: 'Voltage drop of a cable, mm²',
    formula: 'R = ρ · l / A · (1 + α (t − 20));  U = I · R',
    source:
      'ρ = 1/58 Ω mm²/m and α = 0.00393 per K, IEC 60028; solid copper. Flexible: the most that IEC 60228, class 5, allows, where it has the area',
    inputs: [
      slot('a', 'Area', 'mm²', { min: 0.05, max: 1000 }),
      slot('l', 'Length, there and back', 'm', { min: 0 }),
      slot('i', 'Current', 'A', { min: 0 }),
      slot('t', 'Temperature', '°C', { initial: 20, min: -60, max: 250, from: 'temperature' }),
    ],
    compute: (x) => [...wire(num(x, 'a'), x), ...flexible(num(x, 'a'), x)],
  },
  {
    id: 'wire-awg',
    name: 'Voltage drop of a cable, AWG',
    formula: 'd = 0.005 in · 92^((36 − n)/39);  then as for mm²',
    source: 'ASTM B258 for the diameter, IEC 60028 for copper; 0 is 1/0, −1 is 2/0, −2 is 3/0, −3 is 4/0',
    inputs: [
      slot('n', 'AWG size', '', { min: -3, max: 40 }),
      slot('l', 'Length, there and back', 'm', { min: 0 }),
      slot('i', 'Current', 'A', { min: 0 }),
      slot('t', 'Temperature', '°C', { initial: 20, min: -60, max: 250, from: 'temperature' }),
    ],
    compute: (x) => [out('Area', awgArea_mm2(num(x, 'n')), 'mm²'), ...wire(awgArea_mm2(num(x, 'n')), x)],
  },
  {
    id: 'leads',
    name: 'Lead and extension subtracted',
    formula: 'R = display − leads − extension',
    source: 'Series resistances add up',
    inputs: [
      slot('r', 'Display', 'Ω', { from: 'reading', min: 0 }),
      slot('z', 'Leads together', 'Ω', { from: 'lead-zero', min: 0 }),
      slot('e', 'Extension', 'Ω', NONE),
    ],
    compute: (x) => {
      const r = num(x, 'r') - num(x, 'z') - opt(x, 'e');
      return r < 0 ? 'Less than the leads alone: zero them again.' : [out('Part', r, 'Ω')];
    },
  },
  {
    id: 'copper-at-20',
    name: 'Copper at its reference temperature',
    formula: 'R20 = R / (1 + 0.00393 (t − 20))',
    source: 'IEC 60028',
    inputs: [
      slot('r', 'Read', 'Ω', { from: 'reading', min: 0 }),
      slot('t', 'Temperature of the part', '°C', { from: 'temperature', min: -60, max: 250 }),
    ],
    compute: (x) => [out('At 20 °C', num(x, 'r') / (1 + 0.00393 * (num(x, 't') - 20)), 'Ω')],
  },
  {
    id: 'clamp',
    name: 'Clamp, mV to A',
    formula: 'I = (U − U0) / ratio',
    source: 'The clamp’s ratio, as written on it',
    inputs: [
      slot('u', 'Display', 'mV'),
      slot('u0', 'Display away from any wire', 'mV', { optional: true }),
      slot('k', 'Ratio', '', { initial: 10, options: [1, 10, 100].map((v) => ({ value: v, label: `${v} mV/A` })) }),
    ],
    compute: (x) => [out('Current', (num(x, 'u') - opt(x, 'u0')) / num(x, 'k'), 'A')],
  },
  {
    id: 'ratiometric',
    name: 'Ratiometric sensor, pressure and volts',
    formula: 'U = Uref · (r0 + (r1 − r0) · (p − p0) / (p1 − p0))',
    source: 'Straight line through two points of the sensor’s sheet',
    inputs: [
      slot('ref', 'Reference', 'V', { initial: 5, min: 0.1 }),
      slot('p0', 'Lower point', 'kPa', { initial: 0 }),
      slot('r0', 'gives', '% of reference', { initial: 10, min: 0, max: 100 }),
      slot('p1', 'Upper point', 'kPa'),
      slot('r1', 'gives', '% of reference', { initial: 90, min: 0, max: 100 }),
      slot('p', 'Pressure', 'kPa', { optional: true }),
      slot('u', 'or signal', 'V', { optional: true, from: 'reading' }),
    ],
    compute: (x) => {
      const [ref, p0, p1, r0, r1] = [num(x, 'ref'), num(x, 'p0'), num(x, 'p1'), num(x, 'r0') / 100, num(x, 'r1') / 100];
      if (p1 === p0 || r1 === r0) return 'The two points are the same.';
      const found: Outcome[] = [];
      if (x.p !== undefined) found.push(out('Signal', ref * (r0 + ((r1 - r0) * (num(x, 'p') - p0)) / (p1 - p0)), 'V'));
      if (x.u !== undefined)
        found.push(out('Pressure', p0 + ((num(x, 'u') / ref - r0) * (p1 - p0)) / (r1 - r0), 'kPa'));
      return found.length ? found : 'Type a pressure or a signal.';
    },
  },
  {
    id: 'ntc-beta',
    name: 'NTC thermistor by its β',
    formula: 'R = R0 · exp(β (1/T − 1/T0)), kelvin',
    source: 'β equation of thermistors',
    inputs: [
      slot('r0', 'Resistance', 'Ω', { initial: 2500, min: 0.001 }),
      slot('t0', 'at', '°C', { initial: 20 }),
      slot('b', 'β', 'K', { min: 1 }),
      slot('t', 'Temperature', '°C', { optional: true, from: 'temperature', min: -273 }),
      slot('r', 'or resistance', 'Ω', { optional: true, from: 'reading', min: 0.001 }),
    ],
    compute: (x) => {
      const t = { resistance_ohm: num(x, 'r0'), at_degC: num(x, 't0'), beta_K: num(x, 'b') };
      const found: Outcome[] = [];
      if (x.t !== undefined) found.push(out('Resistance', betaResistance_ohm(t, num(x, 't')), 'Ω'));
      if (x.r !== undefined)
        found.push(
          out(
            'Temperature',
            1 / (1 / (t.at_degC + 273.15) + Math.log(num(x, 'r') / t.resistance_ohm) / t.beta_K) - 273.15,
            '°C',
          ),
        );
      return found.length ? found : 'Type a temperature or a resistance.';
    },
  },
  {
    id: 'ntc-steinhart-hart',
    name: 'NTC thermistor, Steinhart-Hart',
    formula: '1/T = a + b ln R + c (ln R)³, kelvin and ohm',
    source: 'Steinhart and Hart, Deep-Sea Research 15 (1968); citation from memory',
    inputs: [
      slot('a', 'a', ''),
      slot('b', 'b', ''),
      slot('c', 'c', ''),
      slot('t', 'Temperature', '°C', { optional: true, min: -273 }),
      slot('r', 'or resistance', 'Ω', { optional: true, from: 'reading', min: 0.001 }),
    ],
    compute: (x) => {
      const k = { a: num(x, 'a'), b: num(x, 'b'), c: num(x, 'c') };
      const found: Outcome[] = [];
      if (x.t !== undefined) found.push(out('Resistance', steinhartHartResistance_ohm(k, num(x, 't')), 'Ω'));
      if (x.r !== undefined) found.push(out('Temperature', steinhartHart_degC(k, num(x, 'r')), '°C'));
      return found.length ? found : 'Type a temperature or a resistance.';
    },
  },
  {
    id: 'pt100',
    name: 'Pt100 thermometer',
    formula: 'R = 100 (1 + A t + B t² + C (t − 100) t³), C only below 0 °C',
    source: 'IEC 60751',
    inputs: [
      slot('t', 'Temperature', '°C', { optional: true, min: -200, max: 850, from: 'temperature' }),
      slot('r', 'or resistance', 'Ω', { optional: true, min: 18.52, max: 390.48, from: 'reading' }),
    ],
    compute: (x) => {
      const found = [
        ...(x.t === undefined ? [] : [out('Resistance', pt100_ohm(num(x, 't')), 'Ω')]),
        ...(x.r === undefined ? [] : [out('Temperature', pt100_degC(num(x, 'r')), '°C')]),
      ];
      return found.length ? found : 'Type a temperature or a resistance.';
    },
  },
  {
    id: 'pressure-units',
    name: 'Pressure units',
    formula: '1 psi = 6 894.757 Pa;  1 bar = 100 kPa;  1 inHg = 3 386.389 Pa',
    source: 'NIST SP 811, appendix B.8',
    inputs: [slot('p', 'Pressure', ''), slot('of', 'in', '', { initial: 0, options: units(PRESSURES) })],
    compute: (x) => converted(num(x, 'p'), PRESSURES[num(x, 'of')] ?? 'kPa', PRESSURES),
  },
  {
    id: 'torque-units',
    name: 'Torque units',
    formula: '1 lbf ft = 1.355 818 Nm',
    source: 'NIST SP 811, appendix B.8',
    inputs: [slot('m', 'Torque', ''), slot('of', 'in', '', { initial: 0, options: units(TORQUES) })],
    compute: (x) => converted(num(x, 'm'), TORQUES[num(x, 'of')] ?? 'Nm', TORQUES),
  },
  {
    id: 'state-of-charge',
    name: 'Battery, voltage to state of charge',
    formula: 'straight lines between 11.9 V (0 %), 12.06, 12.24, 12.45 and 12.65 V (100 %), rested, 25 °C',
    source: 'Common practice, no source; makers differ by a tenth of a volt',
    inputs: [
      slot('u', 'At rest', 'V', { from: 'reading', min: 0 }),
      slot('n', 'System', '', {
        initial: 1,
        options: [
          { value: 1, label: '12 V' },
          { value: 2, label: '24 V' },
        ],
      }),
    ],
    compute: (x) => [out('State of charge', stateOfCharge_percent(num(x, 'u'), num(x, 'n')), '%')],
  },
  {
    id: 'two-gauges',
    name: 'Pressure difference of two gauges',
    formula: 'Δp = before − behind',
    source: 'Definition',
    inputs: [slot('p1', 'Before', 'kPa'), slot('p2', 'Behind', 'kPa')],
    compute: (x) => [out('Difference', num(x, 'p1') - num(x, 'p2'), 'kPa')],
  },
];

function wire(area_mm2: number, x: Inputs): Outcome[] {
  const r = wireResistance_ohm(area_mm2, num(x, 'l'), num(x, 't'));
  return [
    out('Resistance', r * 1000, 'mΩ'),
    out('Voltage drop', r * num(x, 'i'), 'V'),
    out('Lost as heat', r * num(x, 'i') ** 2, 'W'),
  ];
}

/**
 * The most that a flexible conductor of a nominal area may have; nothing where the table has no such area.
 */
function flexible(area_mm2: number, x: Inputs): Outcome[] {
  const row = IEC_60228_CLASS_5.find(([area]) => area === area_mm2);
  const warm = wireResistance_ohm(area_mm2, 1, num(x, 't')) / wireResistance_ohm(area_mm2, 1, 20);
  const r = row ? (row[1] / 1000) * num(x, 'l') * warm : 0;
  return row ? [out('Flexible, at most', r * 1000, 'mΩ'), out('its drop', r * num(x, 'i'), 'V')] : [];
}

export const findCalculation = (id: string): Calculation | undefined => CALCULATIONS.find((s) => s.id === id);

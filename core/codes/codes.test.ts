import fc from 'fast-check';
import { decodeCode, findCodes } from './decode';
import { BY_CYLINDER, FMI } from './j1939-table';
import { RANGES, type Range } from './j2012-table';
import type { CodeMeaning } from './types';

const decode = (text: string): CodeMeaning => {
  const decoded = decodeCode(text);
  if (!decoded.ok) throw new Error(decoded.error);
  return decoded.value;
};

/** SAE J2012: examples of each range, written from memory of the standard's structure. */
test.each<[string, string, string | null, number | null, string | null]>([
  ['P0671', 'glow plugs', 'glow plug', 1, 'circuit or open'],
  ['P0672', 'glow plugs', 'glow plug', 2, 'circuit or open'],
  ['P0678', 'glow plugs', 'glow plug', 8, 'circuit or open'],
  ['P0682', 'glow plugs', 'glow plug', 12, 'circuit or open'],
  ['P0380', 'glow plugs', 'glow plug or heater circuit A', null, 'circuit'],
  ['P0670', 'glow plugs', 'glow plug control module, control circuit', null, 'circuit or open'],
  ['P0683', 'glow plugs', 'glow plug control module, communication with the controller', null, 'circuit'],
  ['P0201', 'injectors', 'injector', 1, 'circuit or open'],
  ['P0212', 'injectors', 'injector', 12, 'circuit or open'],
  ['P0261', 'injectors', 'injector', 1, 'low'],
  ['P0265', 'injectors', 'injector', 2, 'high'],
  ['P0284', 'injectors', 'injector', 8, 'contribution or balance'],
  ['P0296', 'injectors', 'injector', 12, 'contribution or balance'],
  ['P0611', 'injector module', 'fuel injector control module', null, 'performance'],
  ['P2146', 'injectors', 'injector group A supply', null, 'circuit or open'],
  ['P2148', 'injectors', 'injector group A supply', null, 'high'],
  ['P0300', 'misfire', 'several cylinders', null, 'misfire'],
  ['P0305', 'misfire', 'cylinder', 5, 'misfire'],
  ['P0312', 'misfire', 'cylinder', 12, 'misfire'],
  ['P0335', 'position sensors', 'crankshaft position sensor A', null, 'circuit'],
  ['P0344', 'position sensors', 'camshaft position sensor A, bank 1', null, 'intermittent'],
  ['P0193', 'pressure sensors', 'fuel rail pressure sensor', null, 'high'],
  ['P0237', 'pressure sensors', 'boost pressure sensor A', null, 'low'],
  ['P0471', 'pressure sensors', 'exhaust pressure sensor', null, 'range or performance'],
  ['P2454', 'pressure sensors', 'particulate filter differential pressure sensor', null, 'low'],
  ['P0101', 'airflow', 'mass or volume airflow meter A', null, 'range or performance'],
  ['P0087', 'fuel pressure', 'rail pressure', null, 'too low'],
  ['P0562', 'supply', 'system voltage', null, 'low'],
  ['P0642', 'supply', 'sensor reference voltage A', null, 'low'],
  // Those with a letter count in sixteens.
  ['P0001', 'fuel pressure', 'fuel volume regulator, control', null, 'circuit or open'],
  ['P0016', 'position sensors', 'crankshaft and camshaft position, bank 1 sensor A', null, 'do not agree'],
  ['P0069', 'pressure sensors', 'manifold and barometric pressure sensors', null, 'do not agree'],
  ['P010C', 'airflow', 'mass or volume airflow meter B', null, 'low'],
  ['P02A0', 'injectors', 'injector', 2, 'restricted'],
  ['P02DB', 'injectors', 'injector', 8, 'offset learning at its upper limit'],
  ['P02EF', 'injectors', 'injector', 2, 'circuit, range or performance'],
  ['P0541', 'intake heater', 'intake air heater A', null, 'low'],
  ['P066C', 'glow plugs', 'glow plug', 2, 'low'],
  ['P067F', 'glow plugs', 'glow plug', 6, 'high'],
  ['P068F', 'glow plugs', 'glow plug', 8, 'high'],
  ['P2128', 'position sensors', 'throttle or pedal position sensor E', null, 'high'],
  ['P2286', 'pressure sensors', 'injector control pressure sensor', null, 'high'],
  ['P2697', 'injectors', 'injector', 12, 'calibration data do not fit'],
  ['U0105', 'network', 'fuel injector control module', null, 'lost communication'],
])('%s', (code, system, component, cylinder, failure) => {
  expect(decode(code)).toEqual({
    code,
    system,
    component,
    cylinder,
    failure,
    standard: 'SAE J2012',
    confidence: 'standard',
  });
});

describe('who decides', () => {
  test.each(['P1234', 'P3000', 'P33FF', 'B1000', 'B2FFF', 'C1ABC', 'U1000', 'U2900'])('%s: the maker', (code) =>
    expect(decode(code)).toMatchObject({ confidence: 'maker-defined', component: null, cylinder: null }),
  );
  test.each(['P0ABC', 'P2BA7', 'P3400', 'B0001', 'C0035', 'U0100', 'U3000'])('%s: the standard', (code) =>
    expect(decode(code).confidence).toBe('standard'),
  );
  test('a range that the table has not keeps its division', () => {
    expect(decode('P0741')).toMatchObject({ system: 'transmission', component: null, failure: null });
    expect(decode('P06AA')).toMatchObject({ system: 'controller and outputs', cylinder: null });
    expect(decode('U0100').system).toBe('network');
  });
  test('a failure type byte says more', () => {
    expect(decode('p0672-13')).toMatchObject({ code: 'P0672-13', cylinder: 2, failure: 'open' });
    expect(decode('P0672-00').failure).toBe('circuit or open');
    expect(decode('P1234-11')).toMatchObject({ failure: 'short to ground', confidence: 'maker-defined' });
  });
});

/** SAE J1939-73; numbers and failure modes from memory of the public list. */
test.each<[string, string, string | null, number | null, string]>([
  ['SPN 653 FMI 5', 'injectors', 'injector', 3, 'current below normal, or open circuit'],
  ['SPN 651 FMI 6', 'injectors', 'injector', 1, 'current above normal, or grounded circuit'],
  ['SPN 674 FMI 4', 'injectors', 'injector', 24, 'voltage below normal, or shorted to low source'],
  ['SPN 676 FMI 3', 'glow plugs', 'glow plug relay', null, 'voltage above normal, or shorted to high source'],
  ['SPN 1324 FMI 31', 'misfire', 'cylinder', 2, 'condition exists'],
  ['SPN 102 FMI 2', 'pressure sensors', 'intake manifold (boost) pressure', null, 'erratic, intermittent or incorrect'],
  ['SPN 168 FMI 18', 'supply', 'battery voltage', null, 'below normal, moderately severe'],
  ['SPN 5326 FMI 5', 'glow plugs', 'glow plug', 3, 'current below normal, or open circuit'],
  ['SPN 2798 FMI 6', 'injectors', 'injector group 2', null, 'current above normal, or grounded circuit'],
  ['SPN 4000 FMI 7', 'not in the table here', null, null, 'mechanical system not responding or out of adjustment'],
])('%s', (code, system, component, cylinder, failure) => {
  expect(decode(code)).toEqual({
    code,
    system,
    component,
    cylinder,
    failure,
    standard: 'SAE J1939-73',
    confidence: 'standard',
  });
});
test('numbers of the maker, reserved failure modes, the many ways of writing', () => {
  expect(decode('SPN 520200 FMI 5')).toMatchObject({
    confidence: 'maker-defined',
    component: null,
    failure: 'current below normal, or open circuit',
  });
  expect(decode('SPN 110 FMI 25').failure).toBe('reserved');
  for (const text of ['spn653fmi5', 'SPN:653 FMI:5', 'SPN 653/FMI 5', '653/5', '653-5', ' SPN 653,  FMI 05 '])
    expect(decode(text).code).toBe('SPN 653 FMI 5');
  expect(Object.keys(FMI)).toHaveLength(23);
});
test.each(['', 'P067', 'X0672', 'P4672', 'P0672-1', 'SPN 653 FMI 32', 'SPN 600000 FMI 1', 'florp', '653'])(
  '"%s" is no code',
  (text) => expect(decodeCode(text).ok).toBe(false),
);

/**
 * The codes of a row one after the other, written out by the other way round than decoding goes: from a count
 * to its spelling.
 */
function codesOf(r: Range): string[] {
  const [letter, first] = r.from.length === 5 ? [r.from.charAt(0), r.from.slice(1)] : ['P', r.from];
  const radix = /[A-F]/.test(first) ? 16 : 10;
  return Array.from(
    { length: r.failures.length * (r.cylinders ?? 1) },
    (_, i) => `${letter}${(parseInt(first, radix) + i).toString(radix).toUpperCase().padStart(4, '0')}`,
  );
}

describe('the tables', () => {
  test('no code is in two ranges of J2012', () => {
    const all = RANGES.flatMap(codesOf);
    expect(all.filter((c, i) => all.indexOf(c) !== i)).toEqual([]);
  });
  test('every code of every range is decoded by its own row, cylinder by cylinder', () => {
    for (const r of RANGES) {
      for (const [i, code] of codesOf(r).entries()) {
        const cylinder = r.cylinders ? Math.floor(i / r.failures.length) + (r.firstCylinder ?? 1) : null;
        expect(decode(code)).toMatchObject({
          code,
          system: r.system,
          component: r.component,
          cylinder,
          failure: r.failures[i % r.failures.length],
          confidence: 'standard',
        });
      }
    }
  });
  test('the cylinders of J1939', () => {
    for (const { first, cylinders } of BY_CYLINDER)
      expect([decode(`SPN ${first} FMI 1`).cylinder, decode(`SPN ${first + cylinders - 1} FMI 1`).cylinder]).toEqual([
        1,
        cylinders,
      ]);
  });
});

describe('in running text', () => {
  test('pasted from anywhere, in order; what is none is given back', () => {
    expect(findCodes('P0672, p0380-13; SPN 653 FMI 5\n110/3 (stored) U0100')).toEqual({
      codes: [
        { code: 'P0672' },
        { code: 'p0380-13' },
        { code: 'SPN 653 FMI 5' },
        { code: '110/3', status: 'stored' },
        { code: 'U0100' },
      ],
      unknown: [],
    });
    expect(findCodes('')).toEqual({ codes: [], unknown: [] });
  });
  test.each([
    ['P0672 active x3', { status: 'active', count: 3 }],
    ['P0672 (previously active, 12 times)', { status: 'stored', count: 12 }],
    ['P0672: pending; OC 2', { status: 'intermittent', count: 2 }],
    ['P0672 count=4', { count: 4 }],
    ['P0672 inactive', { status: 'stored' }],
  ])('%s: status and count behind the code', (text, said) =>
    expect(findCodes(text)).toEqual({ codes: [{ code: 'P0672', ...said }], unknown: [] }),
  );
  test('what stands behind one code is not said of the next, and other words are given back', () =>
    expect(findCodes('P0672 x2 bank P0673')).toEqual({
      codes: [{ code: 'P0672', count: 2 }, { code: 'P0673' }],
      unknown: ['bank'],
    }));
  test('whatever is found can be decoded, or says why not; nothing throws', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 80 }), (text) => {
        for (const { code } of findCodes(text).codes) decodeCode(code);
        decodeCode(text);
      }),
    );
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 524287 }), fc.integer({ min: 0, max: 31 }), (spn, fmi) => {
        expect(decode(`SPN ${spn} FMI ${fmi}`).code).toBe(`SPN ${spn} FMI ${fmi}`);
        expect(findCodes(`x SPN ${spn} FMI ${fmi} y`).codes).toEqual([{ code: `SPN ${spn} FMI ${fmi}` }]);
      }),
    );
    fc.assert(
      fc.property(fc.constantFrom('P', 'B', 'C', 'U'), fc.integer({ min: 0, max: 0x3fff }), (letter, n) => {
        const code = `${letter}${n.toString(16).toUpperCase().padStart(4, '0')}`;
        expect(decode(code.toLowerCase())).toMatchObject({ code, standard: 'SAE J2012' });
      }),
    );
  });
});

import { CATALOGUE } from '../core/catalogue/catalogue';
import { CIRCUITS } from '../core/circuits/library';

type Make = (bytes: number) => string;

/** `part` again and again, with `between`, as often as it fits. */
const often = (part: string, between: string, bytes: number): string =>
  Array.from({ length: Math.max(1, Math.floor(bytes / (part.length + between.length))) }, () => part).join(between);
/** Parts that differ by a number. */
function counted(part: (n: number) => string, between: string, bytes: number): string {
  const all: string[] = [];
  for (let n = 0, length = 0; length < bytes - 100; n++) {
    const next = part(n);
    all.push(next);
    length += next.length + between.length;
  }
  return all.join(between);
}

/** Values of JSON that cost much for their length. */
export const LARGE_VALUES: Readonly<Record<string, Make>> = {
  'many zeros': (bytes) => `[${often('0', ',', bytes)}]`,
  'many empty objects': (bytes) => `[${often('{}', ',', bytes)}]`,
  'many texts': (bytes) => `[${counted((n) => `"${n}"`, ',', bytes)}]`,
  'many fields': (bytes) => `{${counted((n) => `"f${n}":0`, ',', bytes)}}`,
  'one long text': (bytes) => `"${'x'.repeat(Math.max(0, bytes - 2))}"`,
  'one long text of blanks': (bytes) => `"x${' '.repeat(Math.max(0, bytes - 4))}x"`,
  'half of a pair': (bytes) => `[${often('"\\ud800"', ',', bytes)}]`,
  'a number without end': (bytes) => '9'.repeat(Math.max(1, bytes)),
  ...Object.fromEntries(
    [1000, 4000, 8000, 100_000].map((depth): [string, Make] => [
      `nested ${depth} deep`,
      (bytes) => {
        const levels = Math.min(depth, Math.floor(bytes / 2) - 1);
        return `${'['.repeat(levels)}${']'.repeat(levels)}`;
      },
    ]),
  ),
};

/** A good file of each kind that a route takes; `{n}` is another number in each row. */
export const GOOD_FILES: Readonly<Record<string, readonly (readonly [type: string, text: string])[]>> = {
  'units/import': [['text/csv', 'fleet_number,kind,depot,family\nL-{n},Tipper,Quay Yard,L4-20']],
  'people/import': [['text/csv', 'name,role,depot,pin\nPerson {n},technician,all depots,72{n}91x']],
  'depots/import': [['text/csv', 'name,time_zone\nDepot {n},Europe/London']],
  'instruments/import': [
    [
      'text/csv',
      'depot,name,kind,quantity,up_to,percent_of_reading,counts,resolution\nQuay Yard,Meter {n},multimeter,resistance,600,0.8,3,0.1',
    ],
  ],
  'service-data/import': [['text/csv', 'family,sequence,step,value,source\nL4-20,glow-plugs,torque,{n} Nm,sheet']],
  'specifications/import': [
    ['text/csv', 'test,scope,of,quantity,unit,upper,source\nglow-plug-resistance,part,P {n},resistance,ohm,1.5,sheet'],
    [
      'application/json',
      JSON.stringify({
        format: 'mudflat/shelf',
        version: 1,
        limits: [
          {
            test: 'glow-plug-resistance',
            scope: 'part',
            of: 'P {n}',
            limits: { quantity: 'resistance', unit: 'ohm', upper: 1.5 },
            source: 'sheet',
          },
        ],
      }),
    ],
  ],
  'catalogue/import': [
    ['application/json', JSON.stringify({ format: 'mudflat/catalogue', version: 1, tests: [CATALOGUE[0]] })],
  ],
  'workshop/kit/import': [
    [
      'application/json',
      JSON.stringify({
        format: 'mudflat/starter-kit',
        version: 1,
        families: [{ code: 'L {n}', engine: { layout: 'inline', cylinders: 4, firingOrder: [1, 3, 4, 2] } }],
        tests: [],
        circuits: [CIRCUITS[0]],
        limits: [],
        fittingValues: [{ family: null, key: 'glow-plugs/torque', value: '17 Nm', source: 'sheet' }],
        connectors: [],
      }),
    ],
  ],
  'runs/[id]/csv': [['text/csv', 'position,entry\n1,0.{n}']],
};

const headerOf = (good: string): string => good.split('\n')[0] ?? '';
const rowOf = (good: string, n: number): string => (good.split('\n')[1] ?? '').replaceAll('{n}', String(n));
const signOf = (good: string): string => (headerOf(good).includes(';') ? ';' : ',');
/** As many as a list may have. */
const MOST_ROWS = 5_000;

/** Tables that cost much for their length; `good`: one that the route takes. */
export const LARGE_TABLES: Readonly<Record<string, (good: string, bytes: number) => string>> = {
  'as many good rows as may be': (good) =>
    `${headerOf(good)}\n${Array.from({ length: MOST_ROWS }, (_, n) => rowOf(good, n + 1)).join('\n')}`,
  'as many rows of words': (good) =>
    `${headerOf(good)}\n${Array.from({ length: MOST_ROWS }, (_, n) => wordsOf(good, n)).join('\n')}`,
  'the same row': (good, bytes) => `${headerOf(good)}\n${often(rowOf(good, 1), '\n', bytes)}`,
  'rows that differ': (good, bytes) => `${headerOf(good)}\n${counted((n) => rowOf(good, n), '\n', bytes)}`,
  'rows of words': (good, bytes) => `${headerOf(good)}\n${counted((n) => wordsOf(good, n), '\n', bytes)}`,
  'many columns': (good, bytes) =>
    `${headerOf(good)}${signOf(good)}${counted((n) => `c${n}`, signOf(good), bytes)}\n1,2`,
  'many columns without names': (good, bytes) =>
    `${headerOf(good)}${signOf(good).repeat(100_000)}\n${often(rowOf(good, 1), '\n', bytes - 110_000)}`,
  'many cells': (good, bytes) => `${headerOf(good)}\n${signOf(good).repeat(bytes - 300)}`,
  'one cell': (good, bytes) => `${headerOf(good)}\n"${'x'.repeat(bytes - 300)}"`,
  'a quote that is never closed': (good, bytes) => `${headerOf(good)}\n"${often('a\n', '', bytes - 300)}`,
  'many quotes': (_, bytes) => '"'.repeat(bytes),
  'empty lines': (good, bytes) => `${headerOf(good)}\n${'\n'.repeat(bytes - 300)}`,
  blanks: (_, bytes) => ' '.repeat(bytes),
  'line feeds in quotes': (good, bytes) => `${headerOf(good)}\n${often('"\n"', ',', bytes - 300)}`,
  apostrophes: (good, bytes) => `${headerOf(good)}\n${"'".repeat(bytes - 300)}=`,
};

/** Words that are nearly those of a header: what was meant is searched for. */
const wordsOf = (good: string, n: number): string =>
  headerOf(good)
    .split(signOf(good))
    .map((c) => `${c} ${n} resistence`)
    .join(signOf(good));

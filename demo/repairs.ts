import type { Evidence } from '../core/evidence/types';
import type { Position } from '../core/judge/types';
import { checkCharacter } from '../core/repair/coding';
import type { OneOrSetInputs } from '../core/repair/one-or-set';
import { SEQUENCES } from '../core/repair/sequences';
import type { KeepServiceData } from '../formats/requests/service-data';

/** How the stories went on after their finding. All made up. */
export type DemoStep =
  | { readonly do: 'decide'; readonly school: 'one' | 'set'; readonly inputs: OneOrSetInputs; readonly why: string }
  | {
      readonly do: 'quote';
      readonly lines: readonly (readonly [text: string, quantity: number, price: number])[];
      readonly note?: string;
    }
  | {
      readonly do: 'answer';
      readonly answer: 'accepted' | 'declined' | 'deferred';
      readonly until?: string;
      readonly said: string;
    }
  | {
      readonly do: 'steps';
      readonly sequence: string;
      readonly positions: readonly Position[];
      readonly values: Readonly<Record<string, string>>;
      readonly tool: string;
      readonly only?: readonly string[];
    }
  | { readonly do: 'code'; readonly position: number; readonly code: string; readonly old?: string }
  | {
      readonly do: 'measure';
      readonly test: string;
      readonly states: readonly string[];
      readonly readings: readonly (readonly [Position, string])[];
    }
  | { readonly do: 'see'; readonly evidence: Evidence }
  | { readonly do: 'codes'; readonly phase: 'after-clearing' | 'after-road-test' }
  | { readonly do: 'scan'; readonly said: string }
  | {
      readonly do: 'release';
      readonly said: string;
      readonly waived?: readonly (readonly [
        'agreed' | 'road-test' | 'vehicle-scan' | 'codes-cleared' | 'measured-again' | 'repaired' | 'finding',
        string,
      ])[];
      readonly lead?: true;
    }
  | { readonly do: 'comeback'; readonly of: string };

export interface DemoRepair {
  readonly unit: string;
  readonly visit?: string;
  readonly by: string;
  readonly then: readonly DemoStep[];
}

const PLUG: OneOrSetInputs = {
  positions: 4,
  failed: 1,
  part: 2350,
  access_min: 45,
  each_min: 12,
  labour: 7800,
  age_h: 4310,
  horizon_h: 1500,
  life: { shape: 2.2, scale_h: 6000 },
  breakage: 0.03,
  breakageCost: 85000,
  comeback: 24000,
};
const BODY = '7AF209KD11X8BZ4RMV3C5T6P2H1G9';
export const ALPHABET = '0123456789ABCDEFGHJKLMNPRSTUVWXYZ';
const trim = (body: string): string => body + checkCharacter(body, ALPHABET, 'mod-alphabet');
const set = (...entries: string[]): (readonly [Position, string])[] => entries.map((e, i) => [i + 1, e]);

export const SERVICE_DATA: readonly Omit<KeepServiceData, 'id' | 'by'>[] = [
  {
    family: 'L3-11',
    kind: 'connector',
    key: 'controller-b',
    body: {
      name: 'Controller B',
      place: 'behind the panel, lower one',
      seenFrom: 'wire side',
      rows: [5, 5],
      pins: [
        { pin: '1', signal: 'battery supply', colour: 'red', to: 'fuse 4', cylinder: null },
        { pin: '2', signal: 'ground', colour: 'brown', to: 'block', cylinder: null },
        { pin: '6', signal: 'sensor reference, 5 V', colour: 'white', to: 'sensors', cylinder: null },
        { pin: '7', signal: 'sensor ground', colour: 'brown/white', to: 'sensors', cylinder: null },
        { pin: '9', signal: 'boost sensor', colour: 'blue', to: 'boost sensor 2', cylinder: null },
        { pin: '14', signal: 'air flow', colour: 'yellow', to: 'air flow meter 3', cylinder: null },
        { pin: '15', signal: 'coolant temperature', colour: 'grey', to: 'coolant sensor 1', cylinder: null },
        { pin: '26', signal: 'rail sensor', colour: 'green', to: 'rail sensor 3', cylinder: null },
        { pin: '27', signal: '', colour: '', to: '', cylinder: null },
        { pin: '28', signal: '', colour: '', to: '', cylinder: null },
      ],
    },
    source: 'Pellmarsh workshop book, sheet 22, invented',
  },
  {
    family: 'L4-20',
    kind: 'connector',
    key: 'cover-connector',
    body: {
      name: 'Cover connector',
      place: 'on the valve cover, rear',
      seenFrom: 'wire side',
      rows: [4, 4],
      pins: [
        { pin: '1', signal: 'injector 1, low', colour: 'yellow', to: 'controller A12', cylinder: 1 },
        { pin: '2', signal: 'injector 2, low', colour: 'yellow/black', to: 'controller A13', cylinder: 2 },
        { pin: '3', signal: 'injector 3, low', colour: 'yellow/red', to: 'controller A14', cylinder: 3 },
        { pin: '4', signal: 'injector 4, low', colour: 'yellow/green', to: 'controller A15', cylinder: 4 },
        { pin: '5', signal: 'injectors 1 and 4, supply', colour: 'white', to: 'controller A1', cylinder: null },
        { pin: '6', signal: 'injectors 2 and 3, supply', colour: 'white/blue', to: 'controller A2', cylinder: null },
        { pin: '7', signal: 'glow rail', colour: 'red', to: 'glow relay 87', cylinder: null },
        { pin: '8', signal: '', colour: '', to: '', cylinder: null },
      ],
    },
    source: 'Pellmarsh workshop book, sheet 14, invented',
  },
  {
    family: 'L4-20',
    kind: 'fitting',
    key: 'glow-plugs/torque',
    body: { value: '16 Nm' },
    source: 'Pellmarsh workshop book, sheet 12, invented',
  },
  {
    family: 'L4-20',
    kind: 'fitting',
    key: 'glow-plugs/extract',
    body: { value: '35 Nm' },
    source: 'Pellmarsh workshop book, sheet 12, invented',
  },
  {
    family: 'L6-109',
    kind: 'fitting',
    key: 'injectors/torque',
    body: { value: '30 Nm' },
    source: 'Pellmarsh workshop book, sheet 31, invented',
  },
  {
    family: 'L6-109',
    kind: 'fitting',
    key: 'injectors/angle',
    body: { value: '90°' },
    source: 'Pellmarsh workshop book, sheet 31, invented',
  },
  {
    family: 'L6-109',
    kind: 'coding',
    key: 'injector',
    body: { alphabet: ALPHABET, lengths: [30], check: 'mod-alphabet', groups: 5 },
    source: 'Pellmarsh workshop book, sheet 33, invented',
  },
  {
    family: null,
    kind: 'costs',
    key: 'plug',
    body: {
      part: 2350,
      access_min: 45,
      each_min: 12,
      labour: 7800,
      breakage: 0.03,
      breakageCost: 85000,
      comeback: 24000,
      horizon_h: 1500,
      shape: 2.2,
      scale_h: 6000,
      currency: 'EUR',
    },
    source: 'Price list of the Board, invented',
  },
];

const plugSteps = (positions: readonly Position[], only?: readonly string[]): DemoStep => ({
  do: 'steps',
  sequence: 'glow-plugs',
  positions,
  values: { extract: '22 Nm', torque: '16 Nm' },
  tool: 'torque wrench 2',
  ...(only ? { only } : {}),
});

export const REPAIRS: readonly DemoRepair[] = [
  {
    unit: 'PL-03',
    by: 'Ines Varga',
    then: [
      { do: 'scan', said: 'no codes in any controller' },
      { do: 'release', said: 'Nothing out of its limits; ready for the season' },
    ],
  },
  {
    unit: 'PL-16',
    visit: 'last winter',
    by: 'Jory Thane',
    then: [
      { do: 'decide', school: 'one', inputs: { ...PLUG, age_h: 3900 }, why: 'The others read good' },
      {
        do: 'quote',
        lines: [
          ['Plug, new', 1, 2350],
          ['Labour, hours', 0.95, 7800],
        ],
      },
      { do: 'answer', answer: 'accepted', said: 'Works office, by telephone' },
      plugSteps([4]),
      {
        do: 'measure',
        test: 'glow-plug-resistance',
        states: ['key-off', 'leads-off', 'same-temperature', 'meter-battery'],
        readings: set('0.7', '0.6', '0.7', '0.6'),
      },
      { do: 'codes', phase: 'after-clearing' },
      {
        do: 'see',
        evidence: {
          kind: 'drive',
          conditions: ['cold'],
          outcome: 'did not show',
          seen: 'first start of the day, clean on all four',
        },
      },
      { do: 'scan', said: 'no codes' },
      { do: 'release', said: 'Runs on four from cold' },
    ],
  },
  { unit: 'PL-16', by: 'Jory Thane', then: [{ do: 'comeback', of: 'last winter' }] },
  {
    unit: 'PL-14',
    by: 'Tobin Marsh',
    then: [
      { do: 'decide', school: 'set', inputs: PLUG, why: 'All four have the same age; the cover is off' },
      {
        do: 'quote',
        lines: [
          ['Plugs, new', 4, 2350],
          ['Labour, hours', 1.55, 7800],
        ],
      },
      { do: 'answer', answer: 'accepted', said: 'Works office' },
      plugSteps([1, 2, 3, 4], ['warm', 'clean', 'soak', 'extract']),
    ],
  },
  {
    unit: 'PL-11',
    by: 'Tobin Marsh',
    then: [
      {
        do: 'decide',
        school: 'set',
        inputs: { ...PLUG, positions: 5, failed: 4, age_h: 5270 },
        why: 'Four of five are gone',
      },
      {
        do: 'quote',
        lines: [
          ['Plugs, new', 5, 2350],
          ['Labour, hours', 1.75, 7800],
        ],
        note: 'Starts badly below five degrees until then',
      },
      {
        do: 'answer',
        answer: 'deferred',
        until: '2027-02-01',
        said: 'After the gritting season; the spare gritter stands by',
      },
    ],
  },
  {
    unit: 'PL-27',
    by: 'Tobin Marsh',
    then: [
      {
        do: 'quote',
        lines: [
          ['Injector, new', 1, 41200],
          ['Sealing washer and stretch bolts', 1, 2900],
          ['Labour, hours', 2.5, 7800],
        ],
      },
      { do: 'answer', answer: 'accepted', said: 'Works office, order 118 (invented)' },
      {
        do: 'steps',
        sequence: 'injectors',
        positions: [5],
        values: { torque: '30 Nm', angle: '90°', line: '28 Nm', rocker: '0.4 mm', cover: '9 Nm' },
        tool: 'torque wrench 1',
      },
      { do: 'code', position: 5, code: trim(BODY), old: trim('3KC7P0WD92L5AX8ETM4H6R1JN2U7V') },
      { do: 'codes', phase: 'after-clearing' },
    ],
  },
  {
    unit: 'PL-19',
    by: 'Ines Varga',
    then: [
      {
        do: 'quote',
        lines: [
          ['Injector module, repaired', 1, 64000],
          ['Labour, hours', 2, 7800],
        ],
      },
      {
        do: 'answer',
        answer: 'declined',
        said: 'The excavator is sold on in spring; it starts in the hall until then',
      },
    ],
  },
];

/** Steps that a demo repair ticks, in the order of the sequence. */
export const stepsOf = (s: Extract<DemoStep, { do: 'steps' }>) =>
  (SEQUENCES.find((x) => x.id === s.sequence)?.steps ?? [])
    .filter((x) => !s.only || s.only.includes(x.id))
    .flatMap((x) =>
      (x.each ? s.positions : [undefined]).map((position) => ({
        step: x.id,
        position,
        value: x.value ? (s.values[x.id] ?? '0') : undefined,
      })),
    );

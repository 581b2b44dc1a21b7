import type { Evidence } from '../core/evidence/types';
import type { Picture } from './pictures';
import type { Intake } from '../formats/requests/intake';

/** What was asked, seen and found in jobs of the invented fleet. All made up. */
export interface DemoStory {
  readonly unit: string;
  readonly visit?: string;
  readonly by: string;
  readonly intake?: Omit<Intake, 'photos'>;
  readonly evidence: readonly Evidence[];
  /** Of what was seen: a picture each. */
  readonly picture?: Picture;
  /** `more`: what is advised, or what to try when it returns. */
  readonly finding?: { readonly kind: 'found' | 'not-found'; readonly text: string; readonly more: string };
}

export const STORIES: readonly DemoStory[] = [
  {
    unit: 'PL-14',
    by: 'Tobin Marsh',
    intake: { conditions: ['cold'], when: 'First start of the day below ten degrees', replaced: [], signs: [] },
    evidence: [],
    finding: {
      kind: 'found',
      text: 'The plug of cylinder 3 is bad; its wire is good',
      more: 'Change the set at the next service: the other three have the same age',
    },
  },
  {
    unit: 'PL-11',
    by: 'Tobin Marsh',
    intake: {
      conditions: ['cold'],
      replaced: [{ what: 'Two plugs', by: 'the depot, last spring', helped: 'for a while' }],
      signs: [],
    },
    evidence: [],
    finding: {
      kind: 'found',
      text: 'Four of the five plugs are bad; the two of last spring are among them',
      more: 'Change the set, and look at what the control unit gives them',
    },
  },
  {
    unit: 'PL-19',
    by: 'Ines Varga',
    intake: { conditions: ['cold'], replaced: [], signs: [] },
    evidence: [],
    finding: {
      kind: 'found',
      text: 'The injector module falls under 45 V at raised idle while cold',
      more: 'Read its feed and ground under load before a module is bought',
    },
  },
  {
    unit: 'PL-16',
    visit: 'last winter',
    by: 'Jory Thane',
    intake: { conditions: ['cold'], replaced: [], signs: [] },
    evidence: [{ kind: 'new-part', part: 'plug', position: 4, outcome: 'cured', changed: 'Starts clean, code gone' }],
    finding: {
      kind: 'found',
      text: 'The plug of cylinder 4 is bad',
      more: 'Look at the loom behind the bracket when the lamp comes again',
    },
  },
  {
    unit: 'PL-16',
    by: 'Jory Thane',
    intake: {
      conditions: ['cold', 'intermittent'],
      when: 'Most mornings',
      replaced: [{ what: 'Plug 4', by: 'North Sluice, last winter', helped: 'for a while' }],
      signs: ['Bracket screwed on over the loom'],
    },
    picture: 'pinched',
    evidence: [
      { kind: 'wiggle', where: 'the bracket behind cylinder 4', position: 4, outcome: 'broke' },
      {
        kind: 'visual',
        where: 'the bracket behind cylinder 4',
        position: 4,
        damaged: true,
        seen: 'loom pinched under the bracket, two strands left',
      },
    ],
  },
  {
    unit: 'PL-27',
    by: 'Tobin Marsh',
    intake: {
      conditions: ['load', 'wet'],
      when: 'Loaded, uphill, in rain',
      replaced: [{ what: 'Six injectors', by: 'a workshop elsewhere, in spring', helped: 'no' }],
      signs: ['Wrong sealant at the cover', 'A clip left open'],
    },
    picture: 'rubbed',
    evidence: [
      {
        kind: 'visual',
        where: 'the loom under the cover at cylinder 3',
        position: 3,
        damaged: true,
        seen: 'insulation rubbed through where the bracket touches it',
      },
      {
        kind: 'repair',
        where: 'the loom under the cover at cylinder 3',
        path: true,
        part: 'injector',
        position: 3,
        done: 'loom replaced, clip set, bracket edge dressed',
      },
      { kind: 'cut-out', position: 5, faultPresent: true, change: 'none' },
      { kind: 'swap', part: 'injector', from: 5, to: 2, outcome: 'followed' },
      // And back again.
      { kind: 'swap', part: 'injector', from: 2, to: 5, outcome: 'followed' },
    ],
    finding: {
      kind: 'found',
      text: 'The injector of cylinder 5 is bad; the chafed loom at cylinder 3 had hidden it',
      more: 'Look at the other injectors’ return flow at the next service',
    },
  },
  {
    unit: 'PL-30',
    by: 'Ines Varga',
    intake: {
      conditions: ['hot', 'load', 'intermittent'],
      when: 'After half an hour',
      replaced: [{ what: 'Fuel filter', by: 'the driver', helped: 'no' }],
      signs: [],
    },
    evidence: [
      { kind: 'drive', conditions: ['cold'], outcome: 'did not show', seen: 'forty minutes on the level, nothing' },
      {
        kind: 'drive',
        conditions: ['hot', 'load'],
        outcome: 'showed',
        seen: 'engine speed fell to nothing on the scan tool while the engine still turned',
      },
    ],
    finding: {
      kind: 'not-found',
      text: 'Engine speed signal lost when hot; the coil reads good cold',
      more: 'Read the coil again while it is hot, before it starts again',
    },
  },
];

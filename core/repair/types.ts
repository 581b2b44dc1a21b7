import type { Position } from '../judge/types';
import type { OneOrSetInputs } from './one-or-set';

export interface QuotationLine {
  readonly text: string;
  readonly quantity: number;
  /** Integer minor units. */
  readonly price: number;
}

export const ANSWERS = ['accepted', 'declined', 'deferred'] as const;
export type Answer = (typeof ANSWERS)[number];

/** What is written between finding and release. Append-only: of what is said twice the newest counts. */
export type RepairRecord =
  | {
      readonly kind: 'decision';
      readonly finding: string;
      readonly school: 'one' | 'set';
      readonly inputs: OneOrSetInputs;
      readonly currency: string;
      readonly why: string;
    }
  | {
      readonly kind: 'quotation';
      readonly finding: string;
      readonly currency: string;
      readonly lines: readonly QuotationLine[];
      readonly note: string;
    }
  | {
      readonly kind: 'answer';
      readonly quotation: string;
      readonly answer: Answer;
      /** Day, ISO 8601. */ readonly until?: string | undefined;
      readonly said: string;
    }
  | {
      readonly kind: 'step';
      readonly sequence: string;
      readonly step: string;
      readonly position?: Position | undefined;
      readonly value?: string | undefined;
      readonly tool?: string | undefined;
      readonly note?: string | undefined;
    }
  | {
      readonly kind: 'coding';
      readonly part: string;
      readonly position: number;
      readonly code: string;
      readonly old?: string | undefined;
      readonly how: 'typed' | 'pasted' | 'photo';
    }
  | { readonly kind: 'scan'; readonly outcome: 'clean' | 'codes'; readonly said: string }
  | {
      readonly kind: 'release';
      readonly said: string;
      readonly waived: readonly { readonly check: ProofCheckId; readonly because: string }[];
    }
  | { readonly kind: 'reopen'; readonly because: string }
  | { readonly kind: 'comeback'; readonly of: string };

export type ProofCheckId =
  'finding' | 'agreed' | 'repaired' | 'measured-again' | 'coded' | 'codes-cleared' | 'road-test' | 'vehicle-scan';

/** One thing that proves a repair. */
export interface ProofCheck {
  readonly id: ProofCheckId;
  readonly label: string;
  readonly state: 'done' | 'open' | 'failed';
  /** What it rests on, or what is missing. */
  readonly why: string;
}

export interface Recorded {
  readonly id: string;
  readonly body: RepairRecord;
  readonly by: string;
  readonly at: string;
}

import type { Position } from '../judge/types';
import type { OneOrSetInputs } from './one-or-set';

export interface QuotationLine {
  readonly text: string;
  readonly quantity: number;
  /** Integer minor units. */
  readonly price: number;
  /** Of the part, as the workshop orders it. */
  readonly partNumber?: string | undefined;
}

/** Why a step has no value, or was not done. */
export const LEFT = ['not measured', 'does not apply'] as const;
export type Left = (typeof LEFT)[number];

/** What a tick says, of one step or of many. */
interface Ticked {
  readonly sequence: string;
  /** Absent in what was ticked before findings had steps of their own: it counts for each. */
  readonly finding?: string | undefined;
  readonly value?: string | undefined;
  readonly tool?: string | undefined;
  readonly note?: string | undefined;
  readonly left?: Left | undefined;
}

export const ANSWERS = ['accepted', 'declined', 'deferred'] as const;
export type Answer = (typeof ANSWERS)[number];

/** What is written between finding and release. Append-only: of what is said twice the newest counts. */
export type RepairRecord =
  | {
      readonly kind: 'decision';
      readonly finding: string;
      readonly school: 'one' | 'set';
      /** What it was reckoned with; `null`: it was decided without a sum. */
      readonly inputs: OneOrSetInputs | null;
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
      /** Day, ISO 8601: deferred until then, or accepted for then. */
      readonly until?: string | undefined;
      readonly said: string;
    }
  | (Ticked & { readonly kind: 'step'; readonly step: string; readonly position?: Position | undefined })
  /** Many steps and positions at once, with one value: read as a `step` each. */
  | (Ticked & {
      readonly kind: 'ticks';
      readonly ticks: readonly { readonly step: string; readonly position?: Position | undefined }[];
    })
  /** A step in one's own words, done. */
  | { readonly kind: 'own-step'; readonly finding: string; readonly say: string }
  | {
      readonly kind: 'coding';
      readonly part: string;
      readonly position: number;
      readonly code: string;
      readonly old?: string | undefined;
      readonly how: 'typed' | 'pasted' | 'photo';
      /** Why it is right although it is not as long as these codes are. */
      readonly because?: string | undefined;
    }
  | { readonly kind: 'coding-withdrawn'; readonly part: string; readonly position: number; readonly because: string }
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

/** As they were written, with what one record says of many steps as a record each. */
export const eachStep = (records: readonly Recorded[]): Recorded[] =>
  records.flatMap((r): Recorded[] => {
    if (r.body.kind !== 'ticks') return [r];
    const { ticks, ...said } = r.body;
    return ticks.map((t, i) => ({ ...r, id: i === 0 ? r.id : `${r.id} ${i}`, body: { ...said, ...t, kind: 'step' } }));
  });

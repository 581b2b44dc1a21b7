import type { Quantity } from '../quantity/units';

/** One value that a meter has sent. */
export interface MeterValue {
  /** In the base unit of its quantity; `null`: beyond the range. */
  readonly value: number | null;
  /** One step of the last digit that was sent, in the base unit; 0 where the number does not tell. */
  readonly step: number;
  /** `null`: the meter does not say what it measures. */
  readonly quantity: Quantity | null;
  readonly alternating: boolean;
  readonly lowBattery: boolean;
  /** The display is frozen: nothing that it shows is new. */
  readonly hold: boolean;
  /** Shown against a stored value: no longer what is between the probes. */
  readonly relative: boolean;
}

/** Why a line is no value. */
export type LineProblem =
  'no number' | 'several numbers' | 'not a number' | 'unknown unit' | 'no match' | 'too long' | 'an error of the meter';

export type ReadLine =
  { readonly ok: true; readonly value: MeterValue } | { readonly ok: false; readonly why: LineProblem };

export const NO_FLAGS = { alternating: false, lowBattery: false, hold: false, relative: false } as const;
export const unread = (why: LineProblem): ReadLine => ({ ok: false, why });

/** In words, for the person at the bench. */
export const LINE_PROBLEM_WORDS: Readonly<Record<LineProblem, string>> = {
  'no number': 'there is no number in it',
  'several numbers': 'there are several numbers in it, and nothing says which is the value',
  'not a number': 'the meter says that it has no number',
  'unknown unit': 'its unit is not known here',
  'no match': 'the pattern does not fit it',
  'too long': 'it is longer than a line of a meter',
  'an error of the meter': 'the meter reports an error',
};

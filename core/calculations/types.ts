/**
 * A quantity that a sum asks for or gives. `unit` as written for people; all sums compute in the units that
 * stand here.
 */
export interface Slot {
  readonly id: string;
  readonly label: string;
  readonly unit: string;
  /** What stands there before anything is typed; absent: nothing. */
  readonly initial?: number | undefined;
  /** May be left empty. */
  readonly optional?: boolean | undefined;
  readonly min?: number | undefined;
  readonly max?: number | undefined;
  /** Several numbers, separated by spaces or semicolons. */
  readonly list?: boolean | undefined;
  /** One of these instead of a number. */
  readonly options?: readonly { readonly value: number; readonly label: string }[] | undefined;
  /** What of the bench fills it. */
  readonly from?: 'reading' | 'lead-zero' | 'system-voltage' | 'temperature' | undefined;
}

export type Inputs = Readonly<Record<string, number | readonly number[] | undefined>>;

export interface Outcome {
  readonly label: string;
  readonly value: number;
  readonly unit: string;
}

/** A sum that the trade does by hand or skips. */
export interface Calculation {
  readonly id: string;
  readonly name: string;
  readonly formula: string;
  readonly source: string;
  readonly inputs: readonly Slot[];
  /** Numbers in the units of the slots; a problem is a sentence. */
  readonly compute: (inputs: Inputs) => readonly Outcome[] | string;
}

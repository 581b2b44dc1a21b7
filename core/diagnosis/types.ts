import type { Wiring } from '../circuits/expand';
import type { LibraryCircuit } from '../circuits/types';
import type { Position } from '../judge/types';
import type { Moment } from '../evidence/kinds/supposition';
import type { Evidence, Ref } from '../evidence/types';

/** A reading as evidence, in ohms, volts or amperes. */
export interface DiagnosticReading {
  readonly test: string;
  readonly position: Position;
  readonly kind: 'value' | 'overload' | 'unsteady';
  /** For `value`. */
  readonly value: number;
  /** For `unsteady`: between which values the display wandered; `null` is overload. */
  readonly ends?: { readonly low: number; readonly high: number | null } | undefined;
  /** Standard uncertainty of the measurement itself. */
  readonly u: number;
  /** What is known of the moment: what comes and goes may depend on it. */
  readonly under?: readonly Moment[] | undefined;
  /** When it was read (ISO 8601, UTC); absent: now. */
  readonly at?: string | undefined;
  /** What must be settled about the measurement first, in a sentence; absent: nothing. */
  readonly doubt?: string | undefined;
  /** Id of the test run in which it was read; absent: of a file. */
  readonly run?: string | undefined;
}

/** Evidence that is no reading, as it is weighed. */
export interface Observed {
  /** Of the recorded evidence; absent: of a file. */
  readonly id?: string | undefined;
  readonly body: Evidence;
}
export type { Moment };

/** Something that makes what is named likelier or less likely before anything was measured. */
export interface PriorFactor {
  /** Name of a part or path in the circuit's suspects; absent: any. */
  readonly name?: string | undefined;
  readonly position?: number | undefined;
  readonly is?: Member['is'] | undefined;
  readonly intermittent?: boolean | undefined;
  readonly factor: number;
  /** "plugs of this fleet: 14 of 20 findings" */
  readonly why: string;
}

export interface DiagnosisInputs extends Wiring {
  readonly circuit: LibraryCircuit;
  readonly measured: readonly DiagnosticReading[];
  readonly observed: readonly Observed[];
  /** Cylinders that fault codes name. */
  readonly coded: readonly number[];
  /** Age, history of the unit and the fleet, the complaint. */
  readonly priorFactors?: readonly PriorFactor[] | undefined;
  /** When the complaint shows itself: what comes and goes is there then. */
  readonly shows?: readonly Moment[] | undefined;
  /** The engine has run: what must be read cold waits until it has cooled. */
  readonly warm?: boolean | undefined;
}

/** What would be wrong: one suspect, or a plausible pair of them. */
export interface Hypothesis {
  /**
   * Of the suspect without its size: hypotheses of one key are one suspect. `outside`: nothing in this
   * circuit.
   */
  readonly key: string;
  readonly members: readonly Member[];
  readonly weight: number;
}

export interface Member {
  readonly key: string;
  readonly element: string;
  readonly position: number | null;
  /** `source`: its volts are what `ohms` leaves of them, as a factor. */
  readonly fault: 'open' | 'series' | 'resistance' | 'source';
  readonly ohms: number;
  readonly intermittent: boolean;
  readonly when: readonly Moment[];
  readonly is: 'part' | 'path' | 'shared' | 'input';
  readonly name: string;
  readonly words: string;
  /** As a person calls it, where name and position do not say it. */
  readonly called?: string;
  /** `false`: the circuit's data do not list it. */
  readonly isListed?: boolean;
  /** Elements and nodes that it may sit at, by their ids; absent: its element. */
  readonly stretch?: readonly string[];
}

export interface WeighedEvidence {
  readonly label: string;
  /** The run or the evidence that it comes from; `null` where that has no id. */
  readonly ref: Ref | null;
  /** Of a reading: its test and position, as one key. `null` for other evidence. */
  readonly point: string | null;
  /** Natural logarithm of how much likelier the evidence is if the suspect is true than if it is not. */
  readonly nats: number;
  readonly strength: 'strongly' | 'clearly' | 'slightly';
}

export interface Suspect {
  readonly key: string;
  readonly element: string;
  readonly position: number | null;
  readonly fault: string;
  /** "plug 3 is open" */
  readonly words: string;
  readonly is: Member['is'];
  readonly name: string;
  /** As a person calls it, where name and position do not say it. */
  readonly called?: string;
  /** `false`: the circuit's data do not list it; something of this kind may be wrong at any place. */
  readonly isListed?: boolean;
  /** What the readings confine it to: elements and nodes, by their ids. */
  readonly stretch?: readonly string[];
  readonly probability: number;
  /**
   * Something that was read or seen is clearly likelier with it than with nothing wrong: it is not left over
   * only.
   */
  readonly contradictsGood?: boolean;
  /** Inside a control unit: convicted last. */
  readonly isUnit?: boolean;
  readonly supports: readonly WeighedEvidence[];
  readonly contradicts: readonly WeighedEvidence[];
}

export interface NextTest {
  readonly test: string;
  readonly position: Position;
  readonly expectedInformation_bits: number;
  readonly minutes: number;
  readonly why: string;
}

export interface Diagnosis {
  readonly suspects: readonly Suspect[];
  /** Left to causes outside the circuit. */
  readonly unexplained: number;
  readonly next: readonly NextTest[];
  /** Of what is inside the circuit: the share of faults that its data do not list. */
  readonly notListed: number;
  /** Why nothing is decided yet although one explanation leads; absent: nothing is held back. */
  readonly heldBack?: string;
  /** A reading that it rests on is doubted: the meter or its leads are the first suspects. */
  readonly isDoubted?: boolean;
  /** Further tests would hardly change what to do. */
  readonly decided: boolean;
  /** What cannot be used, or does not fit: in sentences. */
  readonly notes: readonly string[];
}

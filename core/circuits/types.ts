/**
 * A circuit of the trade as data. In names `{}` stands for a cylinder, `{bank}` for its bank, `{pair}` for
 * the pair whose drivers it shares. Values are invented or common practice, for the shelf to replace: never
 * those of a real engine.
 */
export interface LibraryCircuit {
  readonly id: string;
  readonly name: string;
  readonly purpose: string;
  readonly revision: number;
  /** The node at 0 V. */
  readonly reference: string;
  readonly values: Readonly<Record<string, CircuitValue>>;
  readonly elements: readonly LibraryElement[];
  /**
   * There once per cylinder; of `elements`, those with `{bank}` or `{pair}` in their ids are there once per
   * bank or pair.
   */
  readonly perCylinder: readonly LibraryElement[];
  readonly suspects: readonly SuspectKind[];
  readonly probes: readonly Probe[];
  /**
   * Places of nodes on the drawing, in grid steps; `dx` and `dy` are the steps per cylinder, bank or pair.
   */
  readonly drawing: Readonly<
    Record<string, { readonly x: number; readonly y: number; readonly dx?: number; readonly dy?: number }>
  >;
  /** Its sources are of the battery: written for 12 V, set by the engine. */
  readonly follows?: 'systemVoltage';
  /** Area of the catalogue: codes and complaints that point there point at this circuit. */
  readonly area: string;
  /** Codes of the engine families that have it; absent: any may. */
  readonly families?: readonly string[];
}

export interface CircuitValue {
  readonly value: number;
  readonly unit: 'ohm' | 'V';
  /** Relative standard deviation between good parts. */
  readonly spread: number;
  /**
   * How much good parts of one type differ from those of another, as a relative standard deviation; absent:
   * hardly. Limits of the shelf say which type it is.
   */
  readonly types?: number;
  readonly what: string;
  /** The limits of this test, for this engine, tell the value and its spread better. */
  readonly shelf?: { readonly test: string; readonly position?: string };
}

export interface LibraryElement {
  readonly id: string;
  readonly kind: 'resistor' | 'source' | 'switch';
  readonly from: string;
  readonly to: string;
  /** Key of `values`; a switch has the resistance of its closed contact. */
  readonly value: string;
  readonly label: string;
  /** States in which a switch is closed. */
  readonly closedIn?: readonly string[];
  /** Drawn upright so many grid steps beside its first end. */
  readonly aside?: number;
  /** How it is drawn. */
  readonly symbol?:
    'wire' | 'plug' | 'fuse' | 'relay' | 'battery' | 'ground' | 'coil' | 'module' | 'leak' | 'input' | 'hidden';
}

/** What can be wrong with an element. */
export interface SuspectKind {
  readonly element: string;
  readonly fault: 'open' | 'series' | 'resistance';
  /** Ohms; one suspect is spread over them. Absent for `open`. */
  readonly sizes?: readonly number[];
  /** How often, against the others. Common practice, no source. */
  readonly prior: number;
  /** Comes and goes: a reading may wander. */
  readonly intermittent?: boolean;
  /** What it is said to depend on; absent: anything may bring it on. */
  readonly when?: readonly ('cold' | 'hot' | 'load')[];
  readonly is: 'part' | 'path' | 'shared' | 'input';
  readonly name: string;
  /** "is open", "has gone high". */
  readonly words: string;
}

/** A test of the catalogue, as the circuit sees it. */
export interface Probe {
  readonly test: string;
  /** `{}`: one per cylinder. */
  readonly position: string;
  readonly mode: 'voltage' | 'resistance' | 'current';
  readonly red?: string;
  readonly black?: string;
  readonly element?: string;
  readonly state: string;
  /** Taken off for it. */
  readonly opened?: readonly string[];
  /**
   * What is shown for each ampere or volt there is; 1 where absent. A mirror of a thousandth is read in
   * thousandfold.
   */
  readonly scale?: number;
}

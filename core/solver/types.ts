/** A circuit as a netlist. Nodes are named by what they join; the reference node is 0 V. */
export type Element = { readonly id: string; readonly from: string; readonly to: string } & (
  | { readonly kind: 'resistor'; /** 0 is an ideal wire. */ readonly ohms: number }
  /** Drives `from` positive to `to`. */
  | { readonly kind: 'voltage'; readonly volts: number }
  /** Pushes its current through itself from `from` to `to`. */
  | { readonly kind: 'current'; readonly amperes: number }
  | { readonly kind: 'switch'; readonly closed: boolean }
);

export type Fault = { readonly element: string } & (
  | { readonly kind: 'open' | 'short' }
  /** Replaces the value of a resistor or the contact of a switch. */
  | { readonly kind: 'resistance'; readonly ohms: number }
  /** Adds to it; to a source it is an inner resistance. */
  | { readonly kind: 'series'; readonly ohms: number }
);

export type Measure = { readonly id: string } &
  /** `meter_ohm` absent: an ideal meter. */
  (
    | {
        readonly mode: 'voltage';
        readonly red: string;
        readonly black: string;
        readonly meter_ohm?: number | undefined;
        readonly lead_ohm?: number | undefined;
      }
    /**
     * The lead resistance is in the reading, as on a real meter. Above `overload_ohm` the display shows
     * overload.
     */
    | {
        readonly mode: 'resistance';
        readonly red: string;
        readonly black: string;
        readonly lead_ohm?: number | undefined;
        readonly overload_ohm?: number | undefined;
      }
    /** With a clamp, or with a meter in the way of the current (`meter_ohm`). */
    | { readonly mode: 'current'; readonly element: string; readonly meter_ohm?: number | undefined }
  );

export interface Circuit {
  readonly reference: string;
  readonly elements: readonly Element[];
}

export interface CircuitSolution {
  /** Volts against the reference. */
  readonly nodes: Readonly<Record<string, number>>;
  /** Amperes, positive from `from` to `to` through the element. */
  readonly branches: Readonly<Record<string, number>>;
  /** Nodes that nothing joins to the reference: their level is nobody's, one of them is put at 0 V. */
  readonly floating: readonly string[];
}

export interface Reading {
  readonly id: string;
  /** `null`: overload. */
  readonly value: number | null;
  readonly unit: 'V' | 'ohm' | 'A';
  readonly overload: boolean;
}

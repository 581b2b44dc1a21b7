/** What a fault code says, decoded from the structure of the public standards. */
export interface CodeMeaning {
  /** As the standard writes it: "P0672", "SPN 653 FMI 5". */
  readonly code: string;
  /**
   * What it is about: "glow plugs", "injectors"; the standard's own division where nothing finer is known.
   */
  readonly system: string;
  /**
   * The part or circuit; `null` where the code is in a range of the standard but its part is not in the table
   * here.
   */
  readonly component: string | null;
  readonly cylinder: number | null;
  /** Kind of failure in words; `null` where the code does not tell. */
  readonly failure: string | null;
  readonly standard: 'SAE J2012' | 'SAE J1939-73';
  /** `maker-defined`: the maker decides what it means; kept as it is, a depot may describe it. */
  readonly confidence: 'standard' | 'maker-defined';
}

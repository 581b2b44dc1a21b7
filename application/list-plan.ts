/** What a list would do, or has done, a row for each thing that stands in it. */
export interface ListPlan<T> {
  readonly rows: readonly (T & { readonly action: 'new' | 'change' | 'unchanged' })[];
  /** How many were stored; 0 of a look. */
  readonly stored: number;
}

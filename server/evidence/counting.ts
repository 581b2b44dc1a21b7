import { groupBy } from '../../core/foundation/collections';

interface Slip {
  readonly id: string;
  readonly jobId: string;
  /** Id of the slip that does not count since this one was written; `null`: it says something itself. */
  readonly takesBack: string | null;
}

/**
 * What counts of each job, in the order given: what was not taken back. A job of which nothing counts is not
 * in it.
 */
export function countingByJob<S extends Slip>(rows: readonly S[]): Map<string, readonly S[]> {
  const takenBack = new Set(rows.map((r) => r.takesBack));
  return groupBy(
    rows.filter((r) => r.takesBack === null && !takenBack.has(r.id)),
    (r) => r.jobId,
  );
}

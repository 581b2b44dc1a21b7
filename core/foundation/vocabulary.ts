/** The words in which a judgement is given: one word per concept, across screens, files and the database. */

export const VERDICTS = [
  'within',
  'watch',
  'recheck',
  'high',
  'low',
  'open',
  'short',
  'unsteady',
  'odd',
  'undecided',
  'not-measured',
  'failed',
  'no-limit',
] as const;
export type Verdict = (typeof VERDICTS)[number];

export type Severity = 'pass' | 'attention' | 'fail' | 'undecided' | 'none';

export type Pattern = 'good' | 'one' | 'some' | 'group' | 'all' | 'incomplete' | 'undecided';

export const SEVERITY: Readonly<Record<Verdict, Severity>> = {
  within: 'pass',
  watch: 'attention',
  recheck: 'attention',
  odd: 'attention',
  // A value that will not settle is a fail even inside the limits: common practice, no source.
  high: 'fail',
  low: 'fail',
  open: 'fail',
  short: 'fail',
  unsteady: 'fail',
  // Of an observation, which has no number.
  failed: 'fail',
  undecided: 'undecided',
  'not-measured': 'none',
  // Read, and nothing says what it should be.
  'no-limit': 'none',
};

/** What a person may do: read; record; record and decide for the workshop. */
export const ROLES = ['technician', 'lead', 'viewer'] as const;
export type Role = (typeof ROLES)[number];

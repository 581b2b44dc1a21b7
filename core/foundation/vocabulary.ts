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

/** What the engine was seen to do while it was read. */
export const ENGINE_SEEN = ['stopped', 'cranking', 'idling', 'under load'] as const;
export type EngineSeen = (typeof ENGINE_SEEN)[number];
/** What the scan tool shows of the command to the part. */
export const COMMAND_SEEN = ['on', 'off', 'not shown'] as const;
export type CommandSeen = (typeof COMMAND_SEEN)[number];

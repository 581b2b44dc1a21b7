import type { Role } from '../core/foundation/vocabulary';

/**
 * Who may do what: the one table. Route handlers ask it, screens show what it allows, and the access test
 * goes through it. What does not stand here is refused.
 */
export interface Rule {
  /** The least that a person must be; `any`: signed in is enough. */
  readonly role: 'any' | 'technician' | 'lead';
  /**
   * To what kind of thing it is done: only people of the depot of that thing may, and those of all depots.
   * `null`: it belongs to no depot.
   */
  readonly of: ScopeKind | null;
  /** As a refusal says it: "A viewer may not record readings". */
  readonly what: string;
}

/** Things that belong to a depot. */
export type ScopeKind = 'depot' | 'unit' | 'job' | 'run' | 'instrument' | 'person';

const rule = (role: Rule['role'], of: Rule['of'], what: string): Rule => ({ role, of, what });

export const POLICY = {
  look: rule('any', null, 'look at this'),
  'own.locale': rule('any', null, 'choose how numbers are shown'),
  'limits.compare': rule('any', null, 'compare limits'),

  'unit.add': rule('technician', 'depot', 'add a unit'),
  'unit.note-parts': rule('technician', 'unit', 'note parts'),
  'units.import': rule('lead', null, 'take in a list of units'),
  'unit.change': rule('lead', 'unit', 'change units'),
  'engine-family.add': rule('technician', null, 'add an engine family'),
  'engine-family.change': rule('lead', null, 'change engine families'),
  'workshop.change': rule('lead', null, 'change the workshop'),
  'depot.add': rule('lead', null, 'add a depot'),
  'depot.change': rule('lead', 'depot', 'change this depot'),
  'depots.import': rule('lead', null, 'take in a list of depots'),
  'depot.choose': rule('lead', 'depot', 'choose how this depot judges'),
  'depot.describe-codes': rule('technician', 'depot', 'describe codes'),

  'person.add': rule('lead', 'depot', 'change people'),
  'person.change': rule('lead', 'person', 'change people'),
  'people.import': rule('lead', null, 'take in a list of people'),

  'instrument.add': rule('lead', 'depot', 'change instruments'),
  'instruments.import': rule('lead', null, 'take in a list of instruments'),
  'instrument.retire': rule('lead', 'instrument', 'change instruments'),
  'instrument.follow': rule('technician', 'instrument', 'read a meter'),
  'test-leads.measure': rule('technician', 'depot', 'measure test leads'),

  'limits.draft': rule('technician', null, 'put limits on the shelf'),
  'limits.draft-for-depot': rule('technician', 'depot', 'put limits on the shelf'),
  'limits.approve': rule('lead', null, 'approve limits'),
  'limits.replace-approved': rule('lead', null, 'replace approved limits'),
  'limits.withdraw': rule('lead', null, 'take limits off the shelf'),
  'limits.apply': rule('lead', null, 'judge open jobs again'),
  'limits.apply-to-depot': rule('lead', 'depot', 'judge open jobs again'),
  'catalogue.change': rule('lead', null, 'change the catalogue'),
  'circuits.change': rule('lead', null, 'change circuits'),
  'service-data.change': rule('lead', null, 'enter service data'),

  'job.open': rule('technician', 'unit', 'open a job'),
  'waiting.open': rule('lead', null, 'take in what a device has saved'),
  'job.import': rule('lead', 'depot', 'take in a job from elsewhere'),
  'job.keep-codes': rule('technician', 'job', 'keep codes'),
  'job.take-codes-back': rule('technician', 'job', 'take codes back'),
  'job.change-intake': rule('technician', 'job', 'change the intake'),
  'job.change-plan': rule('technician', 'job', 'change the plan'),
  'job.note-calculation': rule('technician', 'job', 'put a sum into the record'),
  'job.record-evidence': rule('technician', 'job', 'record evidence'),
  'job.take-evidence-back': rule('technician', 'job', 'take evidence back'),
  'job.add-photo': rule('technician', 'job', 'add a photo'),
  'job.plan-leads': rule('technician', 'job', 'say which lead goes to which pin'),
  'job.add-trace': rule('technician', 'job', 'add a recording'),
  'job.note-trace': rule('technician', 'job', 'mark a recording'),
  'job.judge-capture': rule('lead', 'job', 'say what a capture is good for'),
  'job.write-finding': rule('technician', 'job', 'write a finding'),
  'job.write-repair': rule('technician', 'job', 'write into the record'),
  'job.release-with-open-checks': rule('lead', 'job', 'release a job with a check left open'),

  'run.start': rule('technician', 'job', 'start a test'),
  'run.record-reading': rule('technician', 'run', 'record readings'),
  'run.state-circumstances': rule('technician', 'run', 'state what is true'),
  'run.import-readings': rule('technician', 'run', 'take readings from a file'),
  'run.judge-again': rule('technician', 'run', 'judge a test again'),
  'run.override-state': rule('lead', 'run', 'sign off a safety override'),
} as const satisfies Readonly<Record<string, Rule>>;
export type Action = keyof typeof POLICY;

export const ruleFor = (action: Action): Rule => POLICY[action];

/** From the least to the most. */
const RANK: Readonly<Record<Role, number>> = { viewer: 0, technician: 1, lead: 2 };
/** Whether one role may more than another. */
export const outranks = (role: Role, other: Role): boolean => RANK[role] > RANK[other];

const LEAST: Readonly<Record<Rule['role'], number>> = {
  any: RANK.viewer,
  technician: RANK.technician,
  lead: RANK.lead,
};

/** May a person of this role do it, as far as the role goes? What is not in the table nobody may. */
export function roleMay(role: Role | null, action: string): boolean {
  const found: Rule | undefined = Object.hasOwn(POLICY, action) ? POLICY[action as Action] : undefined;
  return found !== undefined && role !== null && RANK[role] >= LEAST[found.role];
}

/** The roles that a rule asks for. */
export const rolesFor = (action: Action): readonly Role[] =>
  (['viewer', 'technician', 'lead'] as const).filter((role) => roleMay(role, action));

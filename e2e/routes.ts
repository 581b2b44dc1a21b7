import { v7 } from 'uuid';
import type { Action } from '../application/policy';
import { demoId } from '../demo/load';

/** What a route does, by the policy; `open`: for anybody at all. Who may is read there. */
export interface Case {
  readonly route: string;
  readonly method: 'GET' | 'POST' | 'PUT';
  readonly action: Action | 'open';
  readonly body?: () => unknown;
  /** Of another content type than JSON. */
  readonly text?: readonly [type: string, body: string];
  readonly query?: string;
}

export const OF_UNIT = 'PL-19';
/** A unit of the same depot that has a recording. */
const TRACE_OF = 'PL-08';
export const NORTH = demoId('depot', 'North Sluice');
const entry = {
  test: 'sensor-ground',
  scope: 'general',
  limits: { quantity: 'voltage', unit: 'V', upper: 0.1 },
  source: 'access',
};
/** Of a recording, sound by its schema; but two samples are not two blocks. */
const WRONG_HEAD = {
  kind: 'csv',
  file: 'access.csv',
  size: 10,
  sha256: '0'.repeat(64),
  began_s: null,
  notes: [],
  streams: [{ count: 2, decimals: 0, wide: false, scale: 1, blocks: ['0'.repeat(64), '0'.repeat(64)] }],
  clocks: [{ runs: [{ first: 0, start_s: 0, period_s: 1 }], count: 2 }],
  channels: [{ column: 'a', name: 'a', unit: 'V', role: 'sensor', factor: 1, stream: 0, clock: 0 }],
  search: { core: 'x', findings: [], searched: [], summary: '' },
};
export const CASES: readonly Case[] = [
  { route: 'health', method: 'GET', action: 'open' },
  { route: 'judge', method: 'POST', action: 'open', body: () => ({}) },
  { route: 'session', method: 'GET', action: 'open' },
  { route: 'session/sign-in', method: 'POST', action: 'open', body: () => ({}) },
  { route: 'session/switch', method: 'POST', action: 'open', body: () => ({}) },
  { route: 'session/sign-out', method: 'POST', action: 'open', body: () => ({ no: 1 }) },
  {
    route: 'session/locale',
    method: 'POST',
    action: 'own.locale',
    body: () => ({ locale: { language: 'xx', decimal: 'point', units: 'given', dates: 'dmy' } }),
  },
  { route: 'set-up', method: 'POST', action: 'open', body: () => ({}) },
  { route: 'device-copy', method: 'GET', action: 'look' },
  { route: 'device-key', method: 'GET', action: 'look' },
  { route: 'waiting/open', method: 'POST', action: 'waiting.open', text: ['application/json', '{}'] },
  { route: 'workshop/logo', method: 'GET', action: 'look' },
  { route: 'workshop/logo', method: 'POST', action: 'workshop.change', text: ['image/png', 'no picture'] },
  { route: 'workshop/kit', method: 'GET', action: 'look' },
  { route: 'workshop/kit/import', method: 'POST', action: 'workshop.change', text: ['application/json', '{}'] },
  { route: 'workshop', method: 'POST', action: 'workshop.change', body: () => ({ name: 'Levels workshop' }) },
  {
    route: 'depots',
    method: 'POST',
    action: 'depot.add',
    body: () => ({ id: v7(), name: `Depot ${v7()}`, timeZone: 'Nowhere/None' }),
  },
  {
    route: 'depots/import',
    method: 'POST',
    action: 'depots.import',
    text: ['text/csv', 'name,time_zone\nNew depot,Nowhere/None\n'],
  },
  { route: 'depots/export', method: 'GET', action: 'look' },
  {
    route: 'people/import',
    method: 'POST',
    action: 'people.import',
    text: ['text/csv', 'name,role,depot\nNew person,lead,Nowhere\n'],
  },
  { route: 'people/export', method: 'GET', action: 'look' },
  { route: 'depots/[id]', method: 'POST', action: 'depot.change', body: () => ({ timeZone: 'Nowhere/None' }) },
  { route: 'units/[id]', method: 'POST', action: 'unit.change', body: () => ({ kind: 'Tipper' }) },
  {
    route: 'instruments/import',
    method: 'POST',
    action: 'instruments.import',
    text: ['text/csv', 'depot,name,kind\nNowhere,DMM,multimeter\n'],
  },
  { route: 'instruments/export', method: 'GET', action: 'look' },
  { route: 'units/import', method: 'POST', action: 'units.import', text: ['text/csv', 'no list'] },
  { route: 'units/export', method: 'GET', action: 'look' },
  {
    route: 'engine-families/[id]',
    method: 'POST',
    action: 'engine-family.change',
    body: () => ({ engine: { layout: 'inline', cylinders: 99 } }),
  },
  { route: 'catalogue', method: 'GET', action: 'look' },
  {
    route: 'catalogue',
    method: 'POST',
    action: 'catalogue.change',
    body: () => ({ id: v7(), testId: `none-${Date.now()}`, test: null }),
  },
  {
    route: 'catalogue/import',
    method: 'POST',
    action: 'catalogue.change',
    text: ['application/json', '{}'],
    query: `?batch=${v7()}`,
  },
  { route: 'jobs/[id]/report', method: 'GET', action: 'look' },
  { route: 'jobs/[id]/bundle', method: 'GET', action: 'look' },
  {
    route: 'bundles',
    method: 'POST',
    action: 'job.import',
    text: ['application/zip', 'no zip'],
    query: `?depot=${NORTH}`,
  },
  {
    route: 'jobs/[id]/records',
    method: 'POST',
    action: 'job.write-repair',
    body: () => ({ id: v7(), record: { kind: 'scan', outcome: 'clean', said: 'access' } }),
  },
  { route: 'service-data', method: 'GET', action: 'look' },
  { route: 'service-data/import', method: 'POST', action: 'service-data.change', text: ['text/csv', 'no list'] },
  {
    route: 'service-data',
    method: 'POST',
    action: 'service-data.change',
    body: () => ({ id: v7(), family: null, kind: 'fitting', key: 'access', body: { value: '1 Nm' }, source: 'access' }),
  },
  { route: 'circuits', method: 'GET', action: 'look' },
  {
    route: 'circuits',
    method: 'POST',
    action: 'circuits.change',
    body: () => ({ id: v7(), circuitId: `none-${Date.now()}`, circuit: null }),
  },
  { route: 'runs/[id]/case', method: 'GET', action: 'look' },
  { route: 'runs/[id]/next', method: 'GET', action: 'look' },
  { route: 'specifications', method: 'GET', action: 'look' },
  {
    route: 'specifications',
    method: 'POST',
    action: 'limits.draft',
    body: () => ({ id: v7(), entry: { ...entry, source: `access ${v7()}` } }),
  },
  { route: 'specifications/clashes', method: 'POST', action: 'limits.compare', body: () => entry },
  { route: 'specifications/import', method: 'POST', action: 'limits.draft', text: ['application/json', '{}'] },
  { route: 'specifications/[id]/effect', method: 'GET', action: 'look' },
  { route: 'specifications/[id]/effect', method: 'POST', action: 'limits.apply', body: () => ({ runs: [] }) },
  {
    route: 'jobs',
    method: 'POST',
    action: 'job.open',
    body: () => ({ id: v7(), unitId: demoId('unit', OF_UNIT), complaint: 'access' }),
  },
  { route: 'jobs/[id]', method: 'GET', action: 'look' },
  { route: 'jobs/[id]/tests', method: 'GET', action: 'look' },
  { route: 'jobs/[id]/verify', method: 'GET', action: 'look' },
  { route: 'jobs/[id]/live', method: 'GET', action: 'look' },
  {
    route: 'jobs/[id]/notes',
    method: 'POST',
    action: 'job.note-calculation',
    body: () => ({ id: v7(), sum: 'none', inputs: {} }),
  },
  {
    route: 'jobs/[id]/codes',
    method: 'POST',
    action: 'job.keep-codes',
    body: () => ({ id: v7(), phase: 'as-found', status: 'unknown', codes: [] }),
  },
  {
    route: 'jobs/[id]/codes/take-back',
    method: 'POST',
    action: 'job.take-codes-back',
    body: () => ({ id: v7(), observation: v7() }),
  },
  {
    route: 'jobs/[id]/intake',
    method: 'POST',
    action: 'job.change-intake',
    body: () => ({ id: v7(), intake: { conditions: [], replaced: [], signs: [], photos: [] } }),
  },
  {
    route: 'jobs/[id]/evidence',
    method: 'POST',
    action: 'job.record-evidence',
    body: () => ({ id: v7(), evidence: { kind: 'wiggle', where: 'x', outcome: 'held' } }),
  },
  {
    route: 'jobs/[id]/evidence/take-back',
    method: 'POST',
    action: 'job.take-evidence-back',
    body: () => ({ id: v7(), evidence: v7() }),
  },
  {
    route: 'jobs/[id]/findings',
    method: 'POST',
    action: 'job.write-finding',
    body: () => ({ id: v7(), finding: { kind: 'not-found', text: 'x', ruledOut: [], ifReturns: 'x' } }),
  },
  {
    route: 'jobs/[id]/plan',
    method: 'POST',
    action: 'job.change-plan',
    body: () => ({ id: v7(), change: { kind: 'add', test: 'pin-drag' } }),
  },
  { route: 'jobs/[id]/photos', method: 'POST', action: 'job.add-photo', text: ['image/png', 'no picture'] },
  { route: 'photos/[id]', method: 'GET', action: 'look' },
  { route: 'jobs/[id]/leads', method: 'GET', action: 'look' },
  {
    route: 'jobs/[id]/leads',
    method: 'POST',
    action: 'job.plan-leads',
    body: () => ({
      id: v7(),
      ground: 'battery negative',
      leads: [1, 2].map(() => ({ lead: '1', signal: 'x', role: 'sensor', connector: '', pin: '', colour: '' })),
    }),
  },
  { route: 'jobs/[id]/traces', method: 'GET', action: 'look' },
  {
    route: 'jobs/[id]/traces',
    method: 'POST',
    action: 'job.add-trace',
    body: () => ({ id: v7(), name: 'access', head: WRONG_HEAD }),
  },
  { route: 'traces/[id]', method: 'GET', action: 'look' },
  { route: 'traces/[id]/blocks', method: 'GET', action: 'look', query: '?stream=0&number=0' },
  {
    route: 'traces/[id]/blocks',
    method: 'PUT',
    action: 'job.add-trace',
    text: ['application/octet-stream', 'no block'],
    query: '?stream=0&number=0',
  },
  { route: 'traces/[id]/pyramid', method: 'GET', action: 'look', query: '?stream=0' },
  { route: 'traces/[id]/csv', method: 'GET', action: 'look' },
  { route: 'traces/[id]/question', method: 'GET', action: 'look' },
  {
    route: 'traces/[id]/standing',
    method: 'POST',
    action: 'job.judge-capture',
    body: () => ({ id: v7(), standing: 'bad', why: 'access' }),
  },
  {
    route: 'traces/[id]/notes',
    method: 'POST',
    action: 'job.note-trace',
    body: () => ({ id: v7(), kind: 'mark', from_s: 2, to_s: 1, channel: null, text: 'access' }),
  },
  {
    route: 'runs',
    method: 'POST',
    action: 'run.start',
    body: () => ({ id: v7(), jobId: demoId('job', OF_UNIT), test: 'pin-drag' }),
  },
  { route: 'runs/[id]', method: 'GET', action: 'look' },
  { route: 'runs/[id]/pdf', method: 'GET', action: 'look' },
  { route: 'runs/[id]/csv', method: 'GET', action: 'look' },
  { route: 'runs/[id]/csv', method: 'POST', action: 'run.import-readings', text: ['text/csv', 'a,b\n'] },
  {
    route: 'runs/[id]/readings',
    method: 'POST',
    action: 'run.record-reading',
    body: () => ({ id: v7(), position: 99, entry: '1', takenAt: new Date().toISOString() }),
  },
  {
    route: 'runs/[id]/circumstances',
    method: 'POST',
    action: 'run.state-circumstances',
    body: () => ({ id: v7(), states: [], condition: {}, recordedAt: new Date().toISOString() }),
  },
  { route: 'runs/[id]/judge-again', method: 'GET', action: 'look' },
  { route: 'runs/[id]/judge-again', method: 'POST', action: 'run.judge-again', body: () => ({ id: v7() }) },
  {
    route: 'runs/[id]/override',
    method: 'POST',
    action: 'run.override-state',
    body: () => ({ id: v7(), state: 'none', because: 'x' }),
  },
  {
    route: 'units',
    method: 'POST',
    action: 'unit.add',
    body: () => ({ id: v7(), depotId: NORTH, engineFamilyId: v7(), fleetNumber: `A-${Date.now()}`, kind: 'x' }),
  },
  {
    route: 'units/[id]/parts',
    method: 'POST',
    action: 'unit.note-parts',
    body: () => ({ part: 'none', code: null }),
  },
  {
    route: 'engine-families',
    method: 'POST',
    action: 'engine-family.add',
    body: () => ({ id: v7(), code: `A-${v7().slice(-12)}`, engine: { layout: 'inline', cylinders: 1 } }),
  },
  {
    route: 'instruments',
    method: 'POST',
    action: 'instrument.add',
    body: () => ({ id: v7(), depotId: NORTH, name: `A ${v7()}`, instrument: { kind: 'multimeter' } }),
  },
  // Without an address in the network it answers at once: a stream would not end by itself.
  { route: 'instruments/[id]/values', method: 'GET', action: 'instrument.follow', query: '?quantity=resistance' },
  { route: 'instruments/[id]/retire', method: 'POST', action: 'instrument.retire', body: () => ({}) },
  {
    route: 'test-leads',
    method: 'POST',
    action: 'test-leads.measure',
    body: () => ({ id: v7(), depotId: NORTH, name: 'access', zero: null }),
  },
  { route: 'depots/[id]/choices', method: 'POST', action: 'depot.choose', body: () => ({}) },
  {
    route: 'depots/[id]/codes',
    method: 'POST',
    action: 'depot.describe-codes',
    body: () => ({ id: v7(), code: 'P1999', text: '' }),
  },
  {
    route: 'people',
    method: 'POST',
    action: 'person.add',
    body: () => ({ id: v7(), name: `A ${v7()}`, role: 'viewer', depotId: NORTH, pin: '742913' }),
  },
  { route: 'people/[id]', method: 'POST', action: 'person.change', body: () => ({ role: 'technician' }) },
];

export const INSTRUMENT = v7();
/** What each `[id]` stands for: a thing of the depot North Sluice. */
export const IDS: Readonly<Record<string, string>> = {
  jobs: demoId('job', OF_UNIT),
  runs: demoId('run', OF_UNIT),
  units: demoId('unit', OF_UNIT),
  instruments: INSTRUMENT,
  depots: NORTH,
  people: demoId('person', 'Jory Thane'),
  'engine-families': demoId('family', 'L4-20'),
  specifications: demoId('specification', 'L6-109', 1),
  photos: v7(),
  traces: demoId('trace', TRACE_OF),
};

/** The address of a route for the things of `IDS`. */
export const urlOf = (rule: Case): string =>
  `/api/${rule.route.replace(/([\w-]+)\/\[id\]/, (_, of: string) => `${of}/${IDS[of] ?? ''}`)}${rule.query ?? ''}`;

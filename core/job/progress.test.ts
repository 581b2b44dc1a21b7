import type { FindingBody, ProposedFinding } from '../evidence/finding';
import type { ProofCheck, ProofCheckId, Recorded, RepairRecord } from '../repair/types';
import { STAGES, progressFrom, type ProgressInputs } from './progress';

const check = (id: ProofCheckId, state: ProofCheck['state'], why = `${id} is ${state}`): ProofCheck => ({
  id,
  label: id,
  state,
  why,
});
const OPEN: readonly ProofCheck[] = (
  ['finding', 'agreed', 'repaired', 'measured-again', 'codes-cleared', 'road-test', 'vehicle-scan'] as const
).map((id) => check(id, 'open'));
const FOUND: FindingBody = {
  kind: 'found',
  what: 'part',
  name: 'plug',
  positions: [3],
  confidence: 'certain',
  text: 'The plug of cylinder 3 is bad',
  supports: [],
  against: [],
  ruledOut: [],
  advice: '',
};
const proposal = (confidence: ProposedFinding['confidence']): ProposedFinding => ({
  target: { kind: 'part', name: 'plug', position: 3 },
  positions: [3],
  confidence,
  text: 'The plug of cylinder 3 is bad',
  supports: [],
  against: [],
});
const record = (id: string, body: RepairRecord): Recorded => ({ id, body, by: 'x', at: '2026-01-01T00:00:00Z' });
const QUOTED = record('q', {
  kind: 'quotation',
  finding: 'f',
  currency: 'EUR',
  lines: [{ text: 'plug', quantity: 1, price: 100 }],
  note: '',
});
const stands = (more: Partial<ProgressInputs> = {}) =>
  progressFrom({
    closed: false,
    codesRead: false,
    begun: false,
    findings: [],
    proposals: [],
    records: [],
    checks: OPEN,
    nextTest: null,
    ...more,
  });
/** The checks as they are once those up to this one are done. */
const doneUpTo = (...ids: ProofCheckId[]): ProofCheck[] =>
  OPEN.map((c) => (ids.includes(c.id) ? { ...c, state: 'done' } : c));

test('a new job: codes first, and the plan says with what to begin', () => {
  expect(stands({ nextTest: 'Battery at rest' })).toMatchObject({
    now: 'codes',
    say: 'Read the fault codes, or begin with: Battery at rest.',
  });
  expect(stands().say).toBe('Read the fault codes, or begin with the plan.');
  expect(stands({ codesRead: true, nextTest: 'Battery at rest' })).toMatchObject({
    now: 'tests',
    say: 'Measure next: Battery at rest.',
  });
});
test('measured without codes: they hold nothing up', () => {
  const { now, stages } = stands({ begun: true });
  expect([now, stages.find((s) => s.id === 'codes')?.state]).toEqual(['tests', 'left out']);
});
test('what is only suspected is measured on; what is convicted is written down', () => {
  expect(stands({ begun: true, proposals: [proposal('possible')] }).now).toBe('tests');
  expect(stands({ begun: true, proposals: [proposal('possible'), proposal('probable')] })).toMatchObject({
    now: 'finding',
    say: 'Write the finding: The plug of cylinder 3 is bad.',
  });
});
test('not found yet is honest, and work goes on', () =>
  expect(
    stands({
      begun: true,
      findings: [{ body: { kind: 'not-found', text: 'x', ruledOut: [], ifReturns: 'Drive it towing.' } }],
    }),
  ).toMatchObject({ now: 'tests', say: 'Not found yet. When it returns: Drive it towing.' }));

describe('from finding to release', () => {
  const found = { begun: true, codesRead: true, findings: [{ body: FOUND }] };
  test.each<[string, readonly Recorded[], RegExp]>([
    ['not quoted', [], /quote it to the payer/],
    ['no answer', [QUOTED], /waits for the payer/],
    [
      'deferred',
      [
        QUOTED,
        record('a', {
          kind: 'answer',
          quotation: 'q',
          answer: 'deferred',
          until: '2026-12-24',
          said: 'after the frost',
        }),
      ],
      /deferred it until 2026-12-24/,
    ],
    [
      'declined',
      [QUOTED, record('a', { kind: 'answer', quotation: 'q', answer: 'declined', said: '' })],
      /declined: .*a lead releases/,
    ],
  ])('%s', (_, records, say) => {
    const s = stands({ ...found, records, checks: doneUpTo('finding') });
    expect([s.now, s.say]).toEqual(['agreed', expect.stringMatching(say)]);
  });
  test('agreed: repair; repaired: proof; what failed goes before what is open', () => {
    expect(stands({ ...found, checks: doneUpTo('finding', 'agreed') })).toMatchObject({
      now: 'repair',
      say: 'repaired is open',
    });
    const repaired = doneUpTo('finding', 'agreed', 'repaired');
    expect(stands({ ...found, checks: repaired })).toMatchObject({
      now: 'proof',
      say: 'measured-again: measured-again is open',
    });
    const drove = repaired.map((c) => (c.id === 'road-test' ? check('road-test', 'failed', 'It showed again') : c));
    const s = stands({ ...found, checks: drove });
    expect([s.say, s.stages.find((x) => x.id === 'proof')?.state]).toEqual(['road-test: It showed again', 'failed']);
  });
  test('all proven: release; released: nothing is next', () => {
    const all = OPEN.map((c) => ({ ...c, state: 'done' as const }));
    expect(stands({ ...found, checks: all })).toMatchObject({
      now: 'release',
      say: 'Everything is proven: release it.',
    });
    expect(stands({ ...found, checks: all, closed: true })).toMatchObject({ now: null, say: 'Released.' });
  });
});
test('a check at which everything was good needs no finding, no payer and no repair', () => {
  const s = stands({ begun: true, checks: [check('finding', 'done'), check('vehicle-scan', 'open', 'Not done.')] });
  expect(s.now).toBe('proof');
  expect(s.stages.filter((x) => x.state === 'left out').map((x) => x.id)).toEqual([
    'codes',
    'finding',
    'agreed',
    'repair',
  ]);
});
test('every stage is there once, in order, and one alone is next', () => {
  for (const s of [stands(), stands({ closed: true }), stands({ begun: true, proposals: [proposal('certain')] })]) {
    expect(s.stages.map((x) => x.id)).toEqual(STAGES);
    expect(s.stages.filter((x) => x.state === 'now').length).toBe(s.now === null ? 0 : 1);
  }
});

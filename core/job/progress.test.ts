import type { FindingBody, ProposedFinding } from '../evidence/finding';
import type { ProofCheck, ProofCheckId, Recorded, RepairRecord } from '../repair/types';
import type { PlannedTest } from './inputs';
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
const BATTERY: PlannedTest = {
  test: 'battery-at-rest',
  name: 'Battery at rest',
  minutes: 1,
  why: 'A weak battery makes every other reading doubtful.',
  needs: ['key off'],
  tells: null,
  isCold: false,
};
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
    planned: [],
    choices: [],
    isWarm: false,
    ...more,
  });
/** The checks as they are once those up to this one are done. */
const doneUpTo = (...ids: ProofCheckId[]): ProofCheck[] =>
  OPEN.map((c) => (ids.includes(c.id) ? { ...c, state: 'done' } : c));

test('a new job: codes first, and the plan says with what to begin', () => {
  const fresh = stands({ planned: [BATTERY] });
  expect(fresh).toMatchObject({ now: 'codes', say: 'Read the fault codes.', waits: 'somebody' });
  expect(fresh.instead[0]).toMatchObject({ say: 'Measure: Battery at rest.', act: { test: 'battery-at-rest' } });
  expect(stands({ codesRead: true, planned: [BATTERY] })).toMatchObject({
    now: 'tests',
    say: 'Measure: Battery at rest.',
    next: { why: 'A weak battery makes every other reading doubtful.', minutes: 1, needs: ['key off'] },
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
    say: 'Sign the finding: The plug of cylinder 3 is bad.',
    next: { act: { do: 'sign-finding', proposal: 1 } },
  });
});
test('not found yet is honest, and work goes on', () =>
  expect(
    stands({
      begun: true,
      findings: [{ id: 'n', body: { kind: 'not-found', text: 'x', ruledOut: [], ifReturns: 'Drive it towing.' } }],
    }),
  ).toMatchObject({ now: 'tests', say: 'Not found yet.', next: { why: 'When it returns: Drive it towing.' } }));

describe('from finding to release', () => {
  const found = { begun: true, codesRead: true, findings: [{ id: 'f', body: FOUND }] };
  test.each<[string, readonly Recorded[], RegExp]>([
    ['not quoted', [], /^Quote it to the payer/],
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
      /deferred it until 24 Dec 2026/,
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
      say: 'Repair it by its steps.',
      next: { why: 'repaired is open' },
    });
    const repaired = doneUpTo('finding', 'agreed', 'repaired');
    expect(stands({ ...found, checks: repaired })).toMatchObject({
      now: 'proof',
      say: 'Measure the same again.',
      next: { act: { check: 'measured-again' }, why: 'measured-again is open' },
    });
    const drove = repaired.map((c) => (c.id === 'road-test' ? check('road-test', 'failed', 'It showed again') : c));
    const s = stands({ ...found, checks: drove });
    // It is still wrong: what is convicted since is signed, else it is measured on.
    expect(stands({ ...found, checks: drove, planned: [BATTERY] }).next).toMatchObject({
      act: { do: 'measure' },
      why: expect.stringMatching(/^It showed again/) as string,
    });
    expect(stands({ ...found, checks: drove, proposals: [proposal('certain')] }).next?.act.do).toBe('sign-finding');
    expect([s.say, s.next?.why, s.stages.find((x) => x.id === 'proof')?.state]).toEqual([
      'road-test: not good.',
      'It showed again',
      'failed',
    ]);
  });
  test('all proven: release; released: nothing is next', () => {
    const all = OPEN.map((c) => ({ ...c, state: 'done' as const }));
    expect(stands({ ...found, checks: all })).toMatchObject({
      now: 'release',
      say: 'Release it.',
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

describe('the one step that is next', () => {
  const planned = [BATTERY, { ...BATTERY, test: 'plugs', name: 'Plugs', isCold: true }];
  test('a doubt is settled first, at the run that it is about', () => {
    const [first, other] = [{ ...BATTERY, run: 'r1', doubt: 'Prove the meter.' }, planned[1] as PlannedTest];
    const s = stands({ begun: true, codesRead: true, planned: [first, other] });
    expect(s.next).toMatchObject({ act: { do: 'measure', run: 'r1' }, say: 'Prove the meter.' });
    expect(s.instead[0]?.say).toBe('Measure: Plugs.');
  });
  test('what was measured again with a doubted meter is settled before it proves or fails', () => {
    const found = { begun: true, codesRead: true, findings: [{ id: 'f', body: FOUND }] };
    const checks = doneUpTo('finding', 'agreed', 'repaired');
    const begun = { ...BATTERY, test: 'other', run: 'r0' };
    const doubted = { ...BATTERY, run: 'r1', doubt: 'Zero the leads first.' };
    expect(stands({ ...found, checks, planned: [begun, doubted] }).next).toMatchObject({
      say: 'Zero the leads first.',
      act: { do: 'measure', run: 'r1' },
    });
    expect(stands({ ...found, checks, planned: [begun] }).next?.act.do).toBe('prove');
  });
  test('a set that is begun is gone on with first; what it convicts so far can be signed in its place', () => {
    const going = { ...BATTERY, run: 'r1' };
    const s = stands({ begun: true, codesRead: true, planned: [going], proposals: [proposal('certain')] });
    expect([s.now, s.say]).toEqual(['tests', 'Go on with: Battery at rest.']);
    expect(s.instead[0]?.act).toEqual({ do: 'sign-finding', proposal: 0 });
    expect(stands({ begun: true, codesRead: true, planned: [BATTERY], proposals: [proposal('certain')] }).now).toBe(
      'finding',
    );
  });
  test('nothing left to measure: what is suspected can be signed, and always something else', () => {
    const s = stands({ begun: true, codesRead: true, proposals: [proposal('possible')] });
    expect(s.next?.act).toEqual({ do: 'sign-finding', proposal: 0 });
    expect(s.instead.map((x) => x.act)).toContainEqual({ do: 'sign-finding' });
    expect(stands({ begun: true, codesRead: true }).next?.act).toEqual({ do: 'choose-test' });
  });
  test('one or the set is asked only where it is a question, and a new decision asks for a new quotation', () => {
    const found = { begun: true, codesRead: true, findings: [{ id: 'f', body: FOUND }], checks: doneUpTo('finding') };
    expect(stands({ ...found, choices: ['f'] }).next?.act).toEqual({ do: 'choose', finding: 'f' });
    expect(stands(found).next?.act).toEqual({ do: 'quote', finding: 'f' });
    const decided = record('d', {
      kind: 'decision',
      finding: 'f',
      school: 'set',
      inputs: null,
      currency: 'EUR',
      why: '',
    });
    expect(stands({ ...found, choices: ['f'], records: [decided] }).next?.act.do).toBe('quote');
    expect(stands({ ...found, choices: ['f'], records: [decided, QUOTED] }).next?.act.do).toBe('answer');
    expect(stands({ ...found, choices: ['f'], records: [QUOTED, decided] }).next?.act.do).toBe('quote');
  });
  test('a second finding is quoted by itself', () => {
    const other = { id: 'g', body: { ...FOUND, text: 'The relay is bad' } };
    const accepted = record('a', { kind: 'answer', quotation: 'q', answer: 'accepted', said: '' });
    const s = stands({
      begun: true,
      codesRead: true,
      findings: [{ id: 'f', body: FOUND }, other],
      checks: doneUpTo('finding'),
      records: [QUOTED, accepted],
    });
    expect(s.next).toMatchObject({
      act: { do: 'quote', finding: 'g' },
      why: expect.stringContaining('relay') as string,
    });
  });
  test('what it waits for: somebody, an answer, a part, a cold engine', () => {
    const base = { begun: true, codesRead: true };
    const found = { ...base, findings: [{ id: 'f', body: FOUND }] };
    expect(stands({ ...base, planned }).waits).toBe('somebody');
    expect(stands({ ...base, planned: planned.slice(1), isWarm: true }).waits).toBe('a cold engine');
    expect(stands({ ...found, records: [QUOTED], checks: doneUpTo('finding') }).waits).toBe('an answer');
    const friday = record('a', { kind: 'answer', quotation: 'q', answer: 'accepted', until: '2026-12-04', said: '' });
    expect(stands({ ...found, records: [QUOTED, friday], checks: doneUpTo('finding', 'agreed') })).toMatchObject({
      waits: 'a part',
      say: 'Repair it by its steps. Agreed for 4 Dec 2026.',
    });
  });
});

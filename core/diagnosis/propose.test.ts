import type { Known, Ref, Statement } from '../evidence/types';
import { proposeWithCircuits } from './propose';
import type { Diagnosis, Suspect } from './types';

const NOTHING: Known = { statements: [], contradictions: [], doubts: [], mended: [] };
const suspect = (name: string, position: number | null, probability: number, more: Partial<Suspect> = {}): Suspect => ({
  key: `${name} ${position ?? ''}: is open`,
  element: `${name} ${position ?? ''}`,
  position,
  fault: 'open',
  words: 'is open',
  is: 'part',
  name,
  probability,
  contradictsGood: true,
  supports: [{ label: `${name} read`, ref: refOf(`${name} read`), point: null, nats: 4, strength: 'strongly' }],
  contradicts: [],
  ...more,
});
const diagnosis = (suspects: readonly Suspect[], unexplained = 0.01): Diagnosis => ({
  suspects,
  unexplained,
  notListed: 0,
  next: [],
  decided: true,
  notes: [],
});
const refOf = (label: string): Ref => ({ kind: 'run', id: `run of ${label}`, label });
const said = (stand: Statement['stand'], position: number | null, name = 'plug'): Statement => ({
  rule: 'measured',
  stand,
  target: { kind: 'part', name, position },
  text: 'x',
  from: [{ kind: 'run', id: 'r1', label: 'Glow plugs' }],
});
const propose = (known: Known, ...suspects: readonly Suspect[]) => proposeWithCircuits(known, [diagnosis(suspects)]);

test('what the circuit is sure of is proposed, with what it rests on', () =>
  expect(propose(NOTHING, suspect('module', null, 0.98))).toEqual([
    expect.objectContaining({
      text: 'The module is bad',
      confidence: 'certain',
      positions: [],
      supports: [refOf('module read')],
    }),
  ]));
test.each([
  [0.97, 'certain'],
  [0.85, 'probable'],
])('a share of %f is %s', (share, confidence) =>
  expect(propose(NOTHING, suspect('plug', 3, share))).toMatchObject([{ confidence, positions: [3] }]),
);
test('the ways in which one part fails add up; what is less than believed is left out', () => {
  const [found, ...more] = propose(NOTHING, suspect('plug', 3, 0.6), suspect('plug', 3, 0.3), suspect('plug', 4, 0.5));
  expect([found?.text, found?.confidence, more.length]).toEqual(['The plug of cylinder 3 is bad', 'probable', 0]);
});
test('several of a kind are one finding; the least sure one says how sure', () =>
  expect(propose(NOTHING, suspect('plug', 4, 0.99), suspect('plug', 2, 0.9))).toMatchObject([
    { text: 'The plugs of cylinders 2 and 4 are bad', confidence: 'probable' },
  ]));
test('a cause outside the circuit: it convicts nobody', () =>
  expect(proposeWithCircuits(NOTHING, [diagnosis([suspect('plug', 3, 0.75)], 0.25)])).toEqual([]));

describe('joined with the rules', () => {
  test('what a rule only suspects, the circuit convicts', () =>
    expect(
      propose(
        { statements: [said('suspect', null, 'module')], contradictions: [], doubts: [], mended: [] },
        suspect('module', null, 0.99),
      ),
    ).toMatchObject([
      { text: 'The module is bad', confidence: 'certain', supports: [{ id: 'r1' }, { id: 'run of module read' }] },
    ]));
  test('what a rule convicts stays, though the circuit is not sure', () =>
    expect(
      propose({ statements: [said('bad', 3)], contradictions: [], doubts: [], mended: [] }, suspect('plug', 3, 0.4)),
    ).toMatchObject([{ text: 'The plug of cylinder 3 is bad', confidence: 'probable' }]));
  test('positions of both; the same run counts once', () => {
    const own = refOf('plug read');
    const [found] = propose(
      { statements: [{ ...said('bad', 1), from: [own] }], contradictions: [], doubts: [], mended: [] },
      suspect('plug', 3, 0.99),
    );
    expect([found?.positions, found?.supports]).toEqual([[1, 3], [own]]);
  });
  test('where a rule contradicts itself nothing is certain', () => {
    const contradiction = {
      target: said('bad', 3).target,
      text: 'x',
      sides: [said('bad', 3), said('cleared', 3)] as const,
    };
    expect(
      propose(
        { statements: [said('bad', 3)], contradictions: [contradiction], doubts: [], mended: [] },
        suspect('plug', 3, 0.99),
      ),
    ).toMatchObject([{ confidence: 'probable' }]);
  });
});

test('what is only left over is no finding: no reading contradicts good parts', () =>
  expect(propose(NOTHING, suspect('controller', null, 0.99, { contradictsGood: false }))).toEqual([]));
test('what is inside a control unit is convicted last: not while anything is open', () => {
  const unit = suspect('controller', null, 0.98, { isUnit: true });
  expect(proposeWithCircuits(NOTHING, [{ ...diagnosis([unit]), decided: false }])).toEqual([]);
  expect(propose(NOTHING, suspect('controller', null, 0.9, { isUnit: true }))).toEqual([]);
  expect(propose(NOTHING, unit)).toMatchObject([{ confidence: 'certain' }]);
});
test('nothing is certain while it is held back', () =>
  expect(proposeWithCircuits(NOTHING, [{ ...diagnosis([suspect('plug', 3, 0.99)]), decided: false }])).toMatchObject([
    { confidence: 'probable' },
  ]));

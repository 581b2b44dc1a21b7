import { judgedReading } from '../judge/testing';
import { findTest } from '../catalogue/catalogue';
import { proposeFindings } from './finding';
import { whatIsKnown } from './known';
import { PartMoves } from './moves';
import type { Evidence, MeasuredRun, RecordedEvidence } from './types';

const at = (minute: number): string => new Date(Date.UTC(2026, 2, 1, 8, minute)).toISOString();
const noted = (minute: number, body: Evidence): RecordedEvidence => ({ id: `e${minute}`, body, at: at(minute) });
const swap = (
  minute: number,
  from: number,
  to: number,
  outcome: 'followed' | 'stayed' = 'followed',
): RecordedEvidence => noted(minute, { kind: 'swap', part: 'plug', from, to, outcome });
function bad(minute: number, position: number): MeasuredRun {
  const definition = findTest('glow-plug-resistance');
  if (!definition) throw new Error('no test');
  const readings = [
    judgedReading({ position, verdict: 'open', severity: 'fail', value: null, corrected: null, entry: 'OL' }),
  ];
  return {
    id: `r${minute}`,
    definition,
    at: at(minute),
    judgement: {
      format: 'mudflat/judgement',
      version: 1,
      core: 'x',
      test: definition.id,
      limits: { quantity: 'resistance', unit: 'ohm', upper: 1 },
      readings,
      pattern: 'one',
      suspects: [position],
      group: null,
      summary: '',
      advice: [],
      proven: [],
    },
  };
}
const found = (runs: readonly MeasuredRun[], evidence: readonly RecordedEvidence[]) =>
  proposeFindings(whatIsKnown(runs, evidence)).map((p) => p.text);

test('a part that was exchanged twice is followed, and back to where it was at first', () => {
  const moves = new PartMoves([swap(10, 1, 3), swap(20, 3, 4)]);
  expect(moves.now('plug', 1, at(5))).toBe(4);
  expect(moves.now('plug', 3, at(15))).toBe(4);
  expect(moves.now('plug', 1, at(15))).toBe(1);
  expect(moves.atFirst('plug', 4, at(25))).toBe(1);
  expect(moves.now('injector', 1, at(5))).toBe(1);
});
test('a finding names where the part sits now', () => {
  expect(found([bad(1, 1)], [])).toEqual(['The plug of cylinder 1 is bad']);
  expect(found([bad(1, 1)], [swap(10, 1, 3)])).toEqual(['The plug of cylinder 3 is bad']);
  expect(found([bad(1, 1)], [swap(10, 1, 3), swap(20, 3, 1)])[0]).toBe('The plug of cylinder 1 is bad');
});
test('a new one where it sits now makes it history; a new one where it was does not', () => {
  const repair = (position: number): RecordedEvidence =>
    noted(30, { kind: 'repair', where: 'head', path: false, part: 'plug', position, done: 'new' });
  expect(found([bad(1, 1)], [swap(10, 1, 3), repair(3)])).toEqual([]);
  expect(found([bad(1, 1)], [swap(10, 1, 3), repair(1)])).toEqual(['The plug of cylinder 3 is bad']);
});
test('exchanged while the fault was not there it proves nothing', () =>
  expect(
    whatIsKnown(
      [],
      [noted(1, { kind: 'swap', part: 'plug', from: 1, to: 3, outcome: 'stayed', wasThere: false })],
    ).statements.map((s) => s.stand),
  ).toEqual(['noted']));
test('a relay exchanged with its twin is cleared where the fault stays', () =>
  expect(whatIsKnown([], [noted(1, { kind: 'swap', part: 'relay', outcome: 'stayed' })]).statements).toMatchObject([
    { stand: 'cleared', target: { kind: 'part', name: 'relay', position: null } },
  ]));
test('what is known to be good is cleared, what the engine shows accuses the mechanics', () => {
  const { statements } = whatIsKnown(
    [],
    [
      noted(1, { kind: 'normal', part: 'fuse', seen: 'pulled and looked at' }),
      noted(2, { kind: 'mechanical', where: 'pump drive', outcome: 'broken', seen: 'it does not turn' }),
    ],
  );
  expect(statements.map((s) => `${s.stand} ${s.target.kind} ${s.target.name}`)).toEqual([
    'bad mechanics pump drive',
    'cleared part fuse',
  ]);
});

import { findTest } from '../catalogue/catalogue';
import type { Evidence, RecordedEvidence } from './types';
import { RepairHistory } from './repair-history';

const BEFORE = '2026-11-20T08:00:00Z';
const REPAIRED = '2026-11-20T09:00:00Z';
const AFTER = '2026-11-20T10:00:00Z';
const seen = (body: Evidence, at: string): RecordedEvidence => ({ id: at, body, at });
const repair = (path: boolean, part = 'plug', position: number | undefined = 3) =>
  seen({ kind: 'repair', where: 'the bracket', path, part, position, done: 'mended' }, REPAIRED);

const BARE = 'glow-plug-resistance';
const THROUGH = 'glow-plug-through-harness';
const WIRE = 'harness-ring-out';

test.each<[string, RecordedEvidence, string, string, number, boolean]>([
  ['the bare part after a mended wire still counts', repair(true), BARE, BEFORE, 3, false],
  ['through the wire it is history', repair(true), THROUGH, BEFORE, 3, true],
  ['the wire itself is history', repair(true), WIRE, BEFORE, 3, true],
  ['at another cylinder nothing was mended', repair(true), THROUGH, BEFORE, 2, false],
  ['what came after counts', repair(true), THROUGH, AFTER, 3, false],
  ['the bare part after a new part is history', repair(false), BARE, BEFORE, 3, true],
  ['in the circuit too', repair(false), THROUGH, BEFORE, 3, true],
  ['the wire was not touched by a new part', repair(false), WIRE, BEFORE, 3, false],
  ['nor another kind of part', repair(false, 'injector'), BARE, BEFORE, 3, false],
])('%s', (_, mended, test, at, position, history) => {
  const definition = findTest(test);
  if (!definition) throw new Error(test);
  expect(new RepairHistory([mended]).readingIsHistory(at, definition, position)).toBe(history);
});

test('other evidence is history once what it accuses was mended', () => {
  const followed = seen({ kind: 'swap', part: 'plug', from: 3, to: 1, outcome: 'followed' }, BEFORE);
  const chafed = seen({ kind: 'visual', where: 'the bracket', position: 3, damaged: true, seen: 'chafed' }, BEFORE);
  expect(new RepairHistory([repair(false)]).evidenceIsHistory(followed)).toBe(true);
  expect(new RepairHistory([repair(false)]).evidenceIsHistory(chafed)).toBe(false);
  expect(new RepairHistory([repair(true)]).evidenceIsHistory(chafed)).toBe(true);
  expect(new RepairHistory([repair(true)]).evidenceIsHistory({ ...chafed, at: AFTER })).toBe(false);
  expect(new RepairHistory([]).evidenceIsHistory(chafed)).toBe(false);
});

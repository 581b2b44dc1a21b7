import { findPattern } from './pattern';
import { advise, holdingAdvice, summarise } from './summary';
import { namePositions } from './words';
import { judgedReading } from './testing';
import type { JudgedReading, Limits, Position, Verdict } from './types';

const LIMITS: Limits = { quantity: 'resistance', unit: 'ohm', lower: 0.3, upper: 1 };
const reading = (position: Position, verdict: Verdict): JudgedReading =>
  judgedReading({
    position,
    verdict,
    corrected: verdict === 'open' ? null : verdict === 'high' ? 201 : 0.6,
    standardUncertainty: 0.04,
    resolution: 1,
  });
const set = (...verdicts: Verdict[]): JudgedReading[] => verdicts.map((v, i) => reading(i + 1, v));
const say = (readings: JudgedReading[], groups = new Map<string, Position[]>()): string =>
  summarise(readings, findPattern(readings, groups), LIMITS);

test.each<[Verdict[], string]>([
  [['within', 'within'], 'All 2 are inside 0.3 to 1.0 Ω.'],
  [['within', 'watch'], 'All 2 are inside 0.3 to 1.0 Ω; 2 is not liked.'],
  [['within', 'high', 'within'], 'Cylinder 2 is too high (201 Ω, limit 1.0 Ω); 1 and 3 are in.'],
  [['high', 'high', 'within'], 'Cylinders 1 and 2 are too high; 3 is in.'],
  [['open', 'high'], 'Not one is in: 1 is open and 2 is too high (201 Ω, limit 1.0 Ω).'],
  [['within', 'undecided'], 'This measurement cannot decide 2; 1 is in.'],
  [['within', 'recheck'], 'Cylinder 2 wants checking again (1 Ω); 1 is in.'],
  [['not-measured', 'not-measured'], 'Nothing is measured yet.'],
  [['within', 'not-measured'], '1 of 2 measured, so far inside 0.3 to 1.0 Ω.'],
  [['open', 'not-measured'], '1 of 2 measured: 1 is open.'],
])('%j', (verdicts, sentence) => expect(say(set(...verdicts))).toBe(sentence));

test('a group by its name', () => {
  const readings = set('open', 'within', 'open', 'within');
  expect(say(readings, new Map([['left bank', [1, 3]]]))).toBe(
    'All of the left bank, and nothing else: 1 and 3 are open; 2 and 4 are in.',
  );
  expect(say(readings, new Map([['harness-front', [1, 3]]]))).toMatch(/^All of "harness-front"/);
});
test('places that are no cylinders keep their names', () => {
  expect(say([reading('key-on', 'within'), reading('cranking', 'low')])).toMatch(/^Cranking is too low/);
  expect(namePositions(['pin 26', 'pin 27'])).toBe('pin 26 and pin 27');
  expect(namePositions([4])).toBe('cylinder 4');
});
test('advice stands only where all of its conditions hold', () => {
  const rules = [
    { pattern: ['one' as const], say: 'A {suspects}' },
    { verdict: ['short' as const], say: 'B' },
    { mostlyBad: true, say: 'C' },
    { connection: 'harness', say: 'D' },
  ];
  const on = (readings: JudgedReading[], connection?: string) => {
    const found = findPattern(readings, new Map());
    return advise(readings, found, holdingAdvice(readings, found, connection, rules), []);
  };
  expect(on(set('within', 'open', 'within'))).toEqual(['A cylinder 2']);
  expect(on(set('short', 'high', 'within'))).toEqual(['B', 'C']);
  expect(on(set('within', 'within'), 'harness')).toEqual(['D']);
});

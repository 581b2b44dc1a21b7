import { runView } from '../testing';
import { reportFacts } from './facts';

const view = () =>
  runView({
    entered: [
      { id: 'a', position: 2, entry: 'OL' },
      { id: 'b', position: 1, entry: '7' },
      { id: 'c', position: 1, entry: '0.7', supersedes: 'b', why: 'misread' },
    ],
  });
const fact = (name: string): string | undefined => reportFacts(view()).facts.find(([n]) => n === name)?.[1];

test('says under which conditions, against what, and that nobody has approved it', () => {
  expect(fact('Limits')).toBe('0.3 to 1.0 Ω; sheet 7, shelf revision 3, draft, not approved');
  expect(fact('Conditions')).toBe('key off, engine at 8 °C');
  expect(fact('Lead zero')).toBe('0.2 Ω, subtracted');
  expect(fact('Meter')).toBe('not noted');
  expect(fact('Read')).toBe('20 Nov 2026, 10:00, Ines');
  expect(reportFacts(view()).unconfirmed).toEqual(['plug leads off', 'all plugs equally cold', 'meter battery good']);
});
test('rows stand in order, with the entry as typed and the reason without what stands above', () => {
  const { rows } = reportFacts(view());
  expect(rows.map((r) => [r.reading.position, r.entry, r.verdict])).toEqual([
    [1, '0.7', 'in'],
    [2, 'OL', 'open'],
  ]);
  expect(rows[0]).toMatchObject({
    corrected: '0.5 ± 0.1',
    reasons: '0.5 Ω is inside 0.3 to 1.0 Ω.',
    taken: '10:00 Ines',
  });
});
test('a correction is printed with both readings and why', () => {
  expect(reportFacts(view()).corrections).toEqual(['Cylinder 1: 7 replaced by 0.7, misread (Ines).']);
});
test('the maker’s service information comes first', () =>
  expect(reportFacts(view()).cautions.at(-1)).toMatch(/maker’s service information/));

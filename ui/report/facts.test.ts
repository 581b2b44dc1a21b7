import { findTest } from '../../core/catalogue/catalogue';
import { judgeRun } from '../../formats/run-set';
import type { ReadingView, RunView } from '../../formats/views';
import { reportFacts } from './facts';

const limits = { quantity: 'resistance' as const, unit: 'ohm', lower: 0.3, upper: 1, source: 'sheet 7' };
const engine = { layout: 'inline' as const, cylinders: 2, systemVoltage_V: 12 };
const definition = findTest('glow-plug-resistance')!;
const circumstance = {
  instrumentId: null,
  leadZero: '0.2',
  zeros: {},
  states: ['key-off'],
  condition: { partTemperature_degC: 8 },
};

function view(): RunView {
  const plain = { instrumentId: null, earlier: [] };
  const inputs = {
    definition,
    decision: 'three-way' as const,
    engine,
    limits,
    circumstance,
    instruments: [],
    readings: [
      { ...plain, position: 2, entry: 'OL' },
      { ...plain, position: 1, entry: '0.7' },
    ],
  };
  const judged = judgeRun(inputs);
  if (!judged.ok) throw new Error('not judged');
  const stored = (
    id: string,
    position: number,
    entry: string,
    supersedes: string | null,
    why: string | null,
  ): ReadingView => ({
    id,
    position,
    entry,
    supersedes,
    why,
    takenAt: '2026-11-20T10:00:00Z',
    takenBy: 'Ines',
    instrumentId: null,
    leadZero: '0.2',
    coreVersion: '0',
    judged: judged.value.readings[0]!,
  });
  return {
    id: 'run',
    test: definition.id,
    definition,
    decision: 'three-way',
    because: '',
    leads: [],
    startedAt: '2026-11-20T09:00:00Z',
    startedBy: 'Ines',
    circumstance,
    instruments: [],
    judgement: judged.value,
    unit: {
      id: 'u',
      fleetNumber: 'PL-1',
      kind: 'Pump',
      depot: 'Quay',
      timeZone: 'Etc/UTC',
      family: 'L2',
      engine,
      parts: {},
    },
    job: {
      id: 'j',
      number: 4,
      complaint: 'slow',
      openedAt: '',
      openedBy: 'Ines',
      closed: false,
      odometer_km: null,
      hours: 12,
      runs: [],
    },
    specification: {
      id: 's',
      revision: 3,
      source: 'sheet 7',
      status: 'draft',
      limits,
      scope: 'family',
      of: 'L2',
      school: null,
    },
    readings: [
      stored('a', 2, 'OL', null, null),
      stored('b', 1, '7', null, null),
      stored('c', 1, '0.7', 'b', 'misread'),
    ],
  };
}
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

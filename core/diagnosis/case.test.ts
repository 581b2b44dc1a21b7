import { CIRCUITS } from '../circuits/library';
import { type Case, circuitsInQuestion, PredictionCache, weighCase } from './case';
import type { DiagnosticReading } from './types';

const EMPTY: Case = {
  wiring: { cylinders: 4, systemVoltage_V: 12 },
  circuits: CIRCUITS,
  measured: [],
  observed: [],
  coded: [],
  areas: [],
  history: { findings: [], renewed: [], conditions: [], hours: null },
  warm: false,
};
const read = (test: string, position: number | string, value: number): DiagnosticReading => ({
  test,
  position,
  kind: 'value',
  value,
  u: 0.02,
});
const inQuestion = (more: Partial<Case>): string[] =>
  circuitsInQuestion({ ...EMPTY, ...more }).map((q) => q.circuit.id);
const kept = new PredictionCache();

describe('which circuits are in question', () => {
  test('none before anything is known; the one that codes point at; those that were measured in', () => {
    expect(inQuestion({})).toEqual([]);
    expect(inQuestion({ areas: ['Glow plugs'] })).toEqual(['glow-relay']);
    expect(inQuestion({ areas: ['Glow plugs'], measured: [read('injector-resistance', 1, 0.6)] })).toEqual([
      'injectors-common',
    ]);
    expect(
      inQuestion({ measured: [read('glow-plug-resistance', 1, 0.7), read('sensor-reference', 'reference', 5)] }),
    ).toEqual(['glow-relay', 'sensor-pull-down']);
  });
  test('of one area, the one in which more was measured', () => {
    expect(inQuestion({ measured: [read('glow-current-feedback', 1, 15), read('glow-plug-current', 1, 15)] })).toEqual([
      'glow-unit',
    ]);
    expect(inQuestion({ measured: [read('hall-supply', 'supply', 5)] })).toEqual(['sensor-hall']);
    expect(inQuestion({ measured: [read('sensor-unplugged', 'pull-up input', 5)] })).toContain('sensor-pull-up');
  });
  test('what is measured in many circuits points at none by itself, and counts in the one in question', () => {
    expect(
      inQuestion({ measured: [read('battery-at-rest', 'battery', 12.5), read('harness-ring-out', 1, 0.2)] }),
    ).not.toContain('glow-relay');
    const [glow] = circuitsInQuestion({
      ...EMPTY,
      measured: [read('battery-at-rest', 'battery', 12.5), read('glow-plug-current', 1, 15)],
    });
    expect(glow?.own.map((m) => m.test)).toEqual(['battery-at-rest', 'glow-plug-current']);
  });
  test('an engine family’s own circuit goes before those for any', () => {
    const own = { ...CIRCUITS[0]!, id: 'own', families: ['L4-20'] };
    expect(inQuestion({ circuits: [own, ...CIRCUITS], measured: [read('glow-plug-resistance', 1, 0.7)] })).toEqual([
      'own',
    ]);
  });
});

describe('weighing a case', () => {
  const measured = [
    read('glow-plug-current', 1, 15),
    read('glow-plug-current', 2, 15),
    read('glow-plug-current', 3, 0),
    read('injector-resistance', 1, 0.6),
  ];
  test('every circuit in question, and what its next tests would show', () => {
    const weighed = weighCase({ ...EMPTY, measured }, kept);
    expect(weighed.map((w) => w.circuit.id)).toEqual(['glow-relay', 'injectors-common']);
    const [next] = weighed[0]?.expected ?? [];
    expect(next?.readings.map((r) => r.when)[0]).toBe('if all is well');
    expect(new Set(next?.readings.map((r) => r.shown)).size).toBeGreaterThan(1);
  });
  test('what was read stands beside what it would show: the loudest first, each point once, and fits the leading suspect', () => {
    const again = { ...read('glow-plug-current', 3, 0.1), at: '2026-11-11T08:00:00Z' };
    const older = { ...read('glow-plug-current', 3, 0.3), at: '2026-11-10T08:00:00Z' };
    const [glow] = weighCase({ ...EMPTY, measured: [...measured.slice(0, 2), older, again] }, kept);
    const [first] = glow?.compared ?? [];
    expect([first?.position, first?.read]).toEqual([3, '0.1 A']);
    expect(glow?.compared.filter((c) => c.position === 3)).toHaveLength(1);
    const [well, leading] = first?.readings ?? [];
    expect(well?.shown).toMatch(/^\d.* to 2\d.* A$/);
    expect(leading?.shown).toMatch(/^-?0(\.\d)?( to 0(\.\d)?)? A$/);
  });
  test('the same case weighs the same, kept or not; other values are another circuit', () => {
    const once = weighCase({ ...EMPTY, measured }, new PredictionCache());
    expect(weighCase({ ...EMPTY, measured }, kept)).toEqual(once);
    const glow = CIRCUITS[0]!;
    const changed = { ...glow, values: { ...glow.values, plug: { ...glow.values.plug!, value: 2 } } };
    expect(kept.of(changed, EMPTY.wiring)).not.toBe(kept.of(glow, EMPTY.wiring));
    expect(kept.of(glow, EMPTY.wiring)).toBe(kept.of(glow, EMPTY.wiring));
  });
  test('of a point that was read again and again the newest times count, however they are listed', () => {
    const at = (day: number, value: number): DiagnosticReading => ({
      ...read('glow-plug-resistance', 3, value),
      at: `2026-11-${10 + day}T08:00:00Z`,
    });
    const old = [1, 2, 3, 4, 5].map((d) => at(d, 0.65));
    const now = [6, 7, 8].map((d) => at(d, 900));
    const weigh = (all: readonly DiagnosticReading[]) => weighCase({ ...EMPTY, measured: all }, kept)[0]?.diagnosis;
    expect(weigh([...old, ...now])).toEqual(weigh(now));
    expect(weigh([...now, ...old].toReversed())).toEqual(weigh(now));
    // What is being read now, without a moment of its own, is the newest.
    expect(weigh([...old, read('glow-plug-resistance', 3, 900)])).toEqual(
      weigh([...old.slice(3), read('glow-plug-resistance', 3, 900)]),
    );
  });
  test('a few are kept, the oldest goes first', () => {
    const few = new PredictionCache(1);
    const [a, b] = [few.of(CIRCUITS[5]!, EMPTY.wiring), few.of(CIRCUITS[6]!, EMPTY.wiring)];
    expect(few.of(CIRCUITS[6]!, EMPTY.wiring)).toBe(b);
    expect(few.of(CIRCUITS[5]!, EMPTY.wiring)).not.toBe(a);
  });
  test('what was seen elsewhere says nothing here: a cut-out of the glow circuit, a swap of a part it has not', () => {
    const seen = {
      ...EMPTY,
      measured,
      observed: [
        { body: { kind: 'cut-out' as const, position: 3, faultPresent: true, change: 'none' as const } },
        { body: { kind: 'swap' as const, part: 'injector', from: 3, to: 1, outcome: 'followed' as const } },
      ],
    };
    const [glow, injectors] = weighCase(seen, kept);
    expect(glow?.diagnosis).toEqual(weighCase({ ...EMPTY, measured }, kept)[0]?.diagnosis);
    expect(injectors?.diagnosis.suspects.some((s) => s.supports.some((w) => w.label.includes('followed')))).toBe(true);
  });
  test('what was taken into account before anything was measured is said', () => {
    const [glow] = weighCase(
      {
        ...EMPTY,
        measured,
        history: {
          findings: [],
          renewed: [{ name: 'plug', position: 3, days: 12 }],
          conditions: ['intermittent'],
          hours: 12_000,
        },
      },
      kept,
    );
    expect(glow?.before).toEqual(
      expect.arrayContaining(['plug 3 is new, 12 days old', 'the complaint comes and goes']),
    );
  });
});

describe('predictions kept', () => {
  const shipped = CIRCUITS[0]!;
  const wiring = { cylinders: 4, systemVoltage_V: 12 };
  test('the same circuit, read again, is not prepared again', () => {
    expect(kept.of(structuredClone(shipped), wiring)).toBe(kept.of(shipped, wiring));
  });
  // A workshop’s circuit may replace one that ships under the same id and revision.
  test.each<[string, Partial<typeof shipped>]>([
    ['elements', { elements: shipped.elements.map((e) => ({ ...e, label: `${e.label} II` })) }],
    ['suspects', { suspects: shipped.suspects.map((s) => ({ ...s, prior: 2 * s.prior })) }],
    ['probes', { probes: shipped.probes.map((p) => ({ ...p, scale: 1000 })) }],
    [
      'values',
      {
        values: Object.fromEntries(Object.entries(shipped.values).map(([k, v]) => [k, { ...v, value: 1.1 * v.value }])),
      },
    ],
  ])('another one under the same id and revision has its own: %s', (_, change) => {
    expect(kept.of({ ...shipped, ...change }, wiring)).not.toBe(kept.of(shipped, wiring));
  });
});

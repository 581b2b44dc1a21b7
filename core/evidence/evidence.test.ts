import fc from 'fast-check';
import { findTest } from '../catalogue/catalogue';
import { judgeShipped } from '../judge/shipped';
import type { TestSet } from '../judge/types';
import { heldTogether, whatIsKnown } from './known';
import { proposeFindings, ruledOutBy } from './finding';
import { evidenceWords } from './kinds/kinds';
import { type Evidence, type MeasuredRun, type RecordedEvidence, RULES, type RuleId, type Stand } from './types';

// Which evidence proves what is common practice, no source.

const ENGINE = { layout: 'inline' as const, cylinders: 4, firingOrder: [1, 3, 4, 2], systemVoltage_V: 12 };
let step = 0;
const moment = (): string => new Date(Date.UTC(2026, 0, 1) + step++ * 60_000).toISOString();

function run(
  test: string,
  entries: Readonly<Record<string | number, string>>,
  cylinders = 4,
  more: Partial<TestSet> = {},
): MeasuredRun {
  const definition = findTest(test);
  if (!definition) throw new Error(`no test ${test}`);
  const rule = definition.rules.find((r) => !r.when?.systemVoltage_V || r.when.systemVoltage_V === 12);
  const readings = Object.entries(entries).map(([p, entry]) => ({
    position: definition.layout === 'cylinders' ? Number(p) : p,
    entry,
  }));
  const judged = judgeShipped({
    test,
    engine: { ...ENGINE, cylinders, firingOrder: Array.from({ length: cylinders }, (_, i) => i + 1) },
    condition: {},
    instrument: null,
    limits: rule?.limits ?? { quantity: definition.quantity, unit: definition.unit, lower: 0, upper: 1 },
    readings,
    definition,
    ...more,
  });
  if (!judged.ok) throw new Error(JSON.stringify(judged.error));
  return { id: `${test}-${step}`, definition, judgement: judged.value, at: moment() };
}
const seen = (body: Evidence): RecordedEvidence => ({ id: `e-${step}`, body, at: moment() });
const says = (runs: readonly MeasuredRun[], evidence: readonly RecordedEvidence[] = []) =>
  whatIsKnown(runs, evidence).statements.map(
    (s) =>
      `${s.stand} ${s.rule} ${s.target.kind} ${s.target.name}${s.target.position === null ? '' : ` ${s.target.position}`}`,
  );

const BARE = { 1: '0.7', 2: '0.8', 3: '0.7', 4: '0.7' };

describe('what readings prove', () => {
  test('a starter that takes too much at one cylinder accuses the mechanics there, never four starters', () => {
    const { statements } = whatIsKnown([run('cranking-current', { 1: '420', 2: '430', 3: '1100', 4: '425' })], []);
    expect(statements.map((s) => s.target)).toEqual([{ kind: 'mechanics', name: 'compression', position: 3 }]);
    expect(statements[0]?.text).toMatch(/^Compression of cylinder 3: 1100, .*Mechanics there/);
  });
  test('a test in its circuit that is good is written down with what it proves; one that is not is not', () => {
    const states = {
      'key on': '48',
      'self-test buzz': '47.9',
      cranking: '47.8',
      idle: '47.9',
      'raised idle (cold)': '47.5',
    };
    const good = whatIsKnown([run('injector-module-supply', states)], []).statements;
    expect(good).toMatchObject([{ stand: 'cleared', target: { kind: 'part', name: 'module', position: null } }]);
    expect(good[0]?.text).toMatch(/: good\. Proven: that /);
    const sags = whatIsKnown([run('injector-module-supply', { ...states, 'raised idle (cold)': '31' })], []).statements;
    expect(sags.map((s) => s.stand)).not.toContain('cleared');
  });
  test('a doubted measurement accuses and convicts nobody, and bears no finding; the doubt is told', () => {
    const meter = { kind: 'multimeter', leadZero_ohm: null, leadZeroResolution_ohm: 0, accuracy: [] } as const;
    const limits = { quantity: 'resistance', unit: 'ohm', lower: 0.6, upper: 0.9 } as const;
    const known = whatIsKnown(
      [run('glow-plug-resistance', { 1: '0.5', 2: '0.7', 3: '0.8', 4: '0.7' }, 4, { instrument: meter, limits })],
      [],
    );
    expect(known.statements[0]).toMatchObject({ stand: 'suspect', target: { name: 'plug', position: 1 } });
    expect(known.statements[0]?.text).toMatch(/it is suspected\. Zero the leads first/);
    expect(known.doubts.map((d) => d.kind)).toEqual(['leads']);
    expect(proposeFindings(known)).toEqual([]);
  });
  test('a rule of thumb convicts only what no type of part explains', () => {
    const limits = { quantity: 'resistance', unit: 'ohm', lower: 0.6, upper: 0.8, status: 'rule-of-thumb' } as const;
    const stands = (more: object = {}) =>
      whatIsKnown(
        [run('glow-plug-resistance', { 1: '0.7', 2: '1.3', 3: '7.4', 4: 'OL' }, 4, { limits: { ...limits, ...more } })],
        [],
      ).statements.flatMap((s) => (s.target.name === 'plug' ? [`${s.stand} ${s.target.position}`] : []));
    expect(stands()).toEqual(['bad 3', 'bad 4', 'suspect 2', 'cleared 1']);
    expect(stands({ status: 'approved' })).toEqual(['bad 2', 'bad 3', 'bad 4', 'cleared 1']);
  });
  test('in circuit high and bare good convicts the wire; a wire that adds little is cleared', () => {
    const all = says([
      run('glow-plug-resistance', BARE),
      run('glow-plug-through-harness', { 1: '1.0', 2: '1.1', 3: '1.0', 4: '640' }),
    ]);
    expect(all).toEqual(
      expect.arrayContaining(['bad in-circuit-minus-bare path plug 4', 'cleared in-circuit-minus-bare path plug 1']),
    );
    expect(all).not.toContain('bad bare-part part plug 4');
  });
  test('bad by itself and the same through the wire: the part, and its wire is good', () => {
    expect(
      says([
        run('glow-plug-resistance', { ...BARE, 3: '201' }),
        run('glow-plug-through-harness', { 1: '1.0', 2: '1.1', 3: '201', 4: '1.0' }),
      ]),
    ).toEqual(expect.arrayContaining(['bad bare-part part plug 3', 'cleared in-circuit-minus-bare path plug 3']));
  });
  test('in circuit alone accuses the wire and asks for the part by itself', () => {
    const known = whatIsKnown([run('glow-plug-through-harness', { 1: '1.0', 2: '1.1', 3: '1.0', 4: '640' })], []);
    expect(known.statements.find((s) => s.target.position === 4)).toMatchObject({
      stand: 'suspect',
      rule: 'measured',
      text: expect.stringContaining('Measure it by itself') as string,
    });
  });
  test('healthy neighbours prove the shared feed; all dead accuses it before any single part', () => {
    expect(says([run('glow-plug-current', { 1: '14', 2: '13', 3: '0.1', 4: '14' })])).toEqual(
      expect.arrayContaining([expect.stringMatching(/^cleared shared-proven shared feed/)]),
    );
    const dead = says([run('glow-plug-current', { 1: '0.1', 2: '0.0', 3: '0.1', 4: '0.1' })]);
    expect(dead).toEqual(expect.arrayContaining([expect.stringMatching(/^suspect all-fail shared feed/)]));
    expect(dead.some((s) => s.startsWith('bad part'))).toBe(false);
  });
  test('meter equals scan tool proves wire and input; where they differ the input side is convicted', () => {
    expect(says([run('sensor-meter-scan', { difference: '0.02' })])).toContain(
      'cleared meter-equals-scan input signal wire and controller input',
    );
    expect(says([run('sensor-meter-scan', { difference: '0.6' })])).toContain(
      'bad meter-equals-scan input signal wire and controller input',
    );
  });
  test('what was not measured says nothing', () => expect(says([run('glow-plug-resistance', { 1: '-' })])).toEqual([]));
});

describe('what other evidence proves', () => {
  const swap = (outcome: 'followed' | 'stayed' | 'gone'): Evidence => ({
    kind: 'swap',
    part: 'injector',
    from: 3,
    to: 1,
    outcome,
  });
  test.each<[string, Evidence, string[]]>([
    [
      'followed means part, and its path is good',
      swap('followed'),
      ['bad swap part injector 1', 'cleared swap path injector 3'],
    ],
    [
      'stayed means path, controller or mechanics',
      swap('stayed'),
      ['suspect swap path injector 3', 'cleared swap part injector 1'],
    ],
    ['gone means a disturbed connector', swap('gone'), ['suspect swap path injector 3']],
    [
      'a cylinder that is missed works',
      { kind: 'cut-out', position: 2, faultPresent: true, change: 'worse' },
      ['cleared cut-out mechanics cylinder 2'],
    ],
    [
      'one that is not missed does no work',
      { kind: 'cut-out', position: 2, faultPresent: true, change: 'none' },
      ['suspect cut-out part injector 2'],
    ],
    [
      'without the fault a cut-out proves nothing',
      { kind: 'cut-out', position: 2, faultPresent: false, change: 'none' },
      ['noted cut-out mechanics cylinder 2'],
    ],
    [
      'what breaks when moved is broken',
      { kind: 'wiggle', where: 'the cover connector', outcome: 'broke' },
      ['bad wiggle path the cover connector'],
    ],
    [
      'what holds proves nothing',
      { kind: 'wiggle', where: 'the cover connector', outcome: 'held' },
      ['noted wiggle path the cover connector'],
    ],
    [
      'a new part that changes nothing acquits',
      { kind: 'new-part', part: 'sensor', outcome: 'no change', changed: 'nothing' },
      ['cleared new-part part sensor'],
    ],
    [
      'one that cures convicts',
      { kind: 'new-part', part: 'plug', position: 4, outcome: 'cured', changed: 'starts' },
      ['bad new-part part plug 4'],
    ],
  ])('%s', (_, body, expected) => expect(says([], [seen(body)])).toEqual(expected));

  test('a contradiction is named with both sides, not averaged', () => {
    const { contradictions } = whatIsKnown([], [seen(swap('followed')), seen(swap('stayed'))]);
    expect(contradictions.map((c) => [c.target.kind, c.sides.map((s) => s.stand)])).toEqual([
      ['part', ['bad', 'cleared']],
      ['path', ['suspect', 'cleared']],
    ]);
  });
  test('a good ohms reading of a part that a swap convicts: it fails in a way that ohms do not see', () => {
    const { contradictions, statements } = whatIsKnown(
      [run('injector-resistance', { 1: '0.6', 2: '0.6', 3: '0.6', 4: '0.6' })],
      [seen(swap('followed'))],
    );
    expect(contradictions[0]?.text).toContain('does not see');
    expect(statements[0]).toMatchObject({ stand: 'bad', rule: 'swap' });
  });
  test('two faults at once are held together', () => {
    const known = whatIsKnown(
      [],
      [
        seen({ kind: 'visual', where: 'the bracket', position: 3, damaged: true, seen: 'rubbed through' }),
        seen({ ...swap('followed'), from: 4 } as Evidence),
      ],
    );
    expect(heldTogether(known).sort()).toEqual(['the bracket', 'the injector of cylinder 1']);
    expect(known.contradictions).toEqual([]);
  });
  test('several of one kind are one thing that is bad, and are named together', () => {
    const chafed = seen({ kind: 'visual', where: 'the bracket', position: 3, damaged: true, seen: 'rubbed through' });
    const followed = (from: number) => seen({ ...swap('followed'), from } as Evidence);
    expect(heldTogether(whatIsKnown([], [followed(5), followed(4)]))).toEqual([]);
    expect(heldTogether(whatIsKnown([], [followed(5), chafed, followed(4)])).sort()).toEqual([
      'the bracket',
      'the injectors of cylinders 1 and 4',
    ]);
  });
  test('what was mended is history; what came after counts', () => {
    const chafed = seen({ kind: 'visual', where: 'the bracket', position: 3, damaged: true, seen: 'rubbed through' });
    const mended = seen({
      kind: 'repair',
      where: 'the bracket',
      path: true,
      part: 'injector',
      position: 3,
      done: 'loom replaced',
    });
    expect(says([], [chafed, mended])).toEqual(['noted repaired path the bracket 3']);
    const again = seen({ kind: 'wiggle', where: 'the bracket', position: 3, outcome: 'broke' });
    expect(says([], [chafed, mended, again])).toContain('bad wiggle path the bracket 3');
  });
  test('a place on a wire joins what a meter says of that wire', () => {
    const known = whatIsKnown(
      [run('glow-plug-resistance', BARE), run('glow-plug-through-harness', { 1: '1.0', 2: '1.1', 3: '1.0', 4: '64' })],
      [seen({ kind: 'wiggle', where: 'the bracket', position: 4, outcome: 'broke' })],
    );
    expect(proposeFindings(known)[0]).toMatchObject({
      confidence: 'certain',
      text: 'The wire to the plug of cylinder 4 is bad',
    });
  });
});

describe('findings that the evidence would bear', () => {
  test('three bad plugs are one finding; one kind of evidence is probable', () => {
    const known = whatIsKnown([run('glow-plug-resistance', { 1: 'OL', 2: '0.8', 3: '201', 4: '4k5' })], []);
    expect(proposeFindings(known)).toMatchObject([
      { positions: [1, 3, 4], confidence: 'probable', text: 'The plugs of cylinders 1, 3 and 4 are bad' },
    ]);
    expect(ruledOutBy(known)).toMatchObject([{ what: 'the plug of cylinder 2' }]);
  });
  test('what is only accused is possible', () =>
    expect(
      proposeFindings(whatIsKnown([], [seen({ kind: 'cut-out', position: 1, faultPresent: true, change: 'none' })]))[0]
        ?.confidence,
    ).toBe('possible'));
  test('evidence against stands beside, and takes certainty away', () => {
    const known = whatIsKnown(
      [],
      [
        seen({ kind: 'new-part', part: 'injector', position: 3, outcome: 'no change', changed: 'nothing' }),
        seen({ kind: 'swap', part: 'injector', from: 3, to: 1, outcome: 'followed' }),
      ],
    );
    expect(proposeFindings(known)[0]).toMatchObject({ confidence: 'probable', against: [{ kind: 'evidence' }] });
  });
});

describe('laws', () => {
  const position = fc.integer({ min: 1, max: 4 });
  const evidence = fc.oneof<fc.Arbitrary<Evidence>[]>(
    fc.record({
      kind: fc.constant('swap' as const),
      part: fc.constantFrom('injector', 'plug'),
      from: position,
      to: position,
      outcome: fc.constantFrom('followed' as const, 'stayed' as const, 'gone' as const),
    }),
    fc.record({
      kind: fc.constant('cut-out' as const),
      position,
      faultPresent: fc.boolean(),
      change: fc.constantFrom('worse' as const, 'none' as const),
    }),
    fc.record({
      kind: fc.constant('wiggle' as const),
      where: fc.constantFrom('a', 'b'),
      position: fc.option(position, { nil: undefined }),
      outcome: fc.constantFrom('broke' as const, 'held' as const),
    }),
    fc.record({
      kind: fc.constant('new-part' as const),
      part: fc.constantFrom('injector', 'plug'),
      position,
      outcome: fc.constantFrom('cured' as const, 'no change' as const),
      changed: fc.string(),
    }),
  );
  const recorded = (bodies: readonly Evidence[]): RecordedEvidence[] =>
    bodies.map((body, i) => ({ id: String(i), body, at: `2026-01-01T00:00:${String(i).padStart(2, '0')}Z` }));
  test('the order in which evidence is handed over makes no difference', () => {
    fc.assert(
      fc.property(fc.array(evidence, { maxLength: 12 }), (bodies) => {
        const all = recorded(bodies);
        expect(whatIsKnown([], [...all].reverse())).toEqual(whatIsKnown([], all));
      }),
    );
  });
  test('every statement names its rule and what it rests on; every proposal is accused by somebody', () => {
    fc.assert(
      fc.property(fc.array(evidence, { maxLength: 12 }), (bodies) => {
        const known = whatIsKnown([], recorded(bodies));
        for (const s of known.statements) expect([RULES[s.rule].length > 20, s.from.length > 0]).toEqual([true, true]);
        for (const p of proposeFindings(known)) expect(p.supports.length).toBeGreaterThan(0);
        for (const c of known.contradictions) expect(new Set<Stand>(c.sides.map((s) => s.stand)).size).toBe(2);
      }),
    );
  });
  test('every kind has a line for the trail', () =>
    fc.assert(fc.property(evidence, (e) => evidenceWords(e).length > 8)));
  test('every rule is explained', () =>
    expect((Object.keys(RULES) as RuleId[]).every((r) => RULES[r].endsWith('.'))).toBe(true));
});

test('older runs that say nothing of their own can be left out: the same is known as by reading all of them', () => {
  const entry = fc.constantFrom('0.7', '201', 'OL');
  const bare = fc.tuple(fc.constant('glow-plug-resistance'), fc.tuple(entry, entry, entry, entry));
  const wire = fc.constantFrom('1.0', '640');
  const through = fc.tuple(fc.constant('glow-plug-through-harness'), fc.tuple(wire, wire, wire, wire));
  const amps = fc.constantFrom('14', '0.1');
  const current = fc.tuple(fc.constant('glow-plug-current'), fc.tuple(amps, amps, amps, amps));
  const mend = fc.constantFrom<Evidence>(
    { kind: 'repair', where: 'the loom', path: true, part: 'plug', position: 3, done: 'mended' },
    { kind: 'repair', where: 'plug 2', path: false, part: 'plug', position: 2, done: 'renewed' },
  );
  const happened = fc.array(fc.oneof(bare, through, current, mend), { maxLength: 14 });
  fc.assert(
    fc.property(happened, (all) => {
      const [runs, evidence]: [MeasuredRun[], RecordedEvidence[]] = [[], []];
      for (const e of all) {
        if ('kind' in e) evidence.push(seen(e));
        else runs.push(run(e[0], Object.fromEntries(e[1].map((v, i) => [i + 1, v]))));
      }
      const sorted = ({ statements }: ReturnType<typeof whatIsKnown>): string[] =>
        statements.map((s) => JSON.stringify(s)).sort();
      expect(sorted(whatIsKnown(runs, evidence))).toEqual(sorted(whatIsKnown(runs, evidence, (r) => [...r])));
    }),
    { numRuns: 150 },
  );
});

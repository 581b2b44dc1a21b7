import { asFor, PLAIN } from '../locale/locale';
import { valueForReader } from './values';
import { spawnSync } from 'node:child_process';
import fc from 'fast-check';
import { checkCharacter, checkCode, doubledCodes, GENERAL_RULE, groupedCode, plainCode } from './coding';
import { oneOrSet, type OneOrSetInputs } from './one-or-set';
import { mendedBySteps } from './mended';
import { beforeAfter, codesKept, proofOf, quotationOf, repairedAt, stepsLeft, type ProofInputs } from './proof';
import { moneyWords } from './money';
import { openQuotations, totalOf } from './quotation';
import { SEQUENCES, sequenceFor } from './sequences';
import { isChoiceOfSet, lifeFrom, livesOf, inputsFrom } from './suggest';
import { eachStep, type Recorded, type RepairRecord } from './types';
import { deviation, readValue, strayed } from './values';
import { failureWithin, fitWeibull, type Life } from './weibull';

function python(script: string): unknown {
  const { stdout, status, stderr } = spawnSync('/usr/bin/python3', ['-c', script], { encoding: 'utf8' });
  if (status !== 0) throw new Error(stderr);
  return JSON.parse(stdout);
}

describe('lives of parts', () => {
  test('probability of failing within a horizon as scipy’s weibull_min has it', () => {
    const cases = [
      [2.2, 6000, 4000, 1500],
      [1, 5000, 0, 5000],
      [3.5, 8000, 7000, 500],
      [0.8, 3000, 100, 2000],
    ] as const;
    const expected = python(`
import json
from scipy.stats import weibull_min as w
print(json.dumps([float((w.cdf(a+h, k, scale=s) - w.cdf(a, k, scale=s)) / w.sf(a, k, scale=s)) for k, s, a, h in ${JSON.stringify(cases)}]))`) as number[];
    cases.forEach(([shape, scale_h, age, horizon], i) => {
      expect(failureWithin({ shape, scale_h }, age, horizon)).toBeCloseTo(expected[i] ?? NaN, 12);
    });
  });
  test('fitted to lives of which some have not ended, as scipy’s optimiser finds the largest likelihood', () => {
    const lives: Life[] = [
      [900, 1],
      [1500, 1],
      [2100, 1],
      [2400, 0],
      [2600, 1],
      [3100, 1],
      [3300, 1],
      [3900, 0],
      [4100, 1],
      [4800, 1],
      [5200, 1],
      [5200, 0],
      [6000, 0],
      [7400, 1],
    ].map(([age_h = 0, failed]) => ({ age_h, failed: failed === 1 }));
    const [shape, scale] = python(`
import json, numpy as np
from scipy.optimize import minimize
t = np.array(${JSON.stringify(lives.map((l) => l.age_h))}, float); d = np.array(${JSON.stringify(lives.map((l) => (l.failed ? 1 : 0)))}, float)
def minus(p):
    k, s = np.exp(p)
    return -np.sum(d*(np.log(k/s) + (k-1)*np.log(t/s)) - (t/s)**k)
r = minimize(minus, np.log([1.5, 4000.0]), method='Nelder-Mead', options={'xatol':1e-10,'fatol':1e-12,'maxiter':20000})
print(json.dumps(np.exp(r.x).tolist()))`) as [number, number];
    const fitted = fitWeibull(lives);
    expect(fitted?.shape).toBeCloseTo(shape, 4);
    expect((fitted?.scale_h ?? 0) / scale).toBeCloseTo(1, 5);
    expect(lifeFrom(lives, { shape: 1, scale_h: 1 })).toMatchObject({ from: 'own history', failures: 10 });
  });
  test('too little history says nothing', () => {
    expect(fitWeibull([])).toBeNull();
    expect(fitWeibull(Array.from({ length: 12 }, () => ({ age_h: 1000, failed: true })))).toBeNull();
    expect(lifeFrom([{ age_h: 10, failed: true }], { shape: 2, scale_h: 5 })).toEqual({
      life: { shape: 2, scale_h: 5 },
      from: 'assumed',
      failures: 1,
    });
  });
});

/** Four plugs, one failed; life without wear, so that the arithmetic can be done by hand. */
const HAND: OneOrSetInputs = {
  positions: 4,
  failed: 1,
  part: 2000,
  access_min: 60,
  each_min: 15,
  labour: 6000,
  age_h: 3000,
  horizon_h: 1000,
  life: { shape: 1, scale_h: 1000 / Math.LN2 },
  breakage: 0.1,
  breakageCost: 10000,
  comeback: 20000,
};

describe('one or the whole set', () => {
  test('worked by hand', () => {
    // Half of all parts fail within the horizon, old or new. A minute costs 100. Each: 2000 + 15 × 100 + 0.1
    // × 10000 = 4500. Access 6000. One: now 6000 + 4500 = 10500; returns 4 × 0.5 = 2, each 6000 + 4500 +
    // 20000 = 30500; later 61000; in all 71500. Set: now 6000 + 4 × 4500 = 24000; the same two returns; in
    // all 85000.
    const r = oneOrSet(HAND);
    expect(r.one).toEqual({
      now: 10500,
      returns: expect.closeTo(2, 9) as number,
      later: expect.closeTo(61000, 6) as number,
      total: expect.closeTo(71500, 6) as number,
    });
    expect(r.set.total).toBeCloseTo(85000, 6);
    expect([r.cheaper, r.nextFailure.toFixed(6)]).toEqual(['one', '0.500000']);
  });
  test('by simulation: 200,000 lives of each position, drawn by numpy', () => {
    const i: OneOrSetInputs = {
      ...HAND,
      life: { shape: 2.5, scale_h: 5000 },
      age_h: 4000,
      horizon_h: 1500,
      positions: 6,
      failed: 2,
    };
    const simulated = python(`
import json, numpy as np
rng = np.random.default_rng(20261123)
n, k, s, a, h = 200000, 2.5, 5000.0, 4000.0, 1500.0
def fails(age, count):
    # the rest of the life of a part that has held to its age, by inverting the conditional survival
    u = rng.random((n, count))
    life = s * ((age/s)**k - np.log(u))**(1/k)
    return (life < age + h).sum(axis=1)
def cost(new, old):
    breaks = (rng.random((n, new)) < 0.1).sum(axis=1)
    now = 6000 + new*3500 + breaks*10000
    r = fails(0.0, new) + fails(a, old)
    later_breaks = rng.binomial(r, 0.1)
    return now + r*(6000 + 3500 + 20000) + later_breaks*10000
one, whole = cost(2, 4), cost(6, 0)
print(json.dumps([one.mean(), one.std()/np.sqrt(n), whole.mean(), whole.std()/np.sqrt(n)]))`) as [
      number,
      number,
      number,
      number,
    ];
    const r = oneOrSet(i);
    expect(Math.abs(r.one.total - simulated[0])).toBeLessThan(4 * simulated[1]);
    expect(Math.abs(r.set.total - simulated[2])).toBeLessThan(4 * simulated[3]);
    expect(r.cheaper).toBe('set');
  });
  test('what would tip it: at that value both cost the same', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 3 }),
        fc.integer({ min: 500, max: 60000 }),
        fc.integer({ min: 100, max: 9000 }),
        fc.double({ min: 1.2, max: 4, noNaN: true }),
        fc.integer({ min: 0, max: 90000 }),
        (failed, part, age_h, shape, comeback) => {
          const i = { ...HAND, failed, part, age_h, comeback, life: { shape, scale_h: 5000 } };
          for (const { input, at } of oneOrSet(i).tips) {
            if (at === null) continue;
            const there = oneOrSet({ ...i, [input]: at });
            expect(Math.abs(there.one.total - there.set.total)).toBeLessThan(
              1e-3 * Math.max(there.one.total, there.set.total),
            );
          }
        },
      ),
      { numRuns: 100 },
    );
  });
  test('with all failed there is nothing to decide', () =>
    expect(oneOrSet({ ...HAND, failed: 4 }).cheaper).toBe('even'));
  test('history comes from decisions: those that failed at that age, and those that held', () => {
    const decision: RepairRecord = {
      kind: 'decision',
      finding: 'f',
      school: 'one',
      currency: 'EUR',
      why: '',
      inputs: HAND,
    };
    expect(livesOf([{ id: '1', by: 'x', at: '', body: decision }])).toEqual([
      { age_h: 3000, failed: true },
      ...Array.from({ length: 3 }, () => ({ age_h: 3000, failed: false })),
    ]);
    const start = inputsFrom(undefined, { shape: 1, scale_h: 1 }, 4, 9, null);
    expect(start.failed).toBe(4);
    // What nobody has entered is not known: no price, no time, no age.
    expect([start.part, start.labour, start.access_min, start.comeback, start.age_h]).toEqual(Array(5).fill(null));
  });
});

describe('codes of parts', () => {
  const rule = {
    alphabet: '0123456789ABCDEFGHJKLMNPQRSTUVWXYZ',
    lengths: [8],
    check: 'mod-alphabet' as const,
    groups: 4,
  };
  const good = `7AF29KD${checkCharacter('7AF29KD', rule.alphabet, 'mod-alphabet')}`;
  test('a good code has no fault; spaces, hyphens and small letters do not count', () =>
    expect(checkCode(` ${good.slice(0, 4).toLowerCase()}-${good.slice(4)} `, rule, 'pasted')).toEqual([]));
  test('what does not occur is named at its character, with what it may be taken for', () => {
    expect(
      checkCode(`7OF2${good.slice(4)}`, { ...rule, alphabet: rule.alphabet.replace('O', '') }, 'pasted'),
    ).toMatchObject([{ at: 2, doubt: false, text: expect.stringContaining('is it "0"?') as string }]);
    expect(checkCode('7A*29KDX', rule, 'pasted')[0]).toMatchObject({ at: 3 });
  });
  test('look-alikes of a typed code are asked about, of a photo they are not', () => {
    const [typed] = checkCode('80', GENERAL_RULE);
    expect(typed).toMatchObject({ at: 1, doubt: true, text: 'Character 1: is it "8" or "B"?' });
    expect(checkCode('80', GENERAL_RULE, 'photo')).toEqual([]);
  });
  test('a wrong length says where', () => {
    expect(checkCode(good.slice(0, 6), rule, 'pasted')[0]?.text).toContain(
      '6 characters; these codes have 8: one is missing',
    );
    expect(checkCode(`${good}7`, rule, 'pasted')[0]?.text).toContain('character 9 is one too many');
    expect(checkCode('  ', rule)[0]?.text).toContain('Type the code');
  });
  test('any one character read wrong is found by the check character, or does not occur', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 6 }), fc.integer({ min: 1, max: rule.alphabet.length - 1 }), (at, by) => {
        const was = rule.alphabet.indexOf(good[at] ?? '');
        const wrong = good.slice(0, at) + (rule.alphabet[(was + by) % rule.alphabet.length] ?? '') + good.slice(at + 1);
        // A place weighs its number: a slip whose weight is a multiple of the alphabet's length passes. 34 =
        // 2 × 17.
        if (((at + 1) * by) % rule.alphabet.length !== 0) expect(checkCode(wrong, rule, 'pasted')).not.toEqual([]);
      }),
    );
  });
  test('mod-10 with weights 3 and 1, as article numbers are checked: 400638133393 ends in 1', () =>
    expect(checkCharacter('400638133393', '0123456789', 'mod-10')).toBe('1'));
  test('the same code at two cylinders', () => {
    expect(
      doubledCodes([
        { position: 1, code: 'AB 12' },
        { position: 2, code: 'X' },
        { position: 4, code: 'ab12' },
      ]),
    ).toEqual([{ code: 'AB12', positions: [1, 4] }]);
    expect([groupedCode('ABCDEFGHIJ', 4), groupedCode('ABCD', 4), plainCode(' a-b ')]).toEqual([
      'ABCD EFGH IJ',
      'ABCD',
      'AB',
    ]);
  });
});

test.each<[string, 'torque' | 'angle' | 'length' | 'voltage', number | null]>([
  ['18 Nm', 'torque', 18],
  ['13 lbf ft', 'torque', 17.6256],
  ['18', 'torque', null],
  ['18 V', 'torque', null],
  ['90°', 'angle', 90],
  ['90', 'angle', 90],
  ['0,4', 'length', 0.0004],
  ['0.3 V', 'voltage', 0.3],
  ['', 'voltage', null],
  ['tight', 'torque', null],
])('the value %j as %s', (text, quantity, value) => {
  const read = readValue(text, quantity);
  expect(read.ok ? Number(read.value.value.toPrecision(6)) : null).toBe(
    value === null ? null : Number(value.toPrecision(6)),
  );
});
test('what was reached against what was asked, in either unit', () => {
  expect(deviation('13.27613 lbf ft', '18 Nm', 'torque')).toBeCloseTo(0, 5);
  expect(deviation('20 Nm', '16 Nm', 'torque')).toBeCloseTo(0.25, 9);
  expect(deviation('tight', '16 Nm', 'torque')).toBeNull();
  const [target, limit] = [{ quantity: 'torque' as const }, { quantity: 'torque' as const, isLimit: true as const }];
  expect([strayed('20 Nm', '16 Nm', target), strayed('17 Nm', '16 Nm', target)]).toEqual([expect.closeTo(0.25), null]);
  expect([strayed('9 Nm', '16 Nm', target), strayed('9 Nm', '16 Nm', limit)]).toEqual([expect.closeTo(-0.4375), null]);
  expect(strayed('17 Nm', '16 Nm', limit)).toBeCloseTo(0.0625);
});

describe('sequences', () => {
  test('the loom for what lies between, the part for a part', () => {
    expect(
      [
        ['part', 'injector'],
        ['path', 'injector'],
        ['part', 'plug'],
        ['shared', 'fuse'],
        ['part', 'module'],
        ['shared', 'something else'],
        ['mechanics', 'valve'],
      ].map(([what = '', name = '']) => sequenceFor(what, name).id),
    ).toEqual(['injectors', 'harness', 'glow-plugs', 'supply', 'module', 'supply', 'harness']);
  });
  test.each(SEQUENCES.map((s) => [s.id, s] as const))(
    '%s defers to the maker, and holds no value of its own',
    (_, s) => {
      expect(s.cautions.join()).toContain('maker’s service information');
      expect(new Set(s.steps.map((x) => x.id)).size).toBe(s.steps.length);
      for (const step of s.steps) expect(step.say).not.toMatch(/\d+ ?(Nm|°|mm|V)\b/);
    },
  );
});

describe('proof of a repair', () => {
  const at = (minute: number): string => `2026-11-20T10:${String(minute).padStart(2, '0')}:00Z`;
  const judged = (suspects: number[]) =>
    ({
      readings: [],
      pattern: suspects.length ? 'one' : 'good',
      suspects,
      summary: suspects.length ? 'bad' : 'All good.',
    }) as unknown as NonNullable<ProofInputs['runs'][number]['judgement']>;
  const finding = {
    id: 'f',
    at: at(5),
    body: {
      kind: 'found' as const,
      what: 'part' as const,
      name: 'injector',
      positions: [2],
      confidence: 'certain' as const,
      text: 'Injector 2',
      supports: [],
      against: [],
      ruledOut: [],
      advice: '',
    },
  };
  const record = (minute: number, body: RepairRecord): Recorded => ({
    id: `r${minute}`,
    by: 'x',
    at: at(minute),
    body,
  });
  const base: ProofInputs = {
    complaint: 'no complaint',
    findings: [finding],
    records: [],
    evidence: [],
    runs: [{ id: 'a', test: 't', name: 'T', at: at(1), judgement: judged([2]) }],
    codes: [],
    cylinders: 4,
    conditions: ['load'],
  };
  const states = (i: ProofInputs) => Object.fromEntries(proofOf(i).map((c) => [c.id, c.state]));
  const whyOf = (i: ProofInputs, id: string): string => proofOf(i).find((c) => c.id === id)?.why ?? '';
  test('nothing is proven before anything was done', () =>
    expect(new Set(Object.values(states({ ...base, findings: [] })))).toEqual(new Set(['open'])));
  test('the whole way from finding to release', () => {
    const records = [
      record(6, {
        kind: 'quotation',
        finding: 'f',
        currency: 'EUR',
        lines: [{ text: 'injector', quantity: 1, price: 100 }],
        note: '',
      }),
      record(7, { kind: 'answer', quotation: 'r6', answer: 'accepted', said: '' }),
      ...sequenceFor('part', 'injector').steps.map((s, i) =>
        record(10 + i, { kind: 'step', sequence: 'injectors', step: s.id, ...(s.each ? { position: 2 } : {}) }),
      ),
      record(30, { kind: 'coding', part: 'injector', position: 2, code: 'AB', how: 'typed' }),
      record(50, { kind: 'scan', outcome: 'clean', said: 'nothing' }),
    ];
    const runs = [...base.runs, { id: 'b', test: 't', name: 'T', at: at(40), judgement: judged([]) }];
    const evidence = [
      {
        at: at(45),
        body: {
          kind: 'drive' as const,
          conditions: ['load' as const],
          outcome: 'did not show' as const,
          seen: 'uphill, loaded',
        },
      },
    ];
    const whole: ProofInputs = {
      ...base,
      records,
      runs,
      evidence,
      codes: [
        { code: 'P0202', phase: 'after-clearing', at: at(2) },
        { code: null, phase: 'after-clearing', at: at(48) },
      ],
    };
    expect(new Set(Object.values(states(whole)))).toEqual(new Set(['done']));
    expect(beforeAfter(whole)).toMatchObject([{ before: { id: 'a' }, after: { id: 'b' } }]);
    expect(
      states({ ...whole, runs: [...base.runs, { id: 'b', test: 't', name: 'T', at: at(40), judgement: judged([2]) }] })[
        'measured-again'
      ],
    ).toBe('failed');
    expect(
      states({ ...whole, evidence: [{ ...evidence[0]!, body: { ...evidence[0]!.body, conditions: ['cold'] } }] })[
        'road-test'
      ],
    ).toBe('open');
    expect(
      states({ ...whole, codes: [{ code: 'P0202', phase: 'after-road-test', at: at(49) }] })['codes-cleared'],
    ).toBe('failed');
    expect(states({ ...whole, codes: whole.codes.slice(0, 1) })['codes-cleared']).toBe('open');
    expect(states({ ...whole, records: records.slice(0, 8) }).repaired).toBe('open');
    const left = stepsLeft(finding, records.slice(0, 8));
    expect(left.length).toBeGreaterThan(0);
    expect(whyOf({ ...whole, records: records.slice(0, 8) }, 'repaired')).toBe(
      `${left.length} ${left.length === 1 ? 'step' : 'steps'} left. Next, cylinder 2: ${left[0]?.say ?? ''}`,
    );
    expect(states({ ...whole, records: records.filter((r) => r.body.kind !== 'coding') }).coded).toBe('open');
  });
  describe('one good test is not all good', () => {
    const good: ProofInputs = {
      ...base,
      findings: [],
      runs: [{ id: 'a', test: 't', name: 'T', at: at(1), judgement: judged([]) }],
    };
    const isAllGood = (i: ProofInputs): boolean => proofOf(i).length === 2;
    const drive = (outcome: 'showed' | 'did not show') => ({
      at: at(3),
      body: { kind: 'drive' as const, conditions: [], outcome, seen: 'on the road' },
    });
    const notFound = {
      id: 'n',
      at: at(4),
      body: { kind: 'not-found' as const, text: 'nothing', ruledOut: [], ifReturns: 'look at the loom' },
    };
    test('a check without a complaint is', () => expect(isAllGood(good)).toBe(true));
    test('an open code is not, whatever was measured', () => {
      const code = (code: string | null, minute: number) => ({
        code,
        phase: 'after-clearing' as const,
        at: at(minute),
      });
      expect(isAllGood({ ...good, codes: [{ code: 'P0202', phase: 'as-found', at: at(0) }] })).toBe(false);
      expect(isAllGood({ ...good, codes: [code('P0202', 0), code(null, 2)] })).toBe(true);
    });
    test('a complaint is driven without showing, and signed for', () => {
      const i = { ...good, complaint: 'Does not start' };
      expect(isAllGood(i)).toBe(false);
      expect(isAllGood({ ...i, evidence: [drive('did not show')] })).toBe(false);
      expect(isAllGood({ ...i, evidence: [drive('did not show')], findings: [notFound] })).toBe(true);
      expect(isAllGood({ ...i, evidence: [drive('showed')], findings: [notFound] })).toBe(false);
    });
  });
  describe('each finding has its own', () => {
    const other = { ...finding, id: 'g', body: { ...finding.body, name: 'plug', positions: [4], text: 'Plug 4' } };
    const two: ProofInputs = { ...base, findings: [finding, other] };
    const ticked = (positions: readonly number[]): Recorded[] =>
      sequenceFor('part', 'injector').steps.flatMap((s, i) =>
        s.each
          ? positions.map((position) => record(10 + i, { kind: 'step', sequence: 'injectors', step: s.id, position }))
          : [record(10 + i, { kind: 'step', sequence: 'injectors', step: s.id })],
      );
    test('quotation and answer', () => {
      const quoted = (finding_: string, minute: number): Recorded[] => [
        record(minute, { kind: 'quotation', finding: finding_, currency: 'EUR', lines: [], note: '' }),
        record(minute + 1, { kind: 'answer', quotation: `r${minute}`, answer: 'accepted', said: '' }),
      ];
      expect(states({ ...two, records: quoted('f', 6) }).agreed).toBe('open');
      expect(whyOf({ ...two, records: quoted('f', 6) }, 'agreed')).toBe('Plug 4: No quotation was made.');
      expect(states({ ...two, records: [...quoted('f', 6), ...quoted('g', 8)] }).agreed).toBe('done');
    });
    test('steps: what nobody has touched is not done', () => {
      expect(states({ ...two, records: ticked([2]) }).repaired).toBe('open');
      const mended = {
        at: at(30),
        body: { kind: 'new-part' as const, part: 'plug', position: 4, outcome: 'cured' as const, changed: '' },
      };
      expect(states({ ...two, records: ticked([2]), evidence: [mended] }).repaired).toBe('done');
    });
    test('ticked steps mend at their time, position by position', () => {
      const set = { ...base, findings: [{ ...finding, body: { ...finding.body, positions: [2, 3] } }] };
      expect(mendedBySteps({ ...set, records: ticked([2]) }).map((e) => e.body)).toMatchObject([
        { kind: 'repair', part: 'injector', position: 2, path: false },
      ]);
      const both = mendedBySteps({ ...set, records: ticked([2, 3]) });
      expect(both).toHaveLength(2);
      expect(both[0]?.at).toBe(at(9 + sequenceFor('part', 'injector').steps.length));
      expect(mendedBySteps({ ...set, records: ticked([2]).slice(1) })).toEqual([]);
    });
  });
  test('a quotation that was not accepted is remembered; the newest answer counts', () => {
    const quotation = record(6, {
      kind: 'quotation',
      finding: 'f',
      currency: 'EUR',
      lines: [
        { text: 'plugs', quantity: 4, price: 2550 },
        { text: 'labour', quantity: 0.75, price: 8000 },
      ],
      note: '',
    });
    expect(openQuotations([quotation])).toMatchObject([{ answer: 'unanswered', total: 16200 }]);
    const deferred = record(8, {
      kind: 'answer',
      quotation: 'r6',
      answer: 'deferred',
      until: '2027-03-01',
      said: 'after the winter',
    });
    expect(openQuotations([quotation, deferred])).toMatchObject([{ answer: 'deferred', until: '2027-03-01' }]);
    expect(
      openQuotations([
        quotation,
        deferred,
        record(9, { kind: 'answer', quotation: 'r6', answer: 'accepted', said: '' }),
      ]),
    ).toEqual([]);
    expect([totalOf([{ text: '', quantity: 1.5, price: 333 }]), moneyWords(123456789, 'EUR')]).toEqual([
      500,
      '1,234,567.89 EUR',
    ]);
  });
});

describe('what is written between finding and release', () => {
  const record = (n: number, body: RepairRecord): Recorded => ({
    id: `r${n}`,
    by: 'x',
    at: `2026-11-20T10:${String(n).padStart(2, '0')}:00Z`,
    body,
  });
  const plug = (id: string, positions: number[]) => ({
    id,
    body: {
      kind: 'found' as const,
      what: 'part' as const,
      name: 'plug',
      positions,
      confidence: 'certain' as const,
      text: 'x',
      supports: [],
      against: [],
      ruledOut: [],
      advice: '',
    },
  });
  const all = (finding: string, positions: number[]): RepairRecord => ({
    kind: 'ticks',
    finding,
    sequence: 'glow-plugs',
    ticks: sequenceFor('part', 'plug').steps.flatMap((s) =>
      s.each ? positions.map((position) => ({ step: s.id, position })) : [{ step: s.id }],
    ),
  });

  test('many ticks of one record are a step each, at their positions, by their person and time', () => {
    const each = eachStep([record(1, all('f', [2, 3]))]);
    expect(new Set(each.map((r) => r.id)).size).toBe(each.length);
    expect(each.every((r) => r.body.kind === 'step' && r.by === 'x')).toBe(true);
    expect(stepsLeft(plug('f', [2, 3]), each)).toEqual([]);
    expect(stepsLeft(plug('f', [2, 3, 4]), each).every((l) => l.position === 4)).toBe(true);
  });
  test('ticks belong to their finding; those of older days to each', () => {
    const own = eachStep([record(1, all('f', [2]))]);
    expect(stepsLeft(plug('g', [2]), own).length).toBeGreaterThan(0);
    const older = own.map((r) => ({ ...r, body: { ...r.body, finding: undefined } as RepairRecord }));
    expect(stepsLeft(plug('g', [2]), older)).toEqual([]);
  });
  test('a quotation of before the decision counts no more; one of after it does', () => {
    const quotation = (n: number) =>
      record(n, { kind: 'quotation', finding: 'f', currency: 'EUR', lines: [], note: '' });
    const set = record(2, { kind: 'decision', finding: 'f', school: 'set', inputs: null, currency: 'EUR', why: '' });
    expect(quotationOf('f', [quotation(1)])?.id).toBe('r1');
    expect(quotationOf('f', [quotation(1), set])).toBeUndefined();
    expect(quotationOf('f', [quotation(1), set, quotation(3)])?.id).toBe('r3');
    expect(quotationOf('g', [quotation(1), set])).toBeUndefined();
  });
  test('a trim code that was withdrawn stands no more, until another is entered', () => {
    const coding = (n: number, code: string) =>
      record(n, { kind: 'coding', part: 'injector', position: 2, code, how: 'typed' });
    const gone = record(2, { kind: 'coding-withdrawn', part: 'injector', position: 2, because: 'a slip' });
    const now = (...records: Recorded[]) => codesKept(records).get(2)?.body.code;
    expect([now(coding(1, 'AB')), now(coding(1, 'AB'), gone), now(coding(1, 'AB'), gone, coding(3, 'CD'))]).toEqual([
      'AB',
      undefined,
      'CD',
    ]);
  });
  test.each<[string, boolean, number[]]>([
    ['one of four', true, [2]],
    ['three of four', true, [1, 2, 3]],
    ['all of them', false, [1, 2, 3, 4]],
    ['a part that is alone', false, []],
  ])('one or the set, %s: a question %s', (_, asked, positions) =>
    expect(isChoiceOfSet(plug('f', positions).body, 4)).toBe(asked),
  );
  test('a second fault that shows after the first repair is measured again after its own', () => {
    const judged = (suspects: number[]) => ({ readings: [], suspects, pattern: 'one', summary: '' }) as never;
    const run = (id: string, minute: number, suspects: number[]) => ({
      id,
      test: 't',
      name: 'T',
      at: `2026-11-20T10:${String(minute).padStart(2, '0')}:00Z`,
      judgement: judged(suspects),
    });
    const step = (n: number) => record(n, { kind: 'step', sequence: 'harness', step: `x${n}` });
    const pairs = (records: Recorded[], ...runs: ReturnType<typeof run>[]) =>
      beforeAfter({
        findings: [],
        evidence: [],
        codes: [],
        cylinders: 4,
        conditions: [],
        complaint: 'x',
        records,
        runs,
      }).map((p) => [p.before.id, p.after?.id ?? null]);
    expect(pairs([step(5)], run('a', 10, [4]))).toEqual([['a', null]]);
    expect(pairs([step(5)], run('a', 10, [4]), run('b', 12, []))).toEqual([]);
    expect(pairs([step(5), step(15)], run('a', 10, [4]))).toEqual([['a', null]]);
    expect(pairs([step(5), step(15)], run('a', 10, [4]), run('b', 20, []))).toEqual([['a', 'b']]);
    // Still bad after the first repair, mended again: what was read between the two is no proof.
    expect(pairs([step(5), step(15)], run('a', 1, [4]), run('b', 10, [4]))).toEqual([['a', null]]);
    expect(pairs([step(5)], run('a', 1, [4]), run('b', 10, [4]))).toEqual([['a', 'b']]);
  });
  const proof = (more: Partial<ProofInputs>): ProofInputs => ({
    findings: [],
    records: [],
    evidence: [],
    runs: [],
    codes: [],
    cylinders: 4,
    conditions: [],
    complaint: 'x',
    ...more,
  });
  const at = (n: number): string => record(n, { kind: 'scan', outcome: 'clean', said: '' }).at;
  test('a value that is corrected later is no second repair', () => {
    const torque = (n: number, value: string) =>
      record(n, { kind: 'step', finding: 'f', sequence: 'glow-plugs', step: 'torque', position: 2, value });
    expect(repairedAt(proof({ records: [torque(5, '71 Nm'), torque(40, '17 Nm')] }))).toBe(at(5));
    const steps = eachStep([record(5, all('f', [2]))]);
    const findings = [{ ...plug('f', [2]), at: at(1) }];
    const mended = (records: Recorded[]) => mendedBySteps({ findings, records, cylinders: 4 }).map((m) => m.at);
    expect(mended([...steps, torque(40, '17 Nm')])).toEqual(mended(steps));
  });
  test('an injector that has no trim code says so at its step, and holds nothing up', () => {
    const injector = { ...plug('f', [2, 3]), at: at(1) };
    const findings = [{ ...injector, body: { ...injector.body, name: 'injector' } }];
    const without = (position: number) =>
      record(5, {
        kind: 'step',
        finding: 'f',
        sequence: 'injectors',
        step: 'coding',
        position,
        left: 'does not apply',
      });
    const coded = (...records: Recorded[]) => proofOf(proof({ findings, records })).find((c) => c.id === 'coded');
    expect(coded(without(2))).toMatchObject({ state: 'open', why: 'No code for cylinder 3.' });
    expect(coded(without(2), without(3))?.state).toBe('done');
  });
  test('of several looks at the codes since the repair the newest counts, and says what came back before it', () => {
    const look = (n: number, code: string | null, phase: 'as-found' | 'after-clearing') => ({ code, phase, at: at(n) });
    const found = [look(1, 'P0202', 'as-found'), look(1, 'P0204', 'as-found')];
    const cleared = (...codes: ReturnType<typeof look>[]) =>
      proofOf(
        proof({
          findings: [{ ...plug('f', [2]), at: at(1) }],
          records: [record(5, { kind: 'step', sequence: 'x', step: 'y' })],
          codes: [...found, ...codes],
        }),
      ).find((c) => c.id === 'codes-cleared');
    expect(cleared(look(3, null, 'after-clearing'))?.state).toBe('open');
    const back = look(10, 'P0204', 'after-clearing');
    expect(cleared(back)).toMatchObject({ state: 'failed', why: 'There again: P0204. P0202 stayed away.' });
    expect(cleared(back, look(20, null, 'after-clearing'))).toMatchObject({
      state: 'done',
      why: 'P0204 had come back once; in the newest look there is no code.',
    });
  });
  test('a wire is no set', () => expect(isChoiceOfSet({ kind: 'found', what: 'path', positions: [1] }, 4)).toBe(false));
});

test.each([
  ['20 Nm', '20 Nm', '14.8 lbf ft', '20 Nm'],
  ['13 lbf ft', '13 lbf ft', '13 lbf ft', '18 Nm'],
  ['17,5 Nm', '17.5 Nm', '12.91 lbf ft', '17.5 Nm'],
  ['90°', '90°', '90°', '90°'],
  ['0.4 mm', '0.4 mm', '0.4 mm', '0.4 mm'],
  ['by hand', 'by hand', 'by hand', 'by hand'],
])('%s as it is read: given %s, imperial %s, metric %s', (text, given, imperial, metric) => {
  const as = (units: 'given' | 'imperial' | 'metric'): string =>
    asFor({ locale: { ...PLAIN, units }, words: null }, () => valueForReader(text));
  expect([as('given'), as('imperial'), as('metric')]).toEqual([given, imperial, metric]);
});

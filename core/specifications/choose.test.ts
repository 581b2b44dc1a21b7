import fc from 'fast-check';
import { arrangeSpecifications, chooseSpecification, conditionsMet, explainChoice } from './choose';
import { SCOPES, type Situation, type Specification } from './types';

const LIMITS = { quantity: 'resistance' as const, unit: 'ohm', upper: 1 };
let next = 0;
const spec = (more: Partial<Specification> = {}): Specification => {
  const id = more.id ?? `s${(next += 1)}`;
  return {
    id,
    series: id,
    revision: 1,
    test: 't',
    scope: 'general',
    of: null,
    when: {},
    school: null,
    limits: LIMITS,
    source: 'x',
    status: 'approved',
    ...more,
  };
};
const HERE: Situation = {
  test: 't',
  part: 'GP-4',
  family: 'L4',
  depot: 'Quay',
  school: 'strict',
  systemVoltage_V: 12,
  key: 'off',
  connection: 'at-part',
};
const choose = (specs: readonly Specification[], situation = HERE): string | undefined =>
  chooseSpecification(arrangeSpecifications(specs), situation)?.id;

describe('which one judges', () => {
  const general = spec({ id: 'general' });
  const depot = spec({ id: 'depot', scope: 'depot', of: 'Quay' });
  const family = spec({ id: 'family', scope: 'family', of: 'L4' });
  const part = spec({ id: 'part', scope: 'part', of: 'GP-4' });
  test('exact part, then family, then depot, then the general rule', () => {
    expect(choose([general, depot, family, part])).toBe('part');
    expect(choose([part, family, depot, general], { ...HERE, part: null })).toBe('family');
    expect(choose([general, depot])).toBe('depot');
    expect(choose([general])).toBe('general');
    expect(choose([])).toBeUndefined();
  });
  test('those for something else are out', () => {
    expect(
      choose([
        spec({ scope: 'family', of: 'V8' }),
        spec({ scope: 'part', of: 'GP-5' }),
        spec({ scope: 'depot', of: 'North' }),
        spec({ test: 'other' }),
        general,
      ]),
    ).toBe('general');
  });
  test('the best match of condition; one that contradicts is out', () => {
    const cold = spec({ id: 'cold', when: { toTemperature_degC: 30 } });
    const hot = spec({ id: 'hot', when: { fromTemperature_degC: 31 } });
    expect(choose([general, cold, hot], { ...HERE, temperature_degC: 80 })).toBe('hot');
    expect(choose([general, cold, hot], { ...HERE, temperature_degC: 10 })).toBe('cold');
    expect(choose([spec({ when: { systemVoltage_V: 24 } }), general])).toBe('general');
    expect(
      choose([
        general,
        spec({ id: 'both', when: { systemVoltage_V: 12, connection: 'at-part' } }),
        spec({ when: { systemVoltage_V: 12 } }),
      ]),
    ).toBe('both');
  });
  test('what is not known neither meets nor contradicts', () => {
    expect(conditionsMet({ fromTemperature_degC: 20 }, HERE)).toBe(0);
    expect(conditionsMet({ key: 'off', engine: 'stopped' }, HERE)).toBe(1);
    expect(conditionsMet({ key: 'on' }, HERE)).toBeNull();
  });
  test('approved before draft before rule of thumb; the newest revision only; withdrawn is off', () => {
    expect(choose([spec({ status: 'rule-of-thumb' }), spec({ status: 'draft' }), spec({ id: 'good' })])).toBe('good');
    expect(
      choose([spec({ id: 'old', series: 'a' }), spec({ id: 'new', series: 'a', revision: 2, status: 'draft' })]),
    ).toBe('new');
    expect(choose([spec({ series: 'a' }), spec({ series: 'a', revision: 2, status: 'withdrawn' }), general])).toBe(
      'general',
    );
  });
  test('the depot’s school, then what belongs to none, then another school', () => {
    const [strict, tolerant] = [spec({ id: 'strict', school: 'strict' }), spec({ id: 'tolerant', school: 'tolerant' })];
    expect(choose([general, tolerant, strict])).toBe('strict');
    expect(choose([tolerant, general])).toBe('general');
    expect(choose([tolerant])).toBe('tolerant');
    expect(choose([strict, tolerant, general], { ...HERE, school: null })).toBe('general');
  });
});

test('every one that was passed over has a reason, and the chosen one too', () => {
  const specs = [
    spec({ id: 'family', scope: 'family', of: 'L4', when: { systemVoltage_V: 12 } }),
    spec({ id: 'general' }),
    spec({ id: 'elsewhere', scope: 'family', of: 'V8' }),
    spec({ id: 'fewer', scope: 'family', of: 'L4' }),
    spec({ id: 'hot', scope: 'family', of: 'L4', when: { key: 'on' } }),
    spec({ id: 'old', series: 'g' }),
    spec({ id: 'gone', series: 'g', revision: 2, status: 'withdrawn' }),
    spec({ id: 'school', scope: 'family', of: 'L4', school: 'tolerant' }),
  ];
  const choice = explainChoice(arrangeSpecifications(specs), HERE);
  expect(choice).toMatchObject({
    chosen: { id: 'family' },
    because: 'It is for this engine family; 1 of its conditions is met.',
  });
  expect(Object.fromEntries(choice.passedOver.map((p) => [p.specification.id, p.why]))).toEqual({
    general: 'more general',
    elsewhere: 'other family',
    fewer: 'fewer conditions met',
    hot: 'other condition',
    old: 'older revision',
    gone: 'withdrawn',
    school: 'other school',
  });
  expect(explainChoice(arrangeSpecifications([]), HERE)).toEqual({ chosen: null, because: '', passedOver: [] });
});

describe('against the slow and obvious', () => {
  const anySpec = fc.record({
    scope: fc.constantFrom(...SCOPES),
    of: fc.constantFrom('a', 'b'),
    school: fc.constantFrom(null, 'strict', 'tolerant'),
    status: fc.constantFrom('approved' as const, 'draft' as const, 'rule-of-thumb' as const, 'withdrawn' as const),
    series: fc.integer({ min: 0, max: 9 }),
    when: fc.record(
      { systemVoltage_V: fc.constantFrom(12, 24), key: fc.constantFrom('on', 'off') },
      { requiredKeys: [] },
    ),
  });
  const RANK = { approved: 0, draft: 1, 'rule-of-thumb': 2, withdrawn: 3 } as const;
  /** All that apply, sorted by every rule in turn. */
  function obvious(specs: readonly Specification[], at: Situation): Specification | undefined {
    const newest = specs.filter(
      (s) => s.status !== 'withdrawn' && !specs.some((o) => o.series === s.series && o.revision > s.revision),
    );
    const applies = newest
      .filter((s) => s.scope === 'general' || s.of === { part: at.part, family: at.family, depot: at.depot }[s.scope])
      .filter((s) => conditionsMet(s.when, at) !== null);
    const school = (s: Specification): number => (s.school === null ? 1 : s.school === at.school ? 0 : 2);
    const key = (s: Specification): string =>
      [SCOPES.indexOf(s.scope), school(s), 9 - (conditionsMet(s.when, at) ?? 0), RANK[s.status], s.series].join('/');
    return applies.toSorted((a, b) => (key(a) < key(b) ? -1 : 1))[0];
  }
  test('the same choice on random shelves', () => {
    fc.assert(
      fc.property(
        fc.array(anySpec, { maxLength: 12 }),
        fc.constantFrom('a', 'b'),
        fc.constantFrom(null, 'strict'),
        (drawn, family, school) => {
          // A series is about one thing: what came later in it is its next revision.
          const specs = drawn.map((d, i) =>
            spec({
              ...d,
              id: `x${i}`,
              series: `${d.series}`,
              of: d.scope === 'general' ? null : d.of,
              revision: i + 1,
            }),
          );
          const at: Situation = { test: 't', part: 'a', family, depot: 'b', school, systemVoltage_V: 12, key: 'off' };
          expect(chooseSpecification(arrangeSpecifications(specs), at)?.id).toBe(obvious(specs, at)?.id);
        },
      ),
    );
  });
});

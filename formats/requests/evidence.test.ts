import { EVIDENCE_BODY } from './evidence';
import { schema } from '../schemas';
import { validate } from '../validate';
import type { Evidence, EvidenceKind } from '../../core/evidence/types';
import { EVIDENCE_KINDS, evidenceLikelihood, evidenceRules, evidenceWords } from '../../core/evidence/kinds/kinds';
import type { SupposedFault } from '../../core/evidence/kinds/supposition';

const check = schema<Evidence>(EVIDENCE_BODY);
const KINDS = Object.keys(EVIDENCE_KINDS) as EvidenceKind[];
const member = (more: Partial<SupposedFault>): SupposedFault => ({
  is: 'part',
  name: 'injector',
  position: 3,
  intermittent: false,
  when: [],
  ...more,
});
const SUPPOSED = [
  { members: [] },
  { members: [member({})] },
  { members: [member({ is: 'path', intermittent: true, when: ['hot' as const] })] },
  { members: [member({}), member({ is: 'shared', position: null })] },
];

describe.each(KINDS)('the kind %s', (kind) => {
  const definition = EVIDENCE_KINDS[kind];
  const example: Evidence = definition.example;
  test('its example passes the schema that its fields make', () => {
    expect(validate(check, example)).toMatchObject({ ok: true });
    expect(definition.kind).toBe(kind);
  });
  test('every field that is needed is asked for by the schema, at its path', () => {
    for (const f of definition.fields) {
      const without = Object.fromEntries(Object.entries(example).filter(([k]) => k !== f.field));
      const read = validate(check, without);
      if (f.optional) expect(read.ok).toBe(true);
      else expect(read.ok ? [] : read.error.map((e) => e.path)).toContain(`/${f.field}`);
    }
  });
  test('no field that it does not have', () =>
    expect(validate(check, { ...example, florp: 1 })).toMatchObject({ ok: false }));
  test('it says something in words, and something that it proves', () => {
    expect(evidenceWords(example).length).toBeGreaterThan(8);
    const said = evidenceRules([{ id: 'x', body: example, at: '' }]);
    expect(said.length).toBeGreaterThan(0);
    for (const s of said) expect(s.from).toEqual([{ kind: 'evidence', id: 'x', label: evidenceWords(example) }]);
  });
  test('its likelihood is a probability under whatever is supposed', () => {
    for (const s of SUPPOSED) {
      const p = evidenceLikelihood(example, s, ['cold']);
      expect(p).toBeGreaterThan(0);
      expect(p).toBeLessThanOrEqual(1);
    }
  });
});
test('the outcomes of one swap are all that can happen', () => {
  const swap = EVIDENCE_KINDS.swap.example;
  for (const s of SUPPOSED) {
    const total = (['followed', 'stayed', 'gone'] as const).reduce(
      (sum, outcome) => sum + evidenceLikelihood({ ...swap, outcome }, s),
      0,
    );
    expect(total).toBeCloseTo(1, 12);
  }
});

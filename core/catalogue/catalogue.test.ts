import { CATALOGUE, findTest } from './catalogue';

test('ids are there once and are found', () => {
  expect(new Set(CATALOGUE.map((t) => t.id)).size).toBe(CATALOGUE.length);
  for (const t of CATALOGUE) expect(findTest(t.id)).toBe(t);
  expect(findTest('florp')).toBeUndefined();
});
test.each(CATALOGUE.map((t) => [t.id, t] as const))(
  '%s tells what to do, what it proves, and defers to the maker',
  (_, t) => {
    for (const text of [
      t.name,
      t.purpose,
      t.probe,
      t.proves,
      t.cannotProve,
      ...t.steps,
      ...t.cautions.map((c) => c.text),
      ...t.advice.map((a) => a.say),
    ])
      expect(text.trim().length).toBeGreaterThan(3);
    expect(t.steps.length).toBeGreaterThan(1);
    expect(t.cautions.map((c) => c.id)).toContain('defer');
    expect(new Set(t.states.map((s) => s.id)).size).toBe(t.states.length);
  },
);
test.each(CATALOGUE.filter((t) => t.quantity === 'resistance').map((t) => [t.id, t] as const))(
  '%s reads ohms: the circuit must be dead',
  (_, t) => {
    expect(t.condition.key).toBe('off');
    expect(t.states.map((s) => s.id)).toContain('key-off');
    expect(t.cautions[0]?.id).toBe('dead-circuit');
  },
);

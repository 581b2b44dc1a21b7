import fc from 'fast-check';
import { CIRCUITS } from '../circuits/library';
import { diagnose, prepare } from './diagnose';
import { calledOf } from './hypotheses';
import type { DiagnosticReading } from './types';

/** What a stranger stumbles over: a word twice, a name within itself, a placeholder, a thing that is none. */
const TRAPS: readonly [string, RegExp][] = [
  ['a word twice', /\b(\p{L}+) \1\b/iu],
  ['a path that is none', /\bpath at\b/i],
  ['a place for a thing', /^to \p{L}|(whether|from|separates|it is) to \p{L}/iu],
  ['a placeholder', /[{}]|undefined|NaN|\[object/],
  ['two spaces or a space before a mark', / {2}| [.,:;]/],
  ['two marks', /[.:,;]{2}/],
];
const trapsIn = (sentence: string): string[] => TRAPS.flatMap(([name, trap]) => (trap.test(sentence) ? [name] : []));

const prepared = CIRCUITS.map((circuit) => ({ circuit, ready: prepare({ circuit, cylinders: 4 }) }));

test('what every suspect of every circuit is called has no trap', () => {
  for (const { ready } of prepared)
    for (const { members } of ready.predictions.hypotheses)
      for (const m of members) {
        const said = `${calledOf(m)} ${m.words}`;
        expect([said, trapsIn(said)]).toEqual([said, []]);
      }
});

test('what is said of random readings has no trap', () => {
  let read = 0;
  fc.assert(
    fc.property(
      fc.nat({ max: prepared.length - 1 }),
      fc.array(fc.tuple(fc.nat(), fc.nat(), fc.integer({ min: 0, max: 3 })), { minLength: 1, maxLength: 5 }),
      (which, draws) => {
        const { circuit, ready } = prepared[which] as (typeof prepared)[number];
        const { instances, hypotheses, mean } = ready.predictions;
        const measured = draws.map(([point, hypothesis, kind]): DiagnosticReading => {
          const i = point % instances.length;
          const { test: id, position, mode } = instances[i] as (typeof instances)[number];
          const shown = mean[(hypothesis % hypotheses.length) * instances.length + i] ?? 0;
          const value = mode === 'resistance' ? Math.exp(Math.min(16, shown)) : shown;
          if (kind === 3)
            return {
              test: id,
              position,
              kind: 'unsteady',
              value: 0,
              u: 0,
              ends: { low: 0, high: Math.abs(value) + 1 },
            };
          return shown === Infinity
            ? { test: id, position, kind: 'overload', value: 0, u: 0 }
            : { test: id, position, kind: 'value', value, u: 0.01 };
        });
        read += measured.length;
        const d = diagnose({ circuit, cylinders: 4, measured, observed: [], coded: [] }, ready);
        const said = [
          ...d.notes,
          ...d.next.map((n) => n.why),
          ...d.suspects.flatMap((s) => [s.words, ...[...s.supports, ...s.contradicts].map((w) => w.label)]),
        ];
        for (const s of said) expect([s, trapsIn(s)]).toEqual([s, []]);
      },
    ),
    { numRuns: Number(process.env.MUDFLAT_SENTENCES ?? 200), seed: 12 },
  );
  expect(read).toBeGreaterThan(300);
});

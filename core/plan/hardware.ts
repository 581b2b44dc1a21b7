import { tr } from '../locale/translate';
import type { TestDefinition } from '../catalogue/types';
import type { HardwareQuestion, PlanInputs } from './types';

/** "injector: piezo", apart; `null` where a test is for any unit. */
export function hardwareOf({ hardware }: Pick<TestDefinition, 'hardware'>): { kind: string; which: string } | null {
  const [kind, which] = hardware?.split(':') ?? [];
  return kind && which ? { kind: kind.trim(), which: which.trim() } : null;
}

const TYPE = / type$/;
/** Under which name a unit's parts say which kind of a part is fitted: "injector type". */
export const typePart = (kind: string): string => tr`${kind} type`;
/** Which kinds a unit's parts name: { 'injector type': 'piezo' } is { injector: 'piezo' }. */
export const typesIn = (parts: Readonly<Record<string, string>>): Record<string, string> =>
  Object.fromEntries(Object.entries(parts).flatMap(([k, v]) => (TYPE.test(k) ? [[k.replace(TYPE, ''), v]] : [])));

type Seen = Pick<PlanInputs, 'tests' | 'done' | 'doneBefore' | 'fitted'>;

/**
 * Which of a kind the unit has: as it was said, else by the tests that were done, here or in an earlier job.
 */
function fittedOf(kind: string, { tests, done, doneBefore = [], fitted = {} }: Seen): readonly string[] {
  const said = fitted[kind];
  if (said !== undefined) return [said];
  const ids = new Set([...done.map((d) => d.test), ...doneBefore]);
  return tests.flatMap((t) => {
    const own = hardwareOf(t);
    return own?.kind === kind && ids.has(t.id) ? [own.which] : [];
  });
}

/** Whether the unit has what the test is for: `null` where nobody knows. */
export function isFitted(t: TestDefinition, seen: Seen): boolean | null {
  const own = hardwareOf(t);
  if (!own) return null;
  const fitted = fittedOf(own.kind, seen);
  return fitted.length ? fitted.includes(own.which) : null;
}

/**
 * What is asked of a unit: kinds of which tests in these areas want different ones, and nobody knows which is
 * fitted.
 */
export function hardwareAsked(areas: ReadonlySet<string>, seen: Seen): HardwareQuestion[] {
  const options = new Map<string, Set<string>>();
  for (const t of seen.tests) {
    const own = areas.has(t.area) ? hardwareOf(t) : null;
    if (own) options.set(own.kind, (options.get(own.kind) ?? new Set()).add(own.which));
  }
  return [...options].flatMap(([kind, which]) =>
    which.size > 1 && fittedOf(kind, seen).length === 0 ? [{ kind, options: [...which] }] : [],
  );
}

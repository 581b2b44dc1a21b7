import { checkLibraryCircuit } from '../../core/circuits/check';
import type { LibraryCircuit } from '../../core/circuits/types';
import type { TestDefinition } from '../../core/catalogue/types';
import { fail, ok, type Problem, type Result } from '../../core/foundation/result';
import type { ValidateFunction } from 'ajv';
import { check } from '../../formats/compiled/circuit';
import { validate } from '../../formats/validate';
import { type Draft, DraftReader, numberShown, pruned } from '../kit/draft';

/** What has no field of its own stands as JSON. */
const MORE = ['elements', 'perCylinder', 'suspects', 'probes', 'drawing'] as const;

/** A copy under another name, or the circuit itself to be changed. */
export function draftOf(c: LibraryCircuit, isCopy: boolean): Draft {
  return {
    id: isCopy ? `${c.id}-own` : c.id,
    name: isCopy ? `${c.name}, our own` : c.name,
    purpose: c.purpose,
    area: c.area,
    families: (c.families ?? []).join(', '),
    reference: c.reference,
    follows: c.follows ?? '',
    ...Object.fromEntries(
      Object.entries(c.values).flatMap(([key, v]) => [
        [`value ${key}`, numberShown(v.value)],
        [`spread ${key}`, numberShown(Number((100 * v.spread).toPrecision(4)))],
      ]),
    ),
    values: JSON.stringify(c.values),
    more: JSON.stringify(Object.fromEntries(MORE.map((f) => [f, c[f]])), null, 1),
  };
}

/** Keys of the values that stand in fields. */
export const valueKeys = (draft: Draft): string[] =>
  Object.keys(draft)
    .filter((f) => f.startsWith('value '))
    .map((f) => f.slice(6));

/** The circuit of a draft, or everything that is wrong with it by the server's paths. */
export function circuitOf(draft: Draft, revision: number, tests: readonly TestDefinition[]): Result<LibraryCircuit> {
  const read = new DraftReader(draft);
  const base = JSON.parse(draft.values ?? '{}') as LibraryCircuit['values'];
  const problems: Problem[] = [];
  const values = Object.fromEntries(
    Object.entries(base).map(([key, v]) => {
      const [value, percent] = [
        read.number(`value ${key}`, `/circuit/values/${key}/value`),
        read.number(`spread ${key}`, `/circuit/values/${key}/spread`),
      ];
      if (value === undefined && !read.problems.some((p) => p.path.startsWith(`/circuit/values/${key}/`)))
        problems.push({ path: `/circuit/values/${key}/value`, message: 'A number is needed.' });
      return [key, { ...v, value: value ?? v.value, spread: Number(((percent ?? 0) / 100).toPrecision(6)) }];
    }),
  );
  const more = read.json('more', '/circuit/more');
  const families = (read.text('families') ?? '')
    .split(',')
    .map((f) => f.trim())
    .filter(Boolean);
  const made = pruned({
    ...more,
    id: read.text('id') ?? '',
    name: read.text('name') ?? '',
    purpose: read.text('purpose') ?? '',
    area: read.text('area') ?? '',
    reference: read.text('reference') ?? '',
    follows: read.text('follows'),
    families: families.length ? families : undefined,
    revision,
    values,
  });
  if (read.problems.length + problems.length) return fail([...read.problems, ...problems]);
  const valid = validate(check as ValidateFunction<LibraryCircuit>, made);
  if (!valid.ok) return fail(valid.error.map((p) => ({ ...p, path: `/circuit${p.path}` })));
  const wrong = checkLibraryCircuit(valid.value, '/circuit', tests);
  return wrong.length ? fail(wrong) : ok(valid.value);
}

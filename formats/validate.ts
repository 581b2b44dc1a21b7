import { tr } from '../core/locale/translate';
import type { AnySchema, ErrorObject } from 'ajv';
import { fail, ok, type Problem, type Result } from '../core/foundation/result';

/** Tells whether a document is sound, and leaves what is wrong with the last one in `errors`. */
export interface Check<T> {
  (document: unknown): document is T;
  errors?: readonly ErrorObject[] | null;
  readonly schema?: AnySchema | undefined;
}

/** Checks an unknown document; every error has the path of the field it is about. */
export function validate<T>(check: Check<T>, document: unknown): Result<T> {
  const unsound = nonFinite(document, '');
  if (unsound.length) return fail(unsound);
  return check(document) ? ok(document) : fail(problemsOf(check.errors ?? []));
}

/**
 * Numbers that are none, wherever they stand: `1e999` in a file is read as an infinity, and a document made
 * by a program can hold NaN.
 */
function nonFinite(value: unknown, path: string): Problem[] {
  if (typeof value === 'number') return Number.isFinite(value) ? [] : [{ path, message: 'Must be a finite number.' }];
  // No database keeps these, and nobody types them.
  if (typeof value === 'string' && /\0|\p{Surrogate}/u.test(value))
    return [{ path, message: 'There is a character in it that is no text.' }];
  if (value === null || typeof value !== 'object') return [];
  return Object.entries(value).flatMap(([key, inner]) => nonFinite(inner, `${path}/${escape(key)}`));
}

/** Ajv's errors as problems, the most telling first, one per path. */
function problemsOf(errors: readonly ErrorObject[]): Problem[] {
  const byPath = new Map<string, Problem>();
  for (const error of errors) {
    const found = describe(error);
    if (found && !byPath.has(found.path)) byPath.set(found.path, found);
  }
  return [...byPath.values()];
}

const escape = (name: string): string => name.replaceAll('~', '~0').replaceAll('/', '~1');

const FORMAT_WORDS: Readonly<Record<string, string>> = {
  'date-time': 'It is no moment: write it as 2026-11-29T08:30:00Z.',
  date: 'It is no day: write it as 2026-11-29.',
};
/** What a pattern of the schemas asks for, in words. */
const PATTERN_WORDS: Readonly<Record<string, string>> = {
  '\\S': 'Type something.',
  '^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$': 'It is no id: a UUID in lower case.',
  '^[^\\s\\p{C}](.*[^\\s\\p{C}])?$': 'Letters, without blanks at the ends and without invisible signs.',
  '^[A-Z]{3}$': 'Three capital letters, as in EUR (ISO 4217).',
  '^[a-z0-9]+(-[a-z0-9]+)*$': 'Lower-case letters, digits and single hyphens.',
  '^[0-9a-f]{64}$': 'It is no SHA-256 in lower-case hexadecimal.',
  '^[^\\u0000]+$': 'There is a character in it that is no text.',
  '^\\d{4}-\\d{2}-\\d{2}T': 'It is no moment: write it as 2026-11-29T08:30:00Z.',
  '^[^:]+: [^:]+$': 'Write it as "kind: which".',
};

function describe({ keyword, instancePath, params, message }: ErrorObject): Problem | null {
  const p = params as Record<string, unknown>;
  switch (keyword) {
    case 'additionalProperties':
      return { path: `${instancePath}/${escape(String(p.additionalProperty))}`, message: 'Unknown field.' };
    case 'required':
      return { path: `${instancePath}/${escape(String(p.missingProperty))}`, message: 'This field is missing.' };
    case 'const':
      return { path: instancePath, message: tr`Must be ${JSON.stringify(p.allowedValue)}.` };
    case 'enum':
      return { path: instancePath, message: tr`Must be one of ${(p.allowedValues as unknown[]).join(', ')}.` };
    case 'type':
      return { path: instancePath, message: tr`Must be ${[p.type].flat().join(' or ')}.` };
    case 'discriminator':
      return { path: `${instancePath}/${escape(String(p.tag))}`, message: 'This kind is not known.' };
    case 'if':
      return null;
    case 'minLength':
      return {
        path: instancePath,
        message: p.limit === 1 ? 'Type something.' : tr`Type ${String(p.limit)} characters at least.`,
      };
    case 'maxLength':
      return { path: instancePath, message: tr`At most ${String(p.limit)} characters.` };
    case 'minItems':
      return {
        path: instancePath,
        message: p.limit === 1 ? 'Give one at least.' : tr`Give ${String(p.limit)} at least.`,
      };
    case 'maxItems':
      return { path: instancePath, message: tr`At most ${String(p.limit)}.` };
    case 'uniqueItems':
      return { path: instancePath, message: 'Each only once.' };
    case 'minimum':
    case 'exclusiveMinimum':
      return {
        path: instancePath,
        message: tr`Must be ${keyword === 'minimum' ? 'at least' : 'more than'} ${String(p.limit)}.`,
      };
    case 'maximum':
    case 'exclusiveMaximum':
      return {
        path: instancePath,
        message: tr`Must be ${keyword === 'maximum' ? 'at most' : 'less than'} ${String(p.limit)}.`,
      };
    case 'minProperties':
      return { path: instancePath, message: 'There is nothing to change in it.' };
    case 'format':
      return { path: instancePath, message: FORMAT_WORDS[String(p.format)] ?? tr`It is no ${String(p.format)}.` };
    case 'pattern':
      return { path: instancePath, message: PATTERN_WORDS[String(p.pattern)] ?? 'It is not written as it must be.' };
    default:
      return { path: instancePath, message: tr`It ${message ?? 'is not valid'}.` };
  }
}

const UNSTORABLE = /(?<!\\)(\\\\)*\\u(0000|d[89a-f])/i;

/** Reads JSON text; a byte-order mark is allowed. */
export function readJson(text: string): Result<unknown> {
  try {
    const value = JSON.parse(text.replace(/^\uFEFF/, '')) as unknown;
    // Written again, only what is no text stays escaped: the null character and halves of a surrogate pair.
    return UNSTORABLE.test(JSON.stringify(value))
      ? fail([{ path: '', message: 'A text holds characters that cannot be stored.' }])
      : ok(value);
  } catch (error) {
    return fail([{ path: '', message: tr`This is not JSON: ${(error as Error).message}.` }]);
  }
}

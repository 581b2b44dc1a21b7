import { tr } from '../core/locale/translate';
import type { AnySchema, ErrorObject } from 'ajv';
import { fail, ok, type Problem, type Result } from '../core/foundation/result';

/** Tells whether a document is sound, and leaves what is wrong with the last one in `errors`. */
export interface Check<T> {
  (document: unknown): document is T;
  errors?: readonly ErrorObject[] | null;
  readonly schema?: AnySchema | undefined;
  /** The same check, which stops at the first error. */
  readonly untilFirst?: Check<T> | undefined;
}

/**
 * Of a larger document only the first error is told: a list of all of them could take more memory than there
 * is.
 */
const MOST_CHECKED_THROUGH = 20_000;

/** Checks an unknown document; every error has the path of the field it is about. */
export function validate<T>(check: Check<T>, document: unknown): Result<T> {
  const { values, isSound } = survey(document);
  if (!isSound) return fail(unsoundIn(document));
  const fitting = values > MOST_CHECKED_THROUGH ? (check.untilFirst ?? check) : check;
  return fitting(document) ? ok(document) : fail(problemsOf(fitting.errors ?? []));
}

/** No database keeps these, and nobody types them. */
const NO_TEXT = /\0|\p{Surrogate}/u;

/**
 * What is wrong with a value whatever its schema: `1e999` in a file is read as an infinity, and a document
 * made by a program can hold NaN.
 */
function unsound(value: unknown): string | null {
  if (typeof value === 'number') return Number.isFinite(value) ? null : 'Must be a finite number.';
  return typeof value === 'string' && NO_TEXT.test(value) ? 'There is a character in it that is no text.' : null;
}

/** How many values a document holds, and whether all of them can be. Any depth: nothing calls itself. */
function survey(document: unknown): { readonly values: number; readonly isSound: boolean } {
  const open = [document];
  let [values, isSound] = [0, true];
  while (open.length) {
    const value = open.pop();
    values += 1;
    if (value !== null && typeof value === 'object') for (const inner of Object.values(value)) open.push(inner);
    else isSound &&= unsound(value) === null;
  }
  return { values, isSound };
}

/** A place in a document, by the way to it from the outside. */
interface Place {
  readonly value: unknown;
  readonly key: string;
  readonly within: Place | null;
}
/** Deeper than any document of ours: further in nobody looks for it. */
const DEEPEST = 50;

function pathOf(place: Place): string {
  const keys: string[] = [];
  for (let p = place; p.within !== null; p = p.within) keys.push(`/${escape(p.key)}`);
  return keys.reverse().slice(0, DEEPEST).join('');
}

/** More are of no use to anybody. */
const MOST_UNSOUND = 100;

function unsoundIn(document: unknown): Problem[] {
  const open: Place[] = [{ value: document, key: '', within: null }];
  const found: Problem[] = [];
  for (let place = open.pop(); place && found.length < MOST_UNSOUND; place = open.pop()) {
    const { value } = place;
    const message = unsound(value);
    if (message !== null) found.push({ path: pathOf(place), message });
    if (value === null || typeof value !== 'object') continue;
    for (const [key, inner] of Object.entries(value).reverse()) open.push({ value: inner, key, within: place });
  }
  return found;
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

/** Without one of these written in it, no text of a document can hold `NO_TEXT`. */
const SUSPECT = /\\u|\p{Surrogate}/u;
/** What holds more is nothing that somebody made; all of it would be read before anything is checked. */
const MOST_VALUES = 60_000;
const MOST_VALUES_OF_FILE = 1_000_000;

/** Reads JSON text of a file, which may hold a million values. */
export const readJsonFile = (text: string): Result<unknown> => readJson(text, MOST_VALUES_OF_FILE);

/** Reads JSON text; a byte-order mark is allowed. Fails for more than `most` values. */
export function readJson(text: string, most = MOST_VALUES): Result<unknown> {
  if (opensMoreThan(most, text)) return fail([{ path: '', message: tr`It holds more than ${most} values.` }]);
  try {
    const value = JSON.parse(text.replace(/^\uFEFF/, '')) as unknown;
    return SUSPECT.test(text) && holdsNoText(value)
      ? fail([{ path: '', message: 'A text holds characters that cannot be stored.' }])
      : ok(value);
  } catch (error) {
    return fail([{ path: '', message: tr`This is not JSON: ${(error as Error).message}.` }]);
  }
}

/**
 * Whether a text has more commas and opening brackets than `most`: each value has one before it, or is the
 * first.
 */
function opensMoreThan(most: number, text: string): boolean {
  for (let i = 0, found = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if ((code === COMMA || code === BRACKET || code === BRACE) && ++found > most) return true;
  }
  return false;
}
const [COMMA, BRACKET, BRACE] = [0x2c, 0x5b, 0x7b];

/** Whether a text or the name of a field holds what cannot be stored, at any depth. */
function holdsNoText(document: unknown): boolean {
  const open = [document];
  while (open.length) {
    const value = open.pop();
    if (typeof value === 'string' && NO_TEXT.test(value)) return true;
    if (value === null || typeof value !== 'object') continue;
    for (const [key, inner] of Object.entries(value)) {
      if (NO_TEXT.test(key)) return true;
      open.push(inner);
    }
  }
  return false;
}

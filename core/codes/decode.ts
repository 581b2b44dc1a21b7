import { tr } from '../locale/translate';
import { fail, ok, type Result } from '../foundation/result';
import { BY_CYLINDER, FMI, LARGEST_SPN, MAKERS_OWN, SPN } from './j1939-table';
import { DIVISIONS, DIVISIONS_2, FAILURE_TYPES, LETTERS, RANGES } from './j2012-table';
import type { CodeMeaning } from './types';

const J2012 = /^([PCBU])([0-3])([0-9A-F]{3})(?:[-: ]?([0-9A-F]{2}))?$/i;
const J1939 = /^(?:SPN[\s:]*)?(\d{1,6})(?:[\s,/:.-]+(?:FMI[\s:]*)?|FMI[\s:]*)(\d{1,2})$/i;

/**
 * A code of one of the two public grammars, decoded; the failure is a sentence. Spaces around it do not
 * matter.
 */
export function decodeCode(text: string): Result<CodeMeaning, string> {
  const typed = text.trim().replace(/\s+/g, ' ');
  const five = J2012.exec(typed);
  if (five) return ok(decodeJ2012(five));
  const pair = J1939.exec(typed);
  if (pair) return decodeJ1939(Number(pair[1]), Number(pair[2]));
  return fail(
    tr`"${typed.slice(0, 40)}" is no code known here. Codes are written P0672 (SAE J2012) or SPN 653 FMI 5 (SAE J1939-73).`,
  );
}

/** Whether SAE or the maker decides on a J2012 code: by its second sign, and for P3 by the rest. */
function isStandard(letter: string, digit: string, rest: string): boolean {
  if (digit === '0') return true;
  if (letter === 'P') return digit === '2' || (digit === '3' && parseInt(rest, 16) >= 0x400);
  return digit === '3';
}

function decodeJ2012([, l = '', digit = '', r = '', typeByte]: RegExpExecArray): CodeMeaning {
  const [letter, rest] = [l.toUpperCase(), r.toUpperCase()];
  const type = typeByte?.toUpperCase();
  const common = {
    code: `${letter}${digit}${rest}${type ? `-${type}` : ''}`,
    standard: 'SAE J2012' as const,
    cylinder: null,
  };
  const byType = type === undefined ? null : (FAILURE_TYPES[type] ?? null);
  if (!isStandard(letter, digit, rest)) {
    return { ...common, system: LETTERS[letter] ?? '', component: null, failure: byType, confidence: 'maker-defined' };
  }
  const found = findRange(letter, `${digit}${rest}`);
  if (found)
    return {
      ...common,
      ...found,
      failure: byType && byType !== FAILURE_TYPES['00'] ? byType : found.failure,
      confidence: 'standard',
    };
  const divisions = letter !== 'P' ? {} : digit === '0' ? DIVISIONS : digit === '2' ? DIVISIONS_2 : {};
  return {
    ...common,
    system: divisions[rest[0] ?? ''] ?? LETTERS[letter] ?? '',
    component: null,
    failure: byType,
    confidence: 'standard',
  };
}

/** Rows by how they count: those whose first code has a letter in sixteens, the others in tens. */
const countsInSixteens = (digits: string): boolean => /[A-F]/.test(digits);

function findRange(
  letter: string,
  digits: string,
): Pick<CodeMeaning, 'system' | 'component' | 'cylinder' | 'failure'> | null {
  for (const { from, system, component, failures, cylinders, firstCylinder = 1 } of RANGES) {
    const [ofLetter, first] = /^[BCU]/.test(from) && from.length === 5 ? [from.charAt(0), from.slice(1)] : ['P', from];
    const radix = countsInSixteens(first) ? 16 : 10;
    // A code with a letter stands between those that count in tens, and belongs to none of their rows.
    if (ofLetter !== letter || (radix === 10 && countsInSixteens(digits))) continue;
    const at = parseInt(digits, radix) - parseInt(first, radix);
    if (at < 0 || at >= failures.length * (cylinders ?? 1)) continue;
    return {
      system,
      component,
      cylinder: cylinders ? Math.floor(at / failures.length) + firstCylinder : null,
      failure: failures[at % failures.length] ?? null,
    };
  }
  return null;
}

function decodeJ1939(spn: number, fmi: number): Result<CodeMeaning, string> {
  if (spn > LARGEST_SPN) return fail(tr`An SPN is at most ${LARGEST_SPN}, not ${spn}.`);
  if (fmi > 31) return fail(tr`An FMI is at most 31, not ${fmi}.`);
  const common = {
    code: tr`SPN ${spn} FMI ${fmi}`,
    standard: 'SAE J1939-73' as const,
    failure: FMI[fmi] ?? 'reserved',
  };
  if (spn >= MAKERS_OWN.from && spn <= MAKERS_OWN.to)
    return ok({ ...common, system: 'of the maker', component: null, cylinder: null, confidence: 'maker-defined' });
  const row = BY_CYLINDER.find((r) => spn >= r.first && spn < r.first + r.cylinders);
  if (row) return ok({ ...common, ...row.suspect, cylinder: spn - row.first + 1, confidence: 'standard' });
  const known = SPN[spn];
  return ok({
    ...common,
    system: known?.system ?? 'not in the table here',
    component: known?.component ?? null,
    cylinder: null,
    confidence: 'standard',
  });
}

/** A code as a scan tool lists it: with what it says of it, where it says so. */
export interface ListedCode {
  readonly code: string;
  readonly status?: CodeStatus;
  /** How often the controller counted it. */
  readonly count?: number;
}
export type CodeStatus = (typeof CODE_STATUSES)[number];
export const CODE_STATUSES = ['active', 'stored', 'intermittent', 'unknown'] as const;

const TIMES_SEEN = 'Times seen';
/**
 * How often the controller counted a code, a whole number from 0: kept with the code, so it stands with what
 * the controller kept.
 */
export const timesSeen = (count: number): { name: string; value: string } => ({
  name: TIMES_SEEN,
  value: String(count),
});
/** How often the newest look saw it, as the controller counted; `null` where it was not noted. */
export const countOf = (kept: readonly { readonly name: string; readonly value: string }[]): string | null =>
  kept.find((k) => k.name === TIMES_SEEN)?.value ?? null;

const CODE =
  /\b[PCBU][0-3][0-9A-F]{3}(?:[-:][0-9A-F]{2})?\b|\bSPN[\s:]*\d{1,7}[\s,/:.-]*FMI[\s:]*\d{1,3}\b|\b\d{1,7}\s*\/\s*\d{1,3}\b/gi;
/** `x3`, `3x`, `count 3`, `OC 3`, `3 times`. */
const COUNT =
  /(?<![\w.])(?:[x×]\s?(\d{1,3})|(\d{1,3})\s?[x×]|(?:count|counts|occurrences?|OC)[\s:=]*(\d{1,3})|(\d{1,3})\s?times?)(?!\w)/i;
/** Words of scan tools for a status; "previously active" and "inactive" before "active". */
const STATUS_WORDS: readonly (readonly [RegExp, CodeStatus])[] = [
  [/(?<!\w)(?:previously active|inactive|stored|history|historic|passive)(?!\w)/i, 'stored'],
  [/(?<!\w)(?:intermittent|sporadic|pending)(?!\w)/i, 'intermittent'],
  [/(?<!\w)(?:active|current|present|confirmed)(?!\w)/i, 'active'],
];

/**
 * Codes in running text, typed or pasted, in the order in which they stand, each with the status and the
 * count that stand behind it: `P0672 active x3, SPN 653 FMI 5`. What is none of it is given back as
 * `unknown`.
 */
export function findCodes(text: string): {
  readonly codes: readonly ListedCode[];
  readonly unknown: readonly string[];
} {
  const found = [...text.matchAll(CODE)];
  const between = [text.slice(0, found.at(0)?.index ?? text.length)];
  const codes = found.map((m, i): ListedCode => {
    const behind = saidOf(text.slice(m.index + m[0].length, found.at(i + 1)?.index ?? text.length));
    between.push(behind.rest);
    return { code: m[0], ...behind.said };
  });
  const unknown = between
    .join(' ; ')
    .split(/[\s,;]+/)
    .filter((w) => /[^()[\]:=-]/.test(w));
  return { codes, unknown };
}

/** What stands behind a code: its status and count, and what is neither. */
function saidOf(behind: string): { said: Omit<ListedCode, 'code'>; rest: string } {
  const count = COUNT.exec(behind);
  const afterCount = count ? behind.replace(count[0], ' ') : behind;
  const digits = count?.slice(1).find(Boolean);
  for (const [words, status] of STATUS_WORDS) {
    if (words.test(afterCount))
      return {
        said: { status, ...(digits === undefined ? {} : { count: Number(digits) }) },
        rest: afterCount.replace(words, ' '),
      };
  }
  return { said: digits === undefined ? {} : { count: Number(digits) }, rest: afterCount };
}

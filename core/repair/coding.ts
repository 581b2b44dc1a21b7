import { tr } from '../locale/translate';

/** How a trim code of a kind of part looks on a family of engines; the workshop's own data. */
export interface CodingRule {
  /** Characters that may stand in it. */
  readonly alphabet: string;
  /** Lengths that it may have. */
  readonly lengths: readonly number[];
  /** How its last character checks the others; `none` where nothing is known. */
  readonly check: 'none' | 'mod-10' | 'mod-alphabet';
  /** Printed in groups of so many. */
  readonly groups: number;
}

export const GENERAL_RULE: CodingRule = {
  alphabet: '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ',
  lengths: [],
  check: 'none',
  groups: 4,
};

/** What is wrong with a code, at which character (from 1; `null`: as a whole). */
export interface CodeFault {
  readonly at: number | null;
  readonly text: string;
  /** Only to be looked at again. */
  readonly doubt: boolean;
  /** Of its length: a reason may stand against it. */
  readonly is?: 'length';
}

/** Characters that are taken for each other. */
const LOOK_ALIKES: readonly (readonly [string, string])[] = [
  ['0', 'O'],
  ['1', 'I'],
  ['8', 'B'],
  ['5', 'S'],
  ['2', 'Z'],
];

/** As it is kept: capital letters, without what only groups it. */
export const plainCode = (typed: string): string =>
  typed
    .trim()
    .toUpperCase()
    .replace(/[\s\-.:]/g, '');

/** Everything that is wrong or doubtful with a code, named at its character. */
export function checkCode(typed: string, rule: CodingRule, how: 'typed' | 'pasted' | 'photo' = 'typed'): CodeFault[] {
  const code = plainCode(typed);
  if (code === '') return [{ at: null, text: 'Type the code, paste it, or take a photo of it.', doubt: false }];
  const faults: CodeFault[] = [];
  for (const [i, c] of Array.from(code).entries()) {
    const twin = twinOf(c);
    if (!rule.alphabet.includes(c))
      faults.push({
        at: i + 1,
        text: tr`Character ${i + 1}, "${c}", does not occur in these codes${twin && rule.alphabet.includes(twin) ? tr`; is it "${twin}"?` : '.'}`,
        doubt: false,
      });
    else if (how === 'typed' && twin && rule.alphabet.includes(twin))
      faults.push({ at: i + 1, text: tr`Character ${i + 1}: is it "${c}" or "${twin}"?`, doubt: true });
  }
  if (rule.lengths.length && !rule.lengths.includes(code.length))
    faults.push({
      at: Math.min(code.length, ...rule.lengths) + 1,
      text: tr`It has ${code.length} characters; these codes have ${rule.lengths.join(' or ')}: ${code.length < Math.min(...rule.lengths) ? tr`one is missing, at the latest after character ${code.length}` : tr`character ${Math.max(...rule.lengths) + 1} is one too many`}.`,
      doubt: false,
      is: 'length',
    });
  if (faults.every((f) => f.doubt) && !checks(code, rule))
    faults.push({
      at: code.length,
      text: tr`The check character "${code.at(-1) ?? ''}" does not fit the others: one of them is wrong.`,
      doubt: false,
    });
  return faults;
}

const twinOf = (c: string): string | null =>
  LOOK_ALIKES.flatMap(([a, b]) => (c === a ? [b] : c === b ? [a] : []))[0] ?? null;

/**
 * Does the last character fit? `mod-10`: weights 3 and 1 from the right over digits (as in ISO/IEC 15420
 * article numbers, from memory); `mod-alphabet`: the sum of the places in the alphabet.
 */
function checks(code: string, { alphabet, check }: CodingRule): boolean {
  const last = code.at(-1);
  if (check === 'none' || last === undefined) return true;
  return checkCharacter(code.slice(0, -1), alphabet, check) === last;
}

/** The character that ends a code. */
export function checkCharacter(body: string, alphabet: string, check: 'mod-10' | 'mod-alphabet'): string {
  if (check === 'mod-10') {
    const sum = Array.from(body)
      .reverse()
      .reduce((s, c, i) => s + Number(c) * (i % 2 === 0 ? 3 : 1), 0);
    return String((10 - (sum % 10)) % 10);
  }
  const sum = Array.from(body).reduce((s, c, i) => s + (i + 1) * alphabet.indexOf(c), 0);
  return alphabet[sum % alphabet.length] ?? '';
}

/** "7AF2 09KD 11" */
export const groupedCode = (code: string, groups: number): string =>
  groups > 0 ? code.replace(new RegExp(`(.{${groups}})(?=.)`, 'g'), '$1 ') : code;

/** The same code stands at two positions: one of them was read twice. */
export function doubledCodes(
  codes: readonly { readonly position: number | string; readonly code: string }[],
): { readonly code: string; readonly positions: readonly (number | string)[] }[] {
  const at = new Map<string, (number | string)[]>();
  for (const { position, code } of codes) at.set(plainCode(code), [...(at.get(plainCode(code)) ?? []), position]);
  return [...at]
    .filter(([, positions]) => new Set(positions).size > 1)
    .map(([code, positions]) => ({ code, positions }));
}

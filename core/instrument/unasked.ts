import { findUnit } from '../quantity/units';
import type { Quantity } from '../quantity/units';
import { readNumber, type SentNumber } from './number';
import { type MeterValue, type ReadLine, unread } from './types';

/**
 * Reads a line that a meter sends unasked: a number with its unit, and words for mode, range and what else
 * the display shows, in any order, between blanks, commas or semicolons. Of several numbers the one before a
 * unit counts.
 */
export function readUnasked(line: string): ReadLine {
  const words = wordsOf(line);
  const flags = flagsOf(words);
  if (words.some((w) => /^ERR(?:OR)?\b/i.test(w))) return unread('an error of the meter');
  if (words.some((w) => /^-?NAN$/i.test(w))) return unread('not a number');
  const unit = unitOf(words);
  if (words.some((w) => OVERLOAD.test(w)))
    return { ok: true, value: { ...flags, value: null, step: 0, quantity: unit?.quantity ?? null } };
  const numbers = words.flatMap((w, i): Placed[] => {
    const number = readNumber(w);
    return number ? [{ number, at: i }] : [];
  });
  const [only, ...more] = numbers;
  if (!only) return unread('no number');
  const beforeUnit = unit && numbers.find((n) => n.at === unit.at - 1);
  if (more.length && !beforeUnit) return unread('several numbers');
  const { number } = beforeUnit ?? only;
  if (!unit) return { ok: true, value: { ...flags, value: number.value, step: number.step, quantity: null } };
  return { ok: true, value: { ...flags, ...scaled(number, unit), quantity: unit.quantity } };
}

interface Placed {
  readonly number: SentNumber;
  readonly at: number;
}
interface FoundUnit {
  readonly quantity: Quantity;
  readonly at: number;
  readonly factor: number;
  readonly offset: number;
}

const OVERLOAD = /^[+-]?(?:[O0]\.?L\.?|OVLD|OVER(?:LOAD)?|[+-]?INF(?:INITY)?)$/i;

/** A comma between digits is the point where there is no point and no other comma. */
const withPoint = (line: string): string =>
  !line.includes('.') && line.split(',').length === 2 ? line.replace(/(\d),(?=\d)/, '$1.') : line;

/** Words and numbers; a unit that stands right behind its number is a word of its own. */
const wordsOf = (line: string): string[] =>
  withPoint(line)
    .replace(/([+-]) +(?=[\d.])/g, '$1')
    .split(/[\s,;|:]+/)
    .flatMap((w) => {
      const [, number = '', unit = ''] = /^([+-]?[\d.]+(?:[eE][+-]?\d+)?)([^\d.].*)$/.exec(w) ?? [];
      // "0L" is an overload, and "1e5" has been taken whole.
      return number && !OVERLOAD.test(w) ? [number, unit] : [w];
    })
    .filter((w) => w !== '');

function flagsOf(words: readonly string[]): Pick<MeterValue, 'alternating' | 'lowBattery' | 'hold' | 'relative'> {
  const has = (pattern: RegExp): boolean => words.some((w) => pattern.test(w));
  return {
    alternating: has(/^(?:AC|VAC|AAC|ACV|ACA|~)$/i),
    lowBattery: has(/^(?:LO[-_]?BATT?(?:ERY)?|BATT?|BATTERY|LOWBATT?)$/i),
    hold: has(/^(?:D?-?HOLD|H)$/i),
    relative: has(/^(?:REL|DELTA|Δ|ZERO)$/i),
  };
}

/** "kΩ", "MOHM", "mVDC", "VAC": what mode and unit together are called is taken apart. */
function unitOf(words: readonly string[]): FoundUnit | null {
  for (const [at, word] of words.entries()) {
    const found = unitNamed(word);
    if (found) return { ...found, at };
  }
  return null;
}

function unitNamed(word: string): Omit<FoundUnit, 'at'> | null {
  const bare = word.replace(/(?<=[VA])(?:DC|AC)$/i, '').replace(/^(?:DC|AC)(?=[µumkM]?[VA]$)/, '');
  const ohms = /^([pnuµmkKMG]?)(?:OHMS?|Ω)$/i.exec(bare);
  const found = findUnit(bare) ?? (ohms ? findUnit(`${ohms[1]}ohm`) : undefined);
  if (!found) return null;
  return { quantity: found.unit.quantity, factor: found.scale * found.unit.factor, offset: found.unit.offset };
}

const scaled = ({ value, step }: SentNumber, { factor, offset }: FoundUnit): { value: number; step: number } => ({
  value: value * factor + offset,
  step: step * factor,
});

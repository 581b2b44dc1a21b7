import { tr } from '../core/locale/translate';
import { RE2JS } from 're2js';
import { fail, ok, type Result } from '../core/foundation/result';
import { findUnit } from '../core/quantity/units';
import { LONGEST_LINE } from '../core/instrument/lines';
import { readNumber } from '../core/instrument/number';
import { NO_FLAGS, type ReadLine, unread } from '../core/instrument/types';

const LONGEST_PATTERN = 200;
const OVERLOAD = /^(?:[O0]\.?L\.?|OVLD|OVER|INF)$/i;

/** A workshop's own way to read a meter's lines. */
export type LinePattern = (line: string) => ReadLine;

/**
 * A pattern with the named groups `value` and, if there are, `unit`, `mode` and `flag`, as a reader of lines.
 * Its time is linear in the length of the line, whatever is written in it. The error is a sentence for the
 * field.
 */
export function linePattern(source: string): Result<LinePattern, string> {
  if (source.trim() === '') return fail('Write a pattern, such as (?P<value>[-+.0-9]+) *(?P<unit>[A-Za-z]+)');
  if (source.length > LONGEST_PATTERN) return fail(tr`A pattern has at most ${LONGEST_PATTERN} characters.`);
  let compiled: RE2JS;
  try {
    compiled = RE2JS.compile(source);
  } catch (error) {
    return fail(tr`The pattern cannot be read: ${error instanceof Error ? error.message : String(error)}`);
  }
  const groups = compiled.namedGroups();
  if (!('value' in groups)) return fail('The group that holds the number must be named: (?P<value>…).');
  const known = ['value', 'unit', 'mode', 'flag'];
  const unknown = Object.keys(groups).find((g) => !known.includes(g));
  if (unknown !== undefined) return fail(tr`There is no group "${unknown}": ${known.join(', ')}.`);
  return ok((line) => {
    if (line.length > LONGEST_LINE) return unread('too long');
    const matcher = compiled.matcher(line);
    if (!matcher.find()) return unread('no match');
    const group = (name: string): string => (name in groups ? (matcher.group(name) ?? '').trim() : '');
    return valueOf(group('value'), group('unit'), `${group('mode')} ${group('flag')}`);
  });
}

function valueOf(number: string, unitText: string, words: string): ReadLine {
  const flags = {
    ...NO_FLAGS,
    alternating: /\bAC\b/i.test(words),
    lowBattery: /\b(?:LO|BAT)/i.test(words),
    hold: /\bHOLD\b/i.test(words),
    relative: /\bREL\b/i.test(words),
  };
  const unit = unitText === '' ? null : findUnit(unitText);
  if (unit === undefined) return unread('unknown unit');
  const quantity = unit?.unit.quantity ?? null;
  if (OVERLOAD.test(number)) return { ok: true, value: { ...flags, value: null, step: 0, quantity } };
  const read = readNumber(number.replace(',', '.'));
  if (!read) return unread('no number');
  const factor = unit ? unit.scale * unit.unit.factor : 1;
  return {
    ok: true,
    value: { ...flags, value: read.value * factor + (unit?.unit.offset ?? 0), step: read.step * factor, quantity },
  };
}

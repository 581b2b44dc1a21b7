import { tr } from '../locale/translate';
import { parseEntry } from '../quantity/entry';
import { fail, ok, type Problem, type Result } from '../foundation/result';
import type { Outcome, Slot, Calculation } from './types';

/** Reads what was typed into a sum's fields, and computes. Problems have the path of their field: `/rs`. */
export function runCalculation(sum: Calculation, typed: Readonly<Record<string, string>>): Result<readonly Outcome[]> {
  const problems: Problem[] = [];
  const inputs: Record<string, number | readonly number[]> = {};
  for (const slot of sum.inputs) {
    const read = readSlot(slot, typed[slot.id] ?? '');
    if (!read.ok) problems.push({ path: `/${slot.id}`, message: read.error });
    else if (read.value !== null) inputs[slot.id] = read.value;
  }
  if (problems.length) return fail(problems);
  const outcome = sum.compute(inputs);
  if (typeof outcome === 'string') return fail([{ path: '', message: outcome }]);
  return outcome.every((o) => Number.isFinite(o.value))
    ? ok(outcome)
    : fail([{ path: '', message: 'These numbers give no result.' }]);
}

function readSlot(slot: Slot, text: string): Result<number | readonly number[] | null, string> {
  const trimmed = text.trim();
  if (trimmed === '') return slot.optional ? ok(null) : fail('A number is missing here.');
  if (!slot.list) return readOne(slot, trimmed);
  const numbers: number[] = [];
  for (const part of trimmed.split(/[\s;]+/)) {
    const read = readOne(slot, part);
    if (!read.ok) return read;
    numbers.push(read.value);
  }
  return ok(numbers);
}

/**
 * Numbers by the grammar of every entry: `4k7`, `0,6`. Scientific notation too, which thermistor sheets use.
 */
function readOne(slot: Slot, text: string): Result<number, string> {
  const plain = /^[+-]?\d+(?:[.,]\d+)?e[+-]?\d+$/i.test(text) ? Number(text.replace(',', '.')) : null;
  const parsed = plain === null ? parseEntry(text, 'resistance') : null;
  const value = plain ?? (parsed?.ok && parsed.value.kind === 'number' ? parsed.value.value : NaN);
  if (!Number.isFinite(value)) return fail(tr`"${text}" is no number.`);
  if (slot.min !== undefined && value < slot.min) return fail(tr`At least ${slot.min}.`);
  return slot.max !== undefined && value > slot.max ? fail(tr`At most ${slot.max}.`) : ok(value);
}

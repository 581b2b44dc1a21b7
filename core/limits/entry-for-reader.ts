import { entryShown } from '../locale/numbers';
import { parseEntry } from '../quantity/entry';
import { inReaderUnit, readerUnit, shownUnit } from '../quantity/reader-unit';
import { stimulusOf } from './transfer';
import type { Limits } from './types';

/**
 * Entries as a reader sees and types them. What is kept is what was typed, with its unit where that is
 * another one.
 */

/** Digits, a wander, "more than": no unit behind them. */
const BARE = /^[<>~\d.,\s+-]*\d[<>~\d.,\s+-]*$/;

/**
 * What was typed at a position, in the reader's unit where no unit was typed; the part behind an at sign is
 * left out.
 */
export function entryForReader(entry: string, limits: Limits): { readonly value: string; readonly unit: string } {
  const unit = readerUnit(limits.unit);
  // What was typed in the reader's own unit is shown beside it like any other.
  if (unit.isOther && entry.endsWith(` ${unit.symbol}`)) {
    const digits = entry.slice(0, -unit.symbol.length).trim();
    if (BARE.test(digits)) return { value: entryShown(digits), unit: unit.symbol };
  }
  const read = unit.isOther && BARE.test(entry) ? parseEntry(entry, limits.quantity) : null;
  if (!read?.ok) return { value: entryShown(entry), unit: unitTyped(entry, limits) };
  const e = read.value;
  if (e.kind === 'number') return { value: inReaderUnit(e.value, e.resolution, unit), unit: unit.symbol };
  if (e.kind === 'beyond') return { value: `>${inReaderUnit(e.value, e.resolution, unit)}`, unit: unit.symbol };
  if (e.kind === 'wander' && e.high !== null)
    return {
      value: `${inReaderUnit(e.low, e.resolution, unit)}~${inReaderUnit(e.high, e.resolution, unit)}`,
      unit: unit.symbol,
    };
  return { value: entryShown(entry), unit: '' };
}

/** That of the limits, where none was typed. */
const unitTyped = (entry: string, { quantity, unit }: Limits): string =>
  /[A-Za-zΩ]/.test(entry) || quantity === 'observation' ? '' : shownUnit(unit);

/** An entry with its unit, in one: "201 Ω", "OL", "50.8 psi". */
export function entryWords(entry: string, limits: Limits): string {
  const { value, unit } = entryForReader(entry, limits);
  return unit ? `${value} ${unit}` : value;
}

/**
 * Bare digits mean the unit that stands beside the field: it is written behind them where it is not that of
 * the limits.
 */
export function withReaderUnits(entry: string, limits: Limits): string {
  const [value = '', ...behind] = entry.split('@');
  const own = withUnit(value, limits.unit);
  if (behind.length === 0) return own;
  const stimulus = limits.transfer ? stimulusOf(limits.transfer) : limits.stimulus;
  const at = limits.pair === undefined ? stimulus?.unit : limits.unit;
  return `${own.trimEnd()} @ ${withUnit(behind.join('@').trim(), at ?? '')}`;
}

function withUnit(text: string, symbol: string): string {
  const unit = readerUnit(symbol);
  return unit.isOther && BARE.test(text) ? `${text.trim()} ${unit.symbol}` : text;
}

import { entryShown } from '../locale/numbers';
import { tr } from '../locale/translate';
import { inReaderUnit, readerUnit } from '../quantity/reader-unit';
import { findUnit, toBase } from '../quantity/units';
import { enteredValue } from '../quantity/values';
import { fail, ok, type Result } from '../foundation/result';

/**
 * A value that was reached, in base units, as a person writes it: "18 Nm", "13 lbf ft", "90°", "0,4 mm", "0.3
 * V".
 */
export interface ReachedValue {
  readonly quantity: 'torque' | 'angle' | 'length' | 'voltage' | 'resistance';
  /** Nm, degrees, metres, volts, ohms. */
  readonly value: number;
}

const ANGLE = /^([+-]?\d+(?:[.,]\d+)?)\s*(°|deg|degrees)?$/;
const EXAMPLES = {
  torque: '18 Nm or 13 lbf ft',
  angle: '90°',
  length: '0.4 mm',
  voltage: '0.3 V',
  resistance: '120 Ω',
} as const;
const DEFAULT_UNIT = { torque: '', length: 'mm', voltage: 'V', resistance: 'ohm' } as const;

/** Reads a value with its unit. A torque without a unit is refused: Nm and lbf ft are both in use. */
export function readValue(text: string, quantity: ReachedValue['quantity']): Result<ReachedValue, string> {
  const typed = text.trim();
  const wrong = fail(tr`Write the value that was reached, for instance ${EXAMPLES[quantity]}.`);
  if (typed === '') return wrong;
  if (quantity === 'angle') {
    const found = ANGLE.exec(typed);
    return found ? ok({ quantity, value: Number((found[1] ?? '').replace(',', '.')) }) : wrong;
  }
  const bare = /^[+-]?\d+([.,]\d+)?$/.test(typed);
  if (bare && quantity === 'torque') return fail(tr`In which unit? Write ${EXAMPLES.torque}.`);
  const found = /^([+-]?\d+(?:[.,]\d+)?)\s*(.*)$/.exec(bare ? `${typed} ${DEFAULT_UNIT[quantity]}` : typed);
  const unit = findUnit(found?.[2]?.trim() ?? '');
  if (!found || unit?.unit.quantity !== quantity) return wrong;
  return ok({ quantity, value: toBase(enteredValue(Number((found[1] ?? '').replace(',', '.'))), unit) });
}

/**
 * A value with its unit as a person wrote it, in the reader's unit and with their mark: "20 Nm" is "14.8 lbf
 * ft". What is no value with a unit stays as it is.
 */
export function valueForReader(text: string): string {
  const [, digits = '', symbol = ''] = /^([+-]?\d+(?:[.,]\d+)?)\s*(\D.*)$/.exec(text.trim()) ?? [];
  const unit = readerUnit(symbol);
  if (!unit.isOther) return entryShown(text);
  const step = 10 ** -(/[.,](\d+)/.exec(digits)?.[1] ?? '').length;
  return `${inReaderUnit(Number(digits.replace(',', '.')), step, unit)} ${unit.symbol}`;
}

/** Further from a value than this is said. Common practice, no source. */
const FAR = 0.1;

/**
 * How far a value that was reached lies from the one that was asked for, as a fraction; `null` where either
 * cannot be read.
 */
export function deviation(reached: string, asked: string, quantity: ReachedValue['quantity']): number | null {
  const [a, b] = [readValue(reached, quantity), readValue(asked, quantity)];
  return a.ok && b.ok && b.value.value !== 0 ? a.value.value / b.value.value - 1 : null;
}

/**
 * The deviation where it is worth saying: more than a tenth to either side of what is asked for, or anything
 * above a limit; `null` where it is good.
 */
export function strayed(
  reached: string,
  asked: string,
  { quantity, isLimit }: { readonly quantity: ReachedValue['quantity']; readonly isLimit?: true },
): number | null {
  const off = deviation(reached, asked, quantity);
  if (off === null) return null;
  return (isLimit ? off > 0 : Math.abs(off) > FAR) ? off : null;
}

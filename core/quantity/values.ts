/**
 * Numbers that say in which system they stand. All three are plain numbers at run time. Only this folder
 * makes them, and it makes them finite: NaN or an infinity is refused where it would enter, so that no
 * comparison is ever made with one.
 *
 * Arithmetic on them gives a plain `number` again; name the system of the result with one of the constructors
 * below.
 */
declare const system: unique symbol;

/** In the base unit of its quantity: ohm, volt, ampere, pascal. */
export type BaseValue = number & { readonly [system]: 'base' };

/** In a stated unit with its prefix: that of the limits, or of a transfer function's stimulus. */
export type UnitValue = number & { readonly [system]: 'unit' };

/** As a person typed it or a meter sent it, prefix applied, in the unit that was typed or asked for. */
export type EnteredValue = number & { readonly [system]: 'entered' };

function requireFinite(n: number, what: string): number {
  if (!Number.isFinite(n)) throw new RangeError(`a ${what} must be finite, got ${n}`);
  return n;
}

/** Throws RangeError for NaN and the infinities. */
export const baseValue = (n: number): BaseValue => requireFinite(n, 'value in a base unit') as BaseValue;
/** Throws RangeError for NaN and the infinities. */
export const unitValue = (n: number): UnitValue => requireFinite(n, 'value in a stated unit') as UnitValue;
/** Throws RangeError for NaN and the infinities. */
export const enteredValue = (n: number): EnteredValue => requireFinite(n, 'value as entered') as EnteredValue;

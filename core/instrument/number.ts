/** A number as it was sent, and one step of its last digit. */
export interface SentNumber {
  readonly value: number;
  readonly step: number;
}

/**
 * `<NRf>` of IEC 60488-2 (from memory): integer, decimal or with an exponent; a comma for the point is what
 * some meters send.
 */
const NUMBER = /^([+-]?)\s*(\d{0,12})(?:([.,])(\d{0,12}))?(?:\s*[eE]\s*([+-]?\d{1,3}))?$/;

/** `null`: it is no number, or none that is finite. */
export function readNumber(text: string): SentNumber | null {
  const [, sign, whole = '', , decimals = '', exponent = '0'] = NUMBER.exec(text.trim()) ?? [];
  if (sign === undefined || whole + decimals === '') return null;
  const power = Number(exponent);
  const value = Number(`${sign}${whole || '0'}.${decimals || '0'}e${power}`);
  const step = 10 ** (power - decimals.length);
  return Number.isFinite(value) && Number.isFinite(step) ? { value: value === 0 ? 0 : value, step } : null;
}

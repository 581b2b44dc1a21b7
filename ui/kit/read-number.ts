import { currentLocale } from '../../core/locale/locale';

const GROUPED = {
  point: /^-?[1-9]\d{0,2}(?:[ ,]\d{3})+(?:\.\d+)?$/,
  comma: /^-?[1-9]\d{0,2}(?:[ .]\d{3})+(?:,\d+)?$/,
};

/**
 * A plain number that a person typed; `undefined` where it is none. Thousands may stand apart, by a space or
 * by the mark that is not the reader's decimal mark: "8,120" is 8120 to whoever reads a point, 8.12 to
 * whoever reads a comma. Where it can be no thousands, either mark is a decimal one.
 */
export function readNumber(text: string): number | undefined {
  const { decimal } = currentLocale();
  const typed = text.trim().replace(/[\u00a0\u202f]/g, ' ');
  const digits = GROUPED[decimal].test(typed) ? typed.replace(decimal === 'comma' ? /[ .]/g : /[ ,]/g, '') : typed;
  const plain = digits.replace(',', '.');
  return /^-?\d+(\.\d+)?$/.test(plain) ? Number(plain) : undefined;
}

/**
 * A plain number that a person typed, with spaces or commas between thousands or a decimal comma; `undefined`
 * where it is none.
 */
export function readNumber(text: string): number | undefined {
  const plain = text
    .trim()
    .replace(/(?<=\d)[ ,](?=\d{3}(\D|$))/g, '')
    .replace(',', '.');
  return /^-?\d+(\.\d+)?$/.test(plain) ? Number(plain) : undefined;
}

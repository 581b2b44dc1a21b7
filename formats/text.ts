/** How the bytes of a file were read. */
export type Encoding = 'UTF-8' | 'UTF-16' | 'Windows-1252';

/**
 * Text of a file. A byte-order mark decides; without one it is UTF-8 where the bytes are that (Unicode 15,
 * table 3-7: other encodings hardly ever look like it), and else Windows-1252, in which spreadsheets of the
 * western world export.
 */
export function decodeText(bytes: Uint8Array): { readonly text: string; readonly encoding: Encoding } {
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return { text: decode('utf-16le', bytes), encoding: 'UTF-16' };
  if (first === 0xfe && second === 0xff) return { text: decode('utf-16be', bytes), encoding: 'UTF-16' };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
  } catch {
    return { text: decode('windows-1252', bytes), encoding: 'Windows-1252' };
  }
}

const decode = (label: string, bytes: Uint8Array): string => new TextDecoder(label).decode(bytes);

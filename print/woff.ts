import { inflateSync } from 'node:zlib';

const HEADER = 44;
const ENTRY = 20;
const SFNT_HEADER = 12;
const SFNT_ENTRY = 16;

/**
 * A font file of the web as a plain one (TrueType or OpenType): its tables inflated. WOFF File Format 1.0,
 * W3C recommendation, sections 3 to 5. Done once here rather than by every document. Throws where it is no
 * such file.
 */
export function plainFont(woff: Buffer): Buffer {
  if (woff.toString('latin1', 0, 4) !== 'wOFF') throw new Error('This is no WOFF file.');
  const count = woff.readUInt16BE(12);
  const entries = Array.from({ length: count }, (_, i) => woff.subarray(HEADER + i * ENTRY, HEADER + (i + 1) * ENTRY));
  const tables = entries.map((e) => {
    const [offset, packed, whole] = [e.readUInt32BE(4), e.readUInt32BE(8), e.readUInt32BE(12)];
    const bytes = woff.subarray(offset, offset + packed);
    const data = packed < whole ? inflateSync(bytes) : bytes;
    if (data.length !== whole) throw new Error(`The table ${e.toString('latin1', 0, 4)} is not as long as it says.`);
    return { tag: e.subarray(0, 4), checksum: e.subarray(16, 20), data };
  });
  const head = Buffer.alloc(SFNT_HEADER + count * SFNT_ENTRY);
  woff.copy(head, 0, 4, 8);
  head.writeUInt16BE(count, 4);
  const power = Math.floor(Math.log2(count));
  head.writeUInt16BE(2 ** power * 16, 6);
  head.writeUInt16BE(power, 8);
  head.writeUInt16BE(count * 16 - 2 ** power * 16, 10);
  let at = head.length;
  const padded = tables.map(({ tag, checksum, data }, i) => {
    const entry = SFNT_HEADER + i * SFNT_ENTRY;
    tag.copy(head, entry);
    checksum.copy(head, entry + 4);
    head.writeUInt32BE(at, entry + 8);
    head.writeUInt32BE(data.length, entry + 12);
    const room = Math.ceil(data.length / 4) * 4;
    at += room;
    return Buffer.concat([data, Buffer.alloc(room - data.length)]);
  });
  return Buffer.concat([head, ...padded]);
}

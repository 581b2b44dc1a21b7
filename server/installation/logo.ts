export const MOST_LOGO_BYTES = 1_000_000;

/** PNG (ISO/IEC 15948, its first eight bytes) or JPEG (its first three); `null` for anything else. */
export function logoType(bytes: Buffer): 'image/png' | 'image/jpeg' | null {
  if (bytes.subarray(0, 8).equals(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]))) return 'image/png';
  return bytes.subarray(0, 3).equals(Buffer.from([0xff, 0xd8, 0xff])) ? 'image/jpeg' : null;
}

/** A line of a meter is shorter than this. */
export const LONGEST_LINE = 200;
/** A meter sends some values a second: of more than this at once the newest count. */
const MOST_LINES = 64;

/** What of a stream came to lines. */
export interface Lines {
  readonly lines: readonly string[];
  /** Lines that were too long, and lines before the newest that were left out. */
  readonly tooLong: number;
  readonly leftOut: number;
}

/**
 * Cuts a stream of bytes into lines, at CR, LF, NUL or both. Memory is bounded whatever is sent: what is
 * longer than a line is dropped up to its end, and of very many lines at once only the newest are kept. Bytes
 * that are no printable ASCII, nor one of the signs that meters send for ohm, micro and degree in Latin-1 or
 * UTF-8, become a blank.
 */
export class LineCutter {
  private readonly pending = new Uint8Array(LONGEST_LINE);
  private length = 0;
  private skipping = false;

  push(bytes: Uint8Array): Lines {
    const lines: string[] = [];
    let [tooLong, leftOut] = [0, 0];
    for (const byte of bytes) {
      if (byte !== 10 && byte !== 13 && byte !== 0) {
        if (this.skipping) continue;
        if (this.length < LONGEST_LINE) this.pending[this.length++] = byte;
        else {
          this.skipping = true;
          tooLong++;
        }
        continue;
      }
      if (!this.skipping && this.length > 0) {
        const line = textOf(this.pending.subarray(0, this.length));
        if (line !== '') lines.push(line);
        if (lines.length > MOST_LINES) {
          lines.shift();
          leftOut++;
        }
      }
      this.length = 0;
      this.skipping = false;
    }
    return { lines, tooLong, leftOut };
  }
}

const utf8 = new TextDecoder('utf-8', { fatal: true });
const LATIN: Readonly<Record<number, string>> = { 0xb5: 'µ', 0xb0: '°', 0xea: 'Ω', 0xd9: 'Ω' };

function textOf(bytes: Uint8Array): string {
  let text: string;
  try {
    text = utf8.decode(bytes);
  } catch {
    text = Array.from(bytes, (b) => LATIN[b] ?? String.fromCharCode(b)).join('');
  }
  return text
    .replace(/[\p{Cc}\u00a0\ufffd]/gu, ' ')
    .replace(/ {2,}/g, ' ')
    .trim();
}

import { tr } from '../locale/translate';

/** How an instrument is reached. */
export type MeterLink =
  /** SCPI over TCP; the server asks. */
  | { readonly kind: 'network'; readonly host: string; readonly port: number }
  /** A serial adapter, on the cable or by radio; the browser reads. */
  | {
      readonly kind: 'serial';
      readonly baud: number;
      readonly speaks: Dialect;
      /** Of `pattern`. */
      readonly pattern?: string | undefined;
    };

export const DIALECTS = ['unasked', 'scpi', 'pattern'] as const;
/**
 * `unasked`: it sends by itself, a line for each value; `pattern`: so too, read by the workshop's own
 * pattern.
 */
export type Dialect = (typeof DIALECTS)[number];
export const BAUDS = [1200, 2400, 4800, 9600, 19_200, 38_400, 57_600, 115_200] as const;

/** "network, 10.0.0.31 port 5025", as an instrument's card says it. */
export const linkWords = (link: MeterLink): string =>
  link.kind === 'network'
    ? tr`in the network: ${link.host}, port ${link.port}`
    : tr`by serial adapter, ${link.baud} baud, ${{ unasked: 'sends by itself', scpi: 'SCPI', pattern: 'by a pattern of the workshop' }[link.speaks]}`;

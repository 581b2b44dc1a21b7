import type { Problem } from '../foundation/result';
import { linePattern } from './pattern';

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
/** `unasked`: it sends by itself, a line for each value; `pattern`: so too, read by the workshop's own pattern. */
export type Dialect = (typeof DIALECTS)[number];
export const BAUDS = [1200, 2400, 4800, 9600, 19_200, 38_400, 57_600, 115_200] as const;

const HOST = /^(?:[A-Za-z0-9](?:[A-Za-z0-9.-]{0,251}[A-Za-z0-9])?|[0-9a-fA-F:]{2,45})$/;

/** What is wrong with a link, by the paths of its fields. */
export function checkLink(link: MeterLink): Problem[] {
  if (link.kind === 'network')
    return [
      ...(HOST.test(link.host)
        ? []
        : [{ path: '/link/host', message: 'An address of the network, such as 10.0.0.31 or meter-2.' }]),
      ...(Number.isInteger(link.port) && link.port > 0 && link.port < 65_536
        ? []
        : [{ path: '/link/port', message: 'A number from 1 to 65535; SCPI meters mostly have 5025.' }]),
    ];
  if (link.speaks !== 'pattern') return [];
  const pattern = linePattern(link.pattern ?? '');
  return pattern.ok ? [] : [{ path: '/link/pattern', message: pattern.error }];
}

/** "network, 10.0.0.31 port 5025", as an instrument's card says it. */
export const linkWords = (link: MeterLink): string =>
  link.kind === 'network'
    ? `in the network: ${link.host}, port ${link.port}`
    : `by serial adapter, ${link.baud} baud, ${{ unasked: 'sends by itself', scpi: 'SCPI', pattern: 'by a pattern of the workshop' }[link.speaks]}`;

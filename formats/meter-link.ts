import type { Problem } from '../core/foundation/result';
import type { MeterLink } from '../core/instrument/link';
import { readScpi } from '../core/instrument/scpi';
import type { ReadLine } from '../core/instrument/types';
import { readUnasked } from '../core/instrument/unasked';
import type { Quantity } from '../core/quantity/units';
import { linePattern } from './meter-pattern';

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

/** How lines of an instrument are read while a quantity is wanted. */
export function lineReader(link: MeterLink, quantity: Quantity): (line: string) => ReadLine {
  if (link.kind === 'network' || link.speaks === 'scpi') return (line) => readScpi(line, quantity);
  if (link.speaks === 'unasked') return readUnasked;
  const pattern = linePattern(link.pattern ?? '');
  return pattern.ok ? pattern.value : () => ({ ok: false, why: 'no match' });
}

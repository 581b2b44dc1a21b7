import { sameContent } from '../foundation/content';
import type { Limits } from '../limits/types';
import type { Specification, When } from './types';

export type ClashKind = 'same' | 'revision' | 'clash' | 'overlap';

export interface Clash {
  readonly kind: ClashKind;
  readonly with: Specification;
  /** Where the two differ: field, theirs, ours. */
  readonly differs: readonly Difference[];
}

export interface Difference {
  readonly field: string;
  readonly there: unknown;
  readonly here: unknown;
}

/**
 * What a specification meets on the shelf that is about the same thing: the same content (`same`), another
 * revision of its own series (`revision`), another for exactly the same condition and school (`clash`), or
 * one whose condition can hold at the same time (`overlap`).
 */
export function findClashes(incoming: Specification, shelf: readonly Specification[]): readonly Clash[] {
  return shelf.flatMap((there): Clash[] => {
    if (
      there.test !== incoming.test ||
      there.scope !== incoming.scope ||
      there.of !== incoming.of ||
      there.status === 'withdrawn'
    )
      return [];
    const differs = differences(there, incoming);
    if (there.series === incoming.series) return [{ kind: differs.length ? 'revision' : 'same', with: there, differs }];
    if (there.school !== incoming.school) return [];
    if (sameWhen(there.when, incoming.when)) return [{ kind: differs.length ? 'clash' : 'same', with: there, differs }];
    return canHoldTogether(there.when, incoming.when) ? [{ kind: 'overlap', with: there, differs }] : [];
  });
}

const FIELDS = [
  'systemVoltage_V',
  'key',
  'engine',
  'connection',
  'fromTemperature_degC',
  'toTemperature_degC',
] as const;
const sameWhen = (a: When, b: When): boolean => FIELDS.every((f) => a[f] === b[f]);

function canHoldTogether(a: When, b: When): boolean {
  for (const f of ['systemVoltage_V', 'key', 'engine', 'connection'] as const)
    if (a[f] !== undefined && b[f] !== undefined && a[f] !== b[f]) return false;
  const from = Math.max(a.fromTemperature_degC ?? -Infinity, b.fromTemperature_degC ?? -Infinity);
  return from <= Math.min(a.toTemperature_degC ?? Infinity, b.toTemperature_degC ?? Infinity);
}

/**
 * Where two specifications say something different of the limits or their source. Source and status inside
 * the limits are not counted.
 */
export function differences(
  there: Pick<Specification, 'limits' | 'source'>,
  here: Pick<Specification, 'limits' | 'source'>,
): Difference[] {
  const fields = [...new Set([...Object.keys(there.limits), ...Object.keys(here.limits)])].filter(
    (f) => f !== 'source' && f !== 'status',
  ) as (keyof Limits)[];
  const found: Difference[] = fields
    .filter((f) => !sameContent(there.limits[f], here.limits[f]))
    .map((f) => ({ field: f, there: there.limits[f] ?? null, here: here.limits[f] ?? null }));
  return there.source === here.source ? found : [...found, { field: 'source', there: there.source, here: here.source }];
}

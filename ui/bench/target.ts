import type { Position } from '../../core/judge/types';

/** What Enter will fill: a position, the lead zero, or nothing while everything is read. */
export type Target = { readonly kind: 'lead-zero' } | { readonly kind: 'position'; readonly position: Position } | null;

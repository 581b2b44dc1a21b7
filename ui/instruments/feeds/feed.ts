import { feedLine, NO_FEED } from '../../../core/instrument/feed';
import { lineReader } from '../../../formats/meter-link';
import type { MeterLink } from '../../../core/instrument/link';
import type { MeterValue } from '../../../core/instrument/types';
import type { Quantity } from '../../../core/quantity/units';

/** What a meter's feed tells. */
export type FeedNews =
  | { readonly kind: 'value'; readonly t_s: number; readonly value: MeterValue }
  | { readonly kind: 'connecting' }
  | { readonly kind: 'connected'; readonly name: string | null }
  /** It goes on trying, unless somebody has to do something first. */
  | { readonly kind: 'lost'; readonly why: string }
  /** It sends, but not what can be read. */
  | { readonly kind: 'complaint'; readonly why: string };
export type Tell = (news: FeedNews) => void;

/** A running feed; called, it ends. */
export type CloseFeed = () => void;

export const now_s = (): number => performance.now() / 1000;

/** Takes lines of a meter, and tells values and what is wrong with them. */
export function lineTaker(link: MeterLink, quantity: Quantity, tell: Tell): (line: string) => void {
  const read = lineReader(link, quantity);
  let state = NO_FEED;
  return (line) => {
    const fed = feedLine(state, line, read);
    state = fed.state;
    if (fed.value) tell({ kind: 'value', t_s: now_s(), value: fed.value });
    if (fed.complaint !== null) tell({ kind: 'complaint', why: fed.complaint });
  };
}

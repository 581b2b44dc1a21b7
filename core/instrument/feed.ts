import { tr } from '../locale/translate';
import type { Quantity } from '../quantity/units';
import { LINE_PROBLEM_WORDS, type MeterValue, type ReadLine } from './types';

/** Why a value is not taken for this test; `null`: it fits. */
export function misfit(value: MeterValue, quantity: Quantity): string | null {
  if (value.hold) return 'The meter holds its display: nothing new is shown. Switch hold off.';
  if (value.relative) return 'The meter shows a difference to a stored value. Switch that off.';
  if (value.quantity !== null && value.quantity !== quantity)
    return tr`The meter measures ${value.quantity}; this test needs ${quantity}. Turn its switch.`;
  if (value.alternating && (quantity === 'voltage' || quantity === 'current'))
    return 'The meter is on alternating; this test needs direct. Turn its switch.';
  return null;
}

/** What a stream of lines is worth: values, or after a while of none the reason. */
export interface FeedState {
  /** Lines in a row that could not be read. */
  readonly unread: number;
  readonly said: boolean;
}
export const NO_FEED: FeedState = { unread: 0, said: false };

/** So many lines in a row that cannot be read are said. One may be cut at its beginning. */
const MANY_UNREAD = 3;

export interface FedLine {
  readonly state: FeedState;
  readonly value: MeterValue | null;
  /** Said once for a row of lines that cannot be read. */
  readonly complaint: string | null;
}

export function feedLine(before: FeedState, line: string, read: (line: string) => ReadLine): FedLine {
  const result = read(line);
  if (result.ok) return { state: NO_FEED, value: result.value, complaint: null };
  const unread = before.unread + 1;
  const isMany = unread >= MANY_UNREAD && !before.said;
  return {
    state: { unread, said: before.said || isMany },
    value: null,
    complaint: isMany
      ? tr`What it sends cannot be read: in “${line.slice(0, 60)}” ${LINE_PROBLEM_WORDS[result.why]}.`
      : null,
  };
}

import type { InstrumentView } from '../../../application/views';
import type { Quantity } from '../../../core/quantity/units';
import type { CloseFeed, Tell } from './feed';
import { openNetworkFeed } from './network-feed';
import { openSerialFeed } from './serial-feed';

/** Opens the way to an instrument; `null`: it has none, and is typed. */
export function openFeed(
  { id, link }: Pick<InstrumentView, 'id' | 'link'>,
  quantity: Quantity,
  tell: Tell,
): CloseFeed | null {
  if (!link) return null;
  return link.kind === 'network' ? openNetworkFeed(id, link, quantity, tell) : openSerialFeed(link, quantity, tell);
}

import type { MeterLink } from '../../core/instrument/link';
import type { Quantity } from '../../core/quantity/units';
import { followMeter, type MeterNews } from './network-meter';

/** Of what a follower has not taken yet, so many are kept: a value of a minute ago tells nothing. */
const MOST_WAITING = 8;

/**
 * A meter's news as server-sent events; `null`: it is read for another quantity. Ends when the request does.
 */
export function streamOfMeter(
  link: Extract<MeterLink, { kind: 'network' }>,
  quantity: Quantity,
  signal: AbortSignal,
): ReadableStream<Uint8Array> | null {
  const text = new TextEncoder();
  const waiting: MeterNews[] = [];
  let wake: (() => void) | null = null;
  const stop = followMeter(link, quantity, (news) => {
    waiting.push(news);
    if (waiting.length > MOST_WAITING) waiting.shift();
    wake?.();
  });
  if (!stop) return null;
  const end = (): void => {
    stop();
    wake?.();
  };
  signal.addEventListener('abort', end);
  return new ReadableStream<Uint8Array>({
    start: (controller) => controller.enqueue(text.encode(': a meter\n\n')),
    pull: async (controller) => {
      while (waiting.length === 0 && !signal.aborted)
        await new Promise<void>((resolve) => {
          wake = resolve;
        });
      if (signal.aborted) return controller.close();
      for (const news of waiting.splice(0)) controller.enqueue(text.encode(`data: ${JSON.stringify(news)}\n\n`));
    },
    cancel: end,
  });
}

import { tr } from '../../../core/locale/translate';
import type { MeterLink } from '../../../core/instrument/link';
import type { Quantity } from '../../../core/quantity/units';
import { type CloseFeed, lineTaker, type Tell } from './feed';

type News =
  | { readonly kind: 'line'; readonly line: string }
  | { readonly kind: 'connected'; readonly name: string | null }
  | { readonly kind: 'lost'; readonly why: string };

const AGAIN_ms = 2000;

/** A meter in the network, by way of the server. */
export function openNetworkFeed(
  instrumentId: string,
  link: Extract<MeterLink, { kind: 'network' }>,
  quantity: Quantity,
  tell: Tell,
): CloseFeed {
  const take = lineTaker(link, quantity, tell);
  const path = `/api/instruments/${instrumentId}/values?quantity=${quantity}`;
  let source: EventSource | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let isClosed = false;
  function open(): void {
    if (isClosed) return;
    tell({ kind: 'connecting' });
    source = new EventSource(path);
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const news = JSON.parse(data) as News;
      if (news.kind === 'line') take(news.line);
      else if (news.kind === 'connected') tell(news);
      else tell({ kind: 'lost', why: tr`The meter is not there: ${news.why}.` });
    };
    source.onerror = () => {
      source?.close();
      void whyNot(path).then((why) => {
        if (isClosed) return;
        tell({ kind: 'lost', why });
        timer = setTimeout(open, AGAIN_ms);
      });
    };
  }
  open();
  return () => {
    isClosed = true;
    clearTimeout(timer);
    source?.close();
  };
}

/** A stream that fails says nothing: the same is asked once more, for the words. */
async function whyNot(path: string): Promise<string> {
  const stop = new AbortController();
  try {
    const answer = await fetch(path, { signal: stop.signal });
    if (answer.ok) return 'The connection to the server was interrupted.';
    const { problems } = (await answer.json()) as { problems?: readonly { message: string }[] };
    return problems?.[0]?.message ?? tr`The server answers ${answer.status}.`;
  } catch {
    return 'No server: a meter in the network is read through it.';
  } finally {
    stop.abort();
  }
}

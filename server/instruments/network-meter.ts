import { connect, type Socket } from 'node:net';
import { LineCutter } from '../../core/instrument/lines';
import type { MeterLink } from '../../core/instrument/link';
import { CONFIGURE, IDENTIFY, READ, readIdentity } from '../../core/instrument/scpi';
import type { Quantity } from '../../core/quantity/units';

/** What a follower of a meter is told. */
export type MeterNews =
  | { readonly kind: 'line'; readonly line: string }
  | { readonly kind: 'connected'; readonly name: string | null }
  /** It goes on trying. */
  | { readonly kind: 'lost'; readonly why: string };

type Address = Extract<MeterLink, { kind: 'network' }>;

const CONNECT_ms = 3000;
const ANSWER_ms = 4000;
const AGAIN_ms = 1000;
/** No more than twenty values a second. */
const PACE_ms = 50;
/** More that was not asked for, between two questions, is no meter. */
const MOST_UNASKED = 64 * 1024;

interface Session {
  /** Changes only while nobody follows. */
  quantity: Quantity;
  readonly followers: Set<(news: MeterNews) => void>;
  /** What was said last of the connection: who comes later hears it too. */
  state: MeterNews | null;
}
/** One connection for each meter: most of them take no more. */
const sessions = new Map<string, Session>();

/**
 * Follows a meter in the network: asks it for one value after the other and tells each line that it answers,
 * until the returned function is called. `null`: somebody else reads another quantity with it. Several may
 * follow one meter.
 */
export function followMeter(link: Address, quantity: Quantity, tell: (news: MeterNews) => void): (() => void) | null {
  const key = `${link.host} ${link.port}`;
  const running = sessions.get(key);
  const session = running ?? { quantity, followers: new Set(), state: null };
  if (session.quantity !== quantity && session.followers.size > 0) return null;
  session.quantity = quantity;
  session.followers.add(tell);
  if (session.state) tell(session.state);
  if (!running) {
    sessions.set(key, session);
    void keepAsking(link, session).finally(() => sessions.delete(key));
  }
  return () => session.followers.delete(tell);
}

/** Whether it can be asked for this at all. */
export const canAsk = (quantity: Quantity): boolean => CONFIGURE[quantity] !== undefined;

async function keepAsking(link: Address, session: Session): Promise<void> {
  const tell = (news: MeterNews): void => {
    if (news.kind !== 'line') session.state = news;
    for (const follower of session.followers) follower(news);
  };
  const isFollowed = (): boolean => session.followers.size > 0;
  while (isFollowed()) {
    let meter: Connection | null = null;
    try {
      meter = await Connection.open(link);
      const name = readIdentity(await meter.ask(IDENTIFY).catch(() => ''))?.name ?? null;
      tell({ kind: 'connected', name });
      for (let set: Quantity | null = null; isFollowed();) {
        const began = Date.now();
        const { quantity } = session;
        if (set !== quantity) meter.say(CONFIGURE[quantity] ?? '');
        set = quantity;
        const line = await meter.ask(READ);
        // Who follows since wants something else: this value is nobody's.
        if (session.quantity === quantity) tell({ kind: 'line', line });
        await pause(PACE_ms - (Date.now() - began));
      }
    } catch (error) {
      tell({ kind: 'lost', why: wordsOf(error) });
      if (isFollowed()) await pause(AGAIN_ms);
    } finally {
      meter?.close();
    }
  }
}

/**
 * A connection that is asked one thing at a time. Whatever the other side sends, it holds one line at most.
 */
class Connection {
  private readonly cutter = new LineCutter();
  private taking: { line: (line: string) => void; failed: (error: Error) => void } | null = null;
  private unasked = 0;
  private broken: Error | null = null;

  private constructor(private readonly socket: Socket) {
    socket.on('data', (bytes) => this.take(bytes));
    socket.on('error', (error) => this.fail(error));
    socket.on('close', () => this.fail(new Error('it has closed the connection')));
    // Nothing is read that was not asked for: the other side has to wait.
    socket.pause();
  }

  static open({ host, port }: Address): Promise<Connection> {
    return new Promise((resolve, reject) => {
      const socket = connect({ host, port });
      const timer = setTimeout(() => {
        socket.destroy();
        reject(new Error('it does not answer at this address'));
      }, CONNECT_ms);
      socket.once('connect', () => {
        clearTimeout(timer);
        socket.setNoDelay(true);
        resolve(new Connection(socket));
      });
      socket.once('error', (error) => {
        clearTimeout(timer);
        reject(error);
      });
    });
  }

  say(command: string): void {
    this.socket.write(`${command}\n`);
  }

  /** The next line that comes after the question. */
  ask(command: string): Promise<string> {
    if (this.broken) return Promise.reject(this.broken);
    return new Promise((resolve, reject) => {
      const timer = setTimeout(() => done(() => reject(new Error('it does not answer any more'))), ANSWER_ms);
      const done = (settle: () => void): void => {
        clearTimeout(timer);
        this.taking = null;
        this.socket.pause();
        settle();
      };
      this.taking = {
        line: (line) => done(() => resolve(line)),
        failed: (error) => done(() => reject(error)),
      };
      this.unasked = 0;
      this.say(command);
      this.socket.resume();
    });
  }

  close(): void {
    this.socket.destroy();
  }

  private take(bytes: Uint8Array): void {
    this.unasked += bytes.length;
    const newest = this.cutter.push(bytes).lines.at(-1);
    if (newest !== undefined) this.taking?.line(newest);
    else if (this.unasked > MOST_UNASKED) this.fail(new Error('it sends what is no answer of a meter'));
  }
  private fail(error: Error): void {
    this.broken ??= error;
    this.taking?.failed(error);
    this.socket.destroy();
  }
}

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, Math.max(0, ms)));

const CODES: Readonly<Record<string, string>> = {
  ECONNREFUSED: 'nobody listens at this address and port',
  EHOSTUNREACH: 'the address cannot be reached',
  ENETUNREACH: 'the network cannot be reached',
  ENOTFOUND: 'the name is not known in this network',
  EAI_AGAIN: 'the name is not known in this network',
  ECONNRESET: 'it has broken the connection off',
  ETIMEDOUT: 'it does not answer at this address',
  EPIPE: 'it has broken the connection off',
};
function wordsOf(error: unknown): string {
  const { code, message } = error as { readonly code?: unknown; readonly message?: unknown };
  if (typeof code === 'string') return CODES[code] ?? 'the connection has failed';
  return typeof message === 'string' ? message : 'the connection has failed';
}

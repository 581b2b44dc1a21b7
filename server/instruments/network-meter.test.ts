import { type AddressInfo, createServer, type Server, type Socket } from 'node:net';
import { followMeter, type MeterNews } from './network-meter';

/** A server that answers each line as it is told; `null`: not at all. */
async function meter(answer: (command: string, socket: Socket) => string | null) {
  const sockets = new Set<Socket>();
  const server: Server = createServer((socket) => {
    sockets.add(socket);
    let text = '';
    socket.on('error', () => undefined);
    socket.on('data', (bytes) => {
      text += bytes.toString();
      for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n')) {
        const reply = answer(text.slice(0, at), socket);
        text = text.slice(at + 1);
        if (reply !== null) socket.write(reply);
      }
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  return {
    link: { kind: 'network', host: '127.0.0.1', port } as const,
    cut: () => sockets.forEach((s) => s.destroy()),
    close: () => {
      sockets.forEach((s) => s.destroy());
      return new Promise((resolve) => server.close(resolve));
    },
  };
}

/** Follows until what was told is enough. */
function follow(
  link: { kind: 'network'; host: string; port: number },
  isEnough: (news: readonly MeterNews[]) => boolean,
  quantity: 'resistance' | 'voltage' = 'resistance',
): Promise<readonly MeterNews[]> {
  return new Promise((resolve, reject) => {
    const told: MeterNews[] = [];
    const stop = followMeter(link, quantity, (news) => {
      told.push(news);
      if (!isEnough(told)) return;
      stop?.();
      resolve(told);
    });
    if (!stop) reject(new Error('taken'));
  });
}
const linesIn = (news: readonly MeterNews[]) => news.flatMap((n) => (n.kind === 'line' ? [n.line] : []));

it('says who it is, sets it to what is wanted, and asks for one value after the other', async () => {
  const heard: string[] = [];
  let n = 0;
  const m = await meter((command) => {
    heard.push(command);
    return command === '*IDN?' ? 'Invented,Six,1,1\r\n' : command === 'READ?' ? `0.6${n++}\n` : null;
  });
  const told = await follow(m.link, (t) => linesIn(t).length === 3);
  expect(told[0]).toEqual({ kind: 'connected', name: 'Invented Six' });
  expect(linesIn(told)).toEqual(['0.60', '0.61', '0.62']);
  expect(heard.slice(0, 3)).toEqual(['*IDN?', 'CONF:RES', 'READ?']);
  await m.close();
});

it('says that it is lost, and goes on by itself when it is back', async () => {
  const m = await meter((command) => (command === 'READ?' ? '1\n' : command === '*IDN?' ? 'A,B\n' : null));
  setTimeout(m.cut, 400);
  const told = await follow(m.link, (t) => t.filter((n) => n.kind === 'connected').length === 2);
  expect(told.some((n) => n.kind === 'lost' && /closed|broken/.test(n.why))).toBe(true);
  await m.close();
});

it('says that nobody is there', async () => {
  const m = await meter(() => null);
  await m.close();
  const [first] = await follow(m.link, (t) => t.length > 0);
  expect(first).toEqual({ kind: 'lost', why: 'nobody listens at this address and port' });
});

it('is not held up by one that sends without end', async () => {
  const rubbish = 'x'.repeat(1 << 20);
  const m = await meter((command) => (command === 'READ?' ? rubbish : 'A,B\n'));
  const before = process.memoryUsage().rss;
  const told = await follow(m.link, (t) => t.filter((n) => n.kind === 'lost').length === 2);
  expect(told.some((n) => n.kind === 'lost' && n.why === 'it sends what is no answer of a meter')).toBe(true);
  expect(process.memoryUsage().rss - before).toBeLessThan(100e6);
  await m.close();
});

it('is shared by two who want the same, and refused to one who wants something else', async () => {
  const m = await meter((command) => (command === 'READ?' ? '1\n' : command === '*IDN?' ? 'A,B\n' : null));
  const first = follow(m.link, (t) => linesIn(t).length === 8);
  await follow(m.link, (t) => linesIn(t).length === 2);
  expect(followMeter(m.link, 'voltage', () => undefined)).toBeNull();
  await first;
  // Nobody follows any more: it is free for another quantity at once.
  await follow(m.link, (t) => linesIn(t).length === 2, 'voltage');
  await m.close();
});

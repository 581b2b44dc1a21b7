import { Agent, createServer, get } from 'node:http';
import type { AddressInfo } from 'node:net';
import { oldConnections } from './connections.mjs';

const OLD_ms = 150;

test('one connection serves request after request until it is old; then the answer ends it, and nothing is lost', async () => {
  const server = createServer((request, response) => {
    if (isOld(request.socket)) response.setHeader('connection', 'close');
    response.end('answered');
  });
  const isOld = oldConnections(server, OLD_ms);
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const { port } = server.address() as AddressInfo;
  const agent = new Agent({ keepAlive: true, maxSockets: 1 });
  const ask = (): Promise<[from: number | undefined, said: string]> =>
    new Promise((done, fail) => {
      get({ port, host: '127.0.0.1', agent }, (answer) => {
        // Gone once it has ended.
        const from = answer.socket.localPort;
        let said = '';
        answer.on('data', (part) => (said += String(part)));
        answer.on('end', () => done([from, said]));
      }).on('error', fail);
    });
  const began = performance.now();
  const seen: Awaited<ReturnType<typeof ask>>[] = [];
  while (performance.now() - began < OLD_ms * 4.5) {
    seen.push(await ask());
    await new Promise((r) => setTimeout(r, 5));
  }
  agent.destroy();
  server.close();
  expect(seen.every(([, said]) => said === 'answered')).toBe(true);
  const connections = new Set(seen.map(([from]) => from));
  // Fewer on a machine that was busy with something else.
  expect(connections.size).toBeGreaterThanOrEqual(3);
  expect(connections.size).toBeLessThan(seen.length);
});

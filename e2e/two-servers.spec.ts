import { createServer, request as ask, type Server } from 'node:http';
import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { v7 } from 'uuid';
import { DEMO_PIN } from '../demo/fleet';
import { demoId } from '../demo/load';
import { BenchPage, newRun } from './bench-page';
import { OwnServer, PORTS } from './server';

test.use({ storageState: { cookies: [], origins: [] } });

/**
 * A proxy that gives each request to the next of the servers, so that nothing may rest on who answered
 * before.
 */
function inTurn(ports: readonly number[]): { readonly proxy: Server; readonly asked: () => readonly number[] } {
  const counts = ports.map(() => 0);
  let turn = 0;
  const proxy = createServer((incoming, outgoing) => {
    const i = turn++ % ports.length;
    counts[i] = (counts[i] ?? 0) + 1;
    const onward = ask(
      { host: '127.0.0.1', port: ports[i], path: incoming.url, method: incoming.method, headers: incoming.headers },
      (answer) => {
        outgoing.writeHead(answer.statusCode ?? 502, answer.headers);
        answer.pipe(outgoing);
      },
    );
    onward.on('error', () => outgoing.destroy());
    outgoing.on('close', () => onward.destroy());
    incoming.pipe(onward);
  });
  return { proxy, asked: () => counts };
}

test('two web servers over one database: sign-in, numbers, photos, live updates, and one of them gone', async ({
  browser,
  playwright,
}) => {
  const servers = [new OwnServer('two servers: one'), new OwnServer('two servers: other')] as const;
  await Promise.all(servers.map((s) => s.start()));
  const { proxy, asked } = inTurn(servers.map((s) => s.port));
  await new Promise<void>((done) => proxy.listen(PORTS['two servers: proxy'], '127.0.0.1', () => done()));
  const baseURL = `http://127.0.0.1:${PORTS['two servers: proxy']}`;
  const api = await playwright.request.newContext({ baseURL });
  try {
    // Signed in at one, known at the other.
    expect((await api.post('/api/session/sign-in', { data: { name: 'Odile Brandt', pin: DEMO_PIN } })).ok()).toBe(true);
    for (let i = 0; i < 4; i++)
      expect(await (await api.get('/api/session')).json()).toMatchObject({ name: 'Odile Brandt' });

    // Jobs that are opened at one moment at both have numbers of their own.
    const ids = Array.from({ length: 12 }, () => v7());
    const opened = await Promise.all(
      ids.map((id) => api.post('/api/jobs', { data: { id, unitId: demoId('unit', 'PL-22'), complaint: 'at once' } })),
    );
    expect(opened.map((r) => r.status())).toEqual(ids.map(() => 201));
    const numbers = await Promise.all(
      ids.map(
        async (id) => ((await (await api.get(`/api/jobs/${id}`)).json()) as { job: { number: number } }).job.number,
      ),
    );
    expect(new Set(numbers).size).toBe(ids.length);

    // A photo that came to one is shown by the other.
    const photo = v7();
    const bytes = readFileSync('docs/screenshots/yard.png');
    const sent = await api.post(`/api/jobs/${ids[0]}/photos?id=${photo}&name=a.png`, {
      headers: { 'content-type': 'image/png' },
      data: bytes,
    });
    expect(sent.status()).toBe(201);
    for (let i = 0; i < 2; i++) expect((await api.get(`/api/photos/${photo}`)).status()).toBe(200);

    // The same reading twice at once, one at each: stored once.
    const run = await newRun(api, 'PL-14', baseURL);
    const reading = { id: v7(), position: 1, entry: '0.7', takenAt: new Date().toISOString() };
    const both = await Promise.all([0, 1].map(() => api.post(`/api/runs/${run}/readings`, { data: reading })));
    expect(both.map((r) => r.status()).toSorted((a, b) => a - b)).toEqual([200, 201]);

    // What is written at one appears on a bench that follows the other.
    const context = await browser.newContext({ baseURL, storageState: await api.storageState() });
    const page = await context.newPage();
    const bench = new BenchPage(page, run);
    await bench.open();
    for (const position of [2, 3]) {
      await api.post(`/api/runs/${run}/readings`, {
        data: { id: v7(), position, entry: '0.65', takenAt: new Date().toISOString() },
      });
      await expect(bench.post(position)).toContainText('0.65');
    }
    expect(Math.min(...asked())).toBeGreaterThan(10);
    await context.close();

    // One of them is gone: the other goes on with the same people.
    await servers[0].stop();
    expect(await (await api.get(`${servers[1].base}/api/session`)).json()).toMatchObject({ name: 'Odile Brandt' });
  } finally {
    await api.dispose();
    proxy.closeAllConnections();
    proxy.close();
    await Promise.all(servers.map((s) => s.stop()));
  }
});

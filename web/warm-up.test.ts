import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { addressesOf, warmUp } from './warm-up.mjs';

const folder = mkdtempSync(path.join(tmpdir(), 'mudflat-warm-'));
afterAll(() => rmSync(folder, { recursive: true }));

const MANIFEST = {
  '/api/jobs/[id]/photos/route': '/api/jobs/[id]/photos',
  '/api/units/route': '/api/units',
  '/api/health/route': '/api/health',
  '/jobs/[id]/page': '/jobs/[id]',
  '/words/[language]/route': '/words/[language]',
};

test('each route of the API is asked, and nothing else', () =>
  expect(addressesOf(MANIFEST)).toEqual([
    '/api/jobs/00000000-0000-0000-0000-000000000000/photos',
    '/api/units',
    '/api/health',
  ]));

test('all are loaded one after the other; one that fails keeps nobody from serving', async () => {
  writeFileSync(path.join(folder, 'app-path-routes-manifest.json'), JSON.stringify(MANIFEST));
  const asked: string[] = [];
  const handle = (request: IncomingMessage, response: ServerResponse): void => {
    asked.push(`${request.method} ${request.url}`);
    if (request.url === '/api/health') request.socket.destroy();
    else {
      response.statusCode = request.url === '/api/units' ? 500 : 204;
      response.end();
    }
  };
  expect(await warmUp(handle, folder)).toBe(1);
  expect(asked).toEqual(addressesOf(MANIFEST).map((a: string) => `OPTIONS ${a}`));
});

test('without a build there is nothing to load', async () => {
  expect(await warmUp(() => undefined, path.join(folder, 'nowhere'))).toBe(0);
  writeFileSync(path.join(folder, 'app-path-routes-manifest.json'), 'no JSON');
  await expect(warmUp(() => undefined, folder)).resolves.toBe(0);
});

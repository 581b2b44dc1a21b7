/**
 * Before a process serves, each route is loaded: what it needs is read when it is first asked for, and of
 * many at once on a server that had just started some were answered after seconds.
 */
import { readFile } from 'node:fs/promises';
import { createServer, request } from 'node:http';
import path from 'node:path';

/** A slow machine serves cold rather than not at all. */
const MOST_ms = 2_500;
const NOBODY = '00000000-0000-0000-0000-000000000000';

/** Addresses of the API's routes, of a build's manifest: "/api/jobs/[id]/route" to "/api/jobs/[id]". */
export const addressesOf = (manifest) =>
  Object.entries(manifest)
    .filter(([file, address]) => file.endsWith('/route') && address.startsWith('/api/'))
    .map(([, address]) => address.replace(/\[[^\]]+\]/g, NOBODY));

/**
 * Asks each route of the build in `dist` which methods it has, which loads it and does nothing else. Returns
 * how many answered; a build that cannot be read, or a route that fails, keeps nobody from serving.
 */
export async function warmUp(handle, dist) {
  const addresses = await readFile(path.join(dist, 'app-path-routes-manifest.json'), 'utf8')
    .then((text) => addressesOf(JSON.parse(text)))
    .catch(() => []);
  // A door of its own, which nobody else knows.
  const server = createServer(handle);
  await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
  const started = performance.now();
  let answered = 0;
  for (const address of addresses) {
    if (performance.now() - started > MOST_ms) break;
    if (await options(server.address().port, address)) answered += 1;
  }
  server.close();
  server.closeAllConnections();
  return answered;
}

const options = (port, address) =>
  new Promise((resolve) => {
    const asked = request({ port, host: '127.0.0.1', path: address, method: 'OPTIONS', timeout: MOST_ms }, (answer) => {
      answer.resume();
      answer.once('end', () => resolve(answer.statusCode < 500));
    });
    asked.once('timeout', () => asked.destroy());
    asked.once('error', () => resolve(false));
    asked.end();
  });

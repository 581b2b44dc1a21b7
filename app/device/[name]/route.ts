import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import path from 'node:path';

/**
 * What a device keeps to go on without the server, as it was built beside the application. Nothing of it is
 * secret.
 */
const FILES: Readonly<Record<string, string>> = {
  'worker.js': 'text/javascript',
  'service-worker.js': 'text/javascript',
  'pglite.wasm': 'application/wasm',
  'initdb.wasm': 'application/wasm',
  'pglite.data': 'application/octet-stream',
  'database.tar': 'application/gzip',
};

interface Built {
  readonly bytes: Buffer<ArrayBuffer>;
  readonly etag: string;
}
const built = new Map<string, Promise<Built>>();

async function load(name: string): Promise<Built> {
  const bytes = await readFile(path.join(process.env.MUDFLAT_DIST ?? '.next', 'device', name));
  return { bytes, etag: `"${createHash('sha256').update(bytes).digest('hex').slice(0, 20)}"` };
}

export async function GET(request: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  const { name } = await params;
  const type = Object.hasOwn(FILES, name) ? FILES[name] : undefined;
  if (type === undefined) return new Response('Not found.\n', { status: 404 });
  let found = built.get(name);
  if (!found) {
    found = load(name);
    built.set(name, found);
    found.catch(() => built.delete(name));
  }
  const { bytes, etag } = await found;
  const headers = {
    'content-type': type,
    'cache-control': 'no-cache',
    etag,
    // The service worker keeps the whole application, not this folder.
    ...(name === 'service-worker.js' ? { 'service-worker-allowed': '/' } : {}),
  };
  if (request.headers.get('if-none-match') === etag) return new Response(null, { status: 304, headers });
  return new Response(bytes, { headers });
}

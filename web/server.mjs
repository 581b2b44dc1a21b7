/**
 * The web server: Next's own request handler behind a door that decides what of a request's headers is
 * believed, what an answer tells the browser, and what stands in the log.
 *
 *   MUDFLAT_LISTEN   address to listen on; default 127.0.0.1
 *   PORT             default 4180
 *   MUDFLAT_PROXY    addresses of proxies that are trusted, by commas; default none
 *   MUDFLAT_WORKERS  processes that serve, on one port; default 1
 *   MUDFLAT_DEV      "1": reloads what is changed
 *   MUDFLAT_LOG      "requests": a line for every request; default: only what failed or was slow
 */
import { AsyncLocalStorage } from 'node:async_hooks';
import cluster from 'node:cluster';
import { randomBytes, randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { createServer } from 'node:http';
import { resolve } from 'node:path';
import next from 'next';
import pino from 'pino';
import { Gate } from './gate.mjs';
import { oldConnections } from './connections.mjs';
import { believedHeaders, contentSecurityPolicy, isLoopback, securityHeaders } from './headers.mjs';
import { Metrics } from './metrics.mjs';
import { ReadingThreads } from './reading.mjs';
import { warmUp } from './warm-up.mjs';
import { WeighingThread } from './weighing.mjs';
import { SharedMetrics, supervise, untilAllAreReady, wantedWorkers } from './workers.mjs';

const hostname = process.env.MUDFLAT_LISTEN || '127.0.0.1';
const port = Number(process.env.PORT ?? 4180);
const trusted = new Set(
  (process.env.MUDFLAT_PROXY ?? '')
    .split(',')
    .map((a) => a.trim())
    .filter(Boolean),
);
/** Longer than a client keeps an idle connection: one closed just as a request goes out loses the request. */
const KEEP_ALIVE_ms = 75_000;
const CONNECTION_ms = 20_000;
const SLOW_ms = 2_000;
const isDeveloping = process.env.MUDFLAT_DEV === '1';
/** Streams stay open as long as somebody listens: how long they took says nothing. */
const isStream = (path) => path.endsWith('/live');

/**
 * Pages are drawn one at a time: a reading that is sent meanwhile waits for one, not for everybody who looks.
 * Drawing needs the processor, so several at once would only be done later together; what takes longer than
 * this waits for the database.
 */
const DRAWN_AFTER_ms = 250;
const pages = new Gate(1, DRAWN_AFTER_ms);
/** What is fetched ahead of a click draws next to nothing. */
const isPage = ({ method, url, headers }) =>
  (method === 'GET' || method === 'HEAD') &&
  headers['next-router-prefetch'] === undefined &&
  !/^\/(api|_next)\//.test(url) &&
  !/\.\w+$/.test(url.split('?')[0]);

// Who reads the answer to a request: server/locale/reader.ts says it, core/locale asks for it.
const requests = new AsyncLocalStorage();
globalThis.mudflatRequests = requests;
globalThis.mudflatReader = () => requests.getStore()?.reader;

// Circuits are weighed beside what answers: server/jobs/weighing.ts asks for it. Without a build, and while
// sources are changed, they are weighed where they are asked for.
const dist = resolve(process.env.MUDFLAT_DIST ?? '.next');
const weighing = resolve(dist, 'threads', 'weighing.mjs');
if (!isDeveloping && existsSync(weighing)) {
  const thread = new WeighingThread(weighing);
  globalThis.mudflatWeigh = (question) => thread.ask(question);
}
// Large files are read beside it as well: server/files/read-beside.ts asks for it.
const reading = resolve(dist, 'threads', 'reading.cjs');
if (!isDeveloping && existsSync(reading)) {
  const threads = new ReadingThreads(reading);
  globalThis.mudflatRead = (question) => threads.read(question);
}

// When the reader of these streams has gone, a report of that would go into the same stream and fail again,
// without end.
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined);

const log = pino({ base: null, timestamp: pino.stdTimeFunctions.isoTime });
const listening = `http://${hostname}:${port}`;
const workers = wantedWorkers();
if (workers > 1 && cluster.isPrimary) supervise(workers, log, { listening });
else await serve(cluster.isWorker ? new SharedMetrics() : new Metrics());

async function serve(metrics) {
  const app = next({ dev: isDeveloping, hostname, port });
  await app.prepare();
  const handle = app.getRequestHandler();
  if (!isDeveloping) await warmUp((request, response) => requests.run({}, () => handle(request, response)), dist);

  function note(request, response, id, started) {
    const path = request.url.split('?')[0];
    const took_ms = performance.now() - started;
    if (!isStream(path)) metrics.count(response.statusCode, took_ms / 1000);
    const line = { id, method: request.method, path, status: response.statusCode, ms: Math.round(took_ms) };
    if (response.statusCode >= 500) log.error(line);
    else if (took_ms > SLOW_ms && !isStream(path)) log.warn(line);
    else if (process.env.MUDFLAT_LOG === 'requests') log.info(line);
  }

  const server = createServer((request, response) => {
    const started = performance.now();
    const id = randomUUID();
    const isDirect = request.headers['x-forwarded-for'] === undefined;
    const believed = believedHeaders(request.headers, request.socket.remoteAddress, trusted);
    if (request.url === '/api/metrics') {
      const mayLook = isDirect && isLoopback(request.socket.remoteAddress);
      response.writeHead(mayLook ? 200 : 404, { 'content-type': 'text/plain; version=0.0.4' });
      void Promise.resolve(mayLook ? metrics.text() : 'Not found.\n').then((text) => response.end(text));
      return;
    }
    if (tooOld(request.socket)) response.setHeader('connection', 'close');
    const nonce = randomBytes(16).toString('base64');
    const policy = contentSecurityPolicy(nonce, request.url.split('?')[0], isDeveloping);
    // Next reads the nonce for its own scripts from the request.
    request.headers = { ...believed, 'content-security-policy': policy, 'x-nonce': nonce, 'x-request-id': id };
    for (const [name, value] of Object.entries({
      ...securityHeaders(believed['x-forwarded-proto'] === 'https'),
      'content-security-policy': policy,
      'x-request-id': id,
      // What is data is not kept by a browser; what may be says so itself.
      ...(request.url.startsWith('/api/') ? { 'cache-control': 'no-store' } : {}),
    }))
      response.setHeader(name, value);
    response.once('close', () => note(request, response, id, started));
    void answer(request, response, id);
  });

  async function answer(request, response, id) {
    if (isPage(request)) {
      // Whoever went on to another page meanwhile is drawn nothing.
      const leave = await pages.enter(() => response.closed || request.socket.destroyed);
      if (leave === null) return;
      response.once('finish', leave);
      response.once('close', leave);
    }
    await requests
      .run({}, () => handle(request, response))
      .catch((error) => {
        log.error({ id, path: request.url, error: String(error?.stack ?? error) });
        if (!response.headersSent) response.writeHead(500);
        response.end();
      });
  }
  if (cluster.isWorker) await untilAllAreReady();
  server.keepAliveTimeout = KEEP_ALIVE_ms;
  server.headersTimeout = KEEP_ALIVE_ms + 1_000;
  const tooOld = oldConnections(server, CONNECTION_ms);

  server.listen(port, hostname, () => {
    if (!cluster.isWorker) log.info({ listening, pid: process.pid });
  });
  server.on('error', (error) => {
    log.fatal({ error: error.message });
    process.exit(1);
  });
  // What is under way is answered; then it ends.
  for (const signal of ['SIGTERM', 'SIGINT'])
    process.once(signal, () => {
      server.close(() => process.exit(0));
      server.closeIdleConnections();
      setTimeout(() => process.exit(0), 3_000).unref();
    });
}

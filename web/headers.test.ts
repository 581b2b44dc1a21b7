import { believedHeaders, contentSecurityPolicy, isLoopback, securityHeaders } from './headers.mjs';
import { Metrics } from './metrics.mjs';

const NOBODY: ReadonlySet<string> = new Set();
const CADDY: ReadonlySet<string> = new Set(['127.0.0.1']);
const forged = {
  host: 'mudflat.yard',
  cookie: 'a=b',
  'x-forwarded-for': '10.1.1.1',
  'x-forwarded-proto': 'https',
  'x-forwarded-host': 'elsewhere.example',
  'x-real-ip': '10.1.1.1',
  forwarded: 'for=10.1.1.1',
};

test('what anybody says of where it comes from is dropped, and the connection itself counts', () =>
  expect(believedHeaders(forged, '::ffff:192.0.2.7', NOBODY)).toEqual({
    host: 'mudflat.yard',
    cookie: 'a=b',
    'x-forwarded-for': '192.0.2.7',
    'x-forwarded-proto': 'http',
  }));

test('a trusted proxy is believed, and of its list only the address that it has seen itself', () => {
  const passed = { ...forged, 'x-forwarded-for': '203.0.113.9, 192.0.2.44', 'x-forwarded-host': 'mudflat.yard' };
  expect(believedHeaders(passed, '127.0.0.1', CADDY)).toMatchObject({
    'x-forwarded-for': '192.0.2.44',
    'x-forwarded-proto': 'https',
    'x-forwarded-host': 'mudflat.yard',
  });
  expect(believedHeaders({ host: 'h' }, '127.0.0.1', CADDY)).toMatchObject({
    'x-forwarded-for': '127.0.0.1',
    'x-forwarded-proto': 'http',
  });
});

test('no script runs but those of this answer, and nothing frames the page', () => {
  const policy = contentSecurityPolicy('abc=', '/jobs/1');
  const scripts = policy.split('; ').find((d: string) => d.startsWith('script-src')) ?? '';
  expect(scripts).toContain("'nonce-abc='");
  expect(scripts).not.toMatch(/unsafe-inline|'unsafe-eval'/);
  expect(contentSecurityPolicy('abc=', '/device/worker.js')).toContain("'unsafe-eval'");
  expect(policy).toContain("frame-ancestors 'none'");
  expect(securityHeaders(true)).toHaveProperty('strict-transport-security');
  expect(securityHeaders(false)).not.toHaveProperty('strict-transport-security');
});

test.each([
  ['127.0.0.1', true],
  ['::ffff:127.0.0.1', true],
  ['::1', true],
  ['192.0.2.1', false],
  [undefined, false],
])('%s is this machine: %s', (address, is) => expect(isLoopback(address)).toBe(is));

test('requests are counted by their kind of answer and by how long they took', () => {
  const metrics = new Metrics();
  metrics.count(200, 0.03);
  metrics.count(201, 0.3);
  metrics.count(503, 9);
  const text: string = metrics.text();
  expect(text).toContain('mudflat_requests_total{status="2xx"} 2');
  expect(text).toContain('mudflat_request_seconds_bucket{le="0.05"} 1');
  expect(text).toContain('mudflat_request_seconds_bucket{le="0.4"} 2');
  expect(text).toContain('mudflat_request_seconds_bucket{le="+Inf"} 3');
});

/**
 * What a request may say of where it comes from, and what an answer tells the browser. Pure: no server, no
 * clock.
 */

/** Headers by which a proxy says for whom it asks. */
const FORWARDED = [
  'forwarded',
  'x-forwarded-for',
  'x-forwarded-host',
  'x-forwarded-port',
  'x-forwarded-proto',
  'x-real-ip',
];

/** An IPv4 address that arrives in IPv6's dress is the same address. */
const plain = (address) => (address ?? '').replace(/^::ffff:/, '');

/**
 * The headers as the application may believe them: only a proxy that is trusted says for whom it asks, and
 * only the last address of its list was seen by the proxy itself. What anybody else says of it is dropped.
 * @param {Record<string, string | string[] | undefined>} headers of the request, in lower case
 * @param {string | undefined} remote address of the other end of the connection
 * @param {ReadonlySet<string>} trusted addresses of proxies
 */
export function believedHeaders(headers, remote, trusted) {
  const rest = Object.fromEntries(Object.entries(headers).filter(([name]) => !FORWARDED.includes(name)));
  const from = plain(remote);
  if (!trusted.has(from)) return { ...rest, 'x-forwarded-for': from, 'x-forwarded-proto': 'http' };
  const seen =
    String(headers['x-forwarded-for'] ?? '')
      .split(',')
      .at(-1)
      ?.trim() || from;
  const isSecure =
    String(headers['x-forwarded-proto'] ?? '')
      .split(',')
      .at(-1)
      ?.trim() === 'https';
  const host = headers['x-forwarded-host'];
  return {
    ...rest,
    'x-forwarded-for': plain(seen),
    'x-forwarded-proto': isSecure ? 'https' : 'http',
    ...(typeof host === 'string' && host ? { 'x-forwarded-host': host } : {}),
  };
}

/** The server's rooms on a device: they compile the schemas of its routes, in a worker that sees no page. */
const COMPILES = '/device/worker.js';

/** `nonce`: of this one answer, for this path. The code reader and a device's database are WebAssembly. */
export const contentSecurityPolicy = (nonce, path, isDeveloping = false) =>
  [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'${path === COMPILES || isDeveloping ? " 'unsafe-eval'" : ''}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "worker-src 'self' blob:",
    "connect-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');

/** What every answer says beside the policy for its content. */
export const securityHeaders = (isSecure) => ({
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'same-origin',
  'permissions-policy': 'camera=(self), serial=(self), microphone=(), geolocation=(), payment=(), usb=()',
  'cross-origin-opener-policy': 'same-origin',
  ...(isSecure ? { 'strict-transport-security': 'max-age=31536000' } : {}),
});

export const isLoopback = (address) => /^(?:127\.|::1$)/.test(plain(address));

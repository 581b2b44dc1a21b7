import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';

/** Whether the browser speaks HTTPS: as the web server, or the proxy that it trusts, says. */
export const isSecureRequest = (headers: Headers): boolean => headers.get('x-forwarded-proto') === 'https';

/**
 * A device on which somebody has signed in before carries a signed name of its own. Its wrong tries are
 * counted for itself, so that strangers at the same address, or at another device, cannot lock it out
 * ("device cookies" of the OWASP collection, from memory).
 */
const YEAR_s = 365 * 24 * 3600;
const SHAPE = /^([0-9a-f]{32})\.([0-9a-f]{64})$/;

const cookieName = (headers: Headers): string =>
  isSecureRequest(headers) ? '__Host-mudflat-device' : 'mudflat-device';
const signatureOf = (id: string): string =>
  createHmac('sha256', process.env.MUDFLAT_SECRET ?? '')
    .update(`device ${id}`)
    .digest('hex');

/** The name of the device; `null` where nobody has signed in on it, or where the name is not of ours. */
export function knownDevice(headers: Headers): string | null {
  const cookies = (headers.get('cookie') ?? '').split(';').map((c) => c.trim());
  const own = cookies.find((c) => c.startsWith(`${cookieName(headers)}=`));
  return deviceOfTicket(own?.split('=')[1] ?? '');
}

/** What proves that a device is the one it says: its name, signed. */
export const ticketOf = (id: string): string => `${id}.${signatureOf(id)}`;

/** The name in a ticket of ours; `null`: it is not one. */
export function deviceOfTicket(ticket: string): string | null {
  const [, id, signature] = SHAPE.exec(ticket) ?? [];
  if (id === undefined || signature === undefined) return null;
  return timingSafeEqual(Buffer.from(signature), Buffer.from(signatureOf(id))) ? id : null;
}

/** The cookie that names the device from now on. */
export function deviceCookie(headers: Headers): string {
  const id = knownDevice(headers) ?? randomBytes(16).toString('hex');
  const secure = isSecureRequest(headers) ? '; Secure' : '';
  return `${cookieName(headers)}=${ticketOf(id)}; Path=/; Max-Age=${YEAR_s}; HttpOnly; SameSite=Lax${secure}`;
}

/**
 * What a device's own copy is encrypted with, 32 bytes: made from the name of the device, so that it need not
 * be stored, and so that what a device has saved can be opened here. HMAC-SHA-256 as a key derivation (NIST
 * SP 800-108, from memory).
 */
export const deviceKey = (device: string): Buffer =>
  createHmac('sha256', process.env.MUDFLAT_SECRET ?? '')
    .update(`copy of device ${device}`)
    .digest();

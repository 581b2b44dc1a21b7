import { deviceCookie, knownDevice, deviceOfTicket, ticketOf } from './known-device';

beforeAll(() => {
  process.env.MUDFLAT_SECRET = 'a secret of this test';
});
const asking = (cookie: string, more = {}): Headers => new Headers({ cookie, ...more });
const cookieOf = (set: string): string => set.split(';')[0] ?? '';

test('a device is known by the cookie that it was given, and keeps its name', () => {
  const given = cookieOf(deviceCookie(new Headers()));
  const id = knownDevice(asking(`other=1; ${given}`));
  expect(id).toMatch(/^[0-9a-f]{32}$/);
  expect(cookieOf(deviceCookie(asking(given)))).toBe(given);
});

test.each(['', 'mudflat-device=', 'mudflat-device=abc', `mudflat-device=${'0'.repeat(32)}.${'0'.repeat(64)}`])(
  '"%s" is no name that was given here',
  (cookie) => expect(knownDevice(asking(cookie))).toBeNull(),
);

test('over HTTPS the cookie is secure and of this host alone', () => {
  const secure = { 'x-forwarded-proto': 'https' };
  const given = deviceCookie(asking('', secure));
  expect(given).toMatch(/^__Host-mudflat-device=.*; Path=\/;.*HttpOnly.*; Secure$/);
  expect(knownDevice(asking(cookieOf(given), secure))).not.toBeNull();
  expect(knownDevice(asking(cookieOf(given)))).toBeNull();
});

test('a ticket is as good as the cookie, and nobody can make one', () => {
  const ticket = ticketOf('a'.repeat(32));
  expect(deviceOfTicket(ticket)).toBe('a'.repeat(32));
  for (const wrong of ['', 'a'.repeat(32), `${'b'.repeat(32)}.${ticket.split('.')[1]}`, `${ticket.slice(0, -1)}x`])
    expect(deviceOfTicket(wrong)).toBeNull();
});

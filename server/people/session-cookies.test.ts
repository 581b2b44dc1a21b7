import { createHmac } from 'node:crypto';
import fc from 'fast-check';
import { tokensIn } from './session-cookies';

const SECRET = 'a secret of the test';
const signed = (token: string, secret = SECRET): string =>
  encodeURIComponent(`${token}.${createHmac('sha256', secret).update(token).digest('base64')}`);
const asked = (cookie: string, more: Record<string, string> = {}) => tokensIn(new Headers({ cookie, ...more }), SECRET);

test('the one at the bench and all of the device, each by its signature', () => {
  const cookie = `x=1; mudflat.session_token=${signed('AAA')}; mudflat.session_token_multi-aaa=${signed('AAA')}; mudflat.session_token_multi-bbb=${signed('BBB')}`;
  expect(asked(cookie)).toEqual({ active: 'AAA', all: new Set(['AAA', 'BBB']) });
  // Over HTTPS only cookies that a page of plain HTTP cannot have set.
  expect(asked(cookie, { 'x-forwarded-proto': 'https' })).toEqual({ active: null, all: new Set() });
});

test('a signature of somebody else, a cut one and nonsense are nobody', () => {
  for (const value of [signed('AAA', 'another'), signed('AAA').slice(0, -6), 'AAA', '.', '%', '', 'AAA.'])
    expect(asked(`mudflat.session_token=${value}`).active).toBeNull();
  fc.assert(fc.property(fc.string(), (cookie) => asked(cookie.replace(/[^\x20-\x7e]/g, '')).active === null));
});

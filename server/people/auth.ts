import { betterAuth } from 'better-auth';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { multiSession } from 'better-auth/plugins/multi-session';
import { username } from 'better-auth/plugins/username';
import { v7 } from 'uuid';
import { serverDb } from '../db/connection';
import { isSecureRequest } from './known-device';
import { usernameFor } from './people';
import { checkPin, hashPin } from './pin';
import { account, person, session, verification } from '../db/schema';

const HOUR_s = 3600;
/** How long a person stays signed in without doing anything: a long shift. */
const SHIFT_s = 14 * HOUR_s;
/** Of one device. A yard tablet goes through many hands. */
const MOST_PERSONS = 12;

const make = (isSecure: boolean) =>
  betterAuth({
    // Only tells better-auth that it is at home here: nobody is sent there.
    baseURL: isSecure ? 'https://mudflat.invalid' : 'http://mudflat.invalid',
    secret: process.env.MUDFLAT_SECRET ?? missingSecret(),
    telemetry: { enabled: false },
    // Role and depot come with the person, read anew with each request: what a lead takes away is gone at
    // once.
    user: {
      additionalFields: {
        role: { type: 'string', input: false, required: false },
        depotId: { type: 'string', input: false, required: false },
        retiredAt: { type: 'date', input: false, required: false },
      },
    },
    database: drizzleAdapter(serverDb().db, {
      provider: 'pg',
      schema: { user: person, session, account, verification },
    }),
    emailAndPassword: {
      enabled: true,
      disableSignUp: true,
      minPasswordLength: 6,
      maxPasswordLength: 100,
      password: { hash: hashPin, verify: ({ hash, password }) => checkPin(hash, password) },
    },
    session: { expiresIn: SHIFT_s, updateAge: HOUR_s },
    advanced: {
      // A browser takes a cookie of this prefix only over HTTPS, for the whole site and from this host alone.
      cookiePrefix: isSecure ? '__Host-mudflat' : 'mudflat',
      useSecureCookies: false,
      defaultCookieAttributes: { secure: isSecure, httpOnly: true, sameSite: 'lax', path: '/' },
      database: { generateId: () => v7() },
    },
    logger: { disabled: true },
    plugins: [
      username({
        minUsernameLength: 1,
        maxUsernameLength: 80,
        usernameValidator: () => true,
        usernameNormalization: usernameFor,
      }),
      multiSession({ maximumSessions: MOST_PERSONS }),
    ],
  });

function missingSecret(): never {
  throw new Error('MUDFLAT_SECRET is not set; start with ./mudflat demo, serve or dev');
}

type Auth = ReturnType<typeof make>;
const kept = globalThis as { mudflatAuth?: { plain?: Auth; secure?: Auth } };

/** Sign-in of the running server, with the cookies that fit how it was asked. */
export function auth(headers: Headers): Auth {
  const both = (kept.mudflatAuth ??= {});
  return isSecureRequest(headers) ? (both.secure ??= make(true)) : (both.plain ??= make(false));
}

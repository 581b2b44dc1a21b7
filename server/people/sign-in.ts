import { and, eq, isNull } from 'drizzle-orm';
import { RateLimiterPostgres } from 'rate-limiter-flexible';
import { fail, ok, type Result } from '../../core/foundation/result';
import { type ProblemDetails, problemDetails } from '../../formats/problem';
import type { SignedIn } from '../../application/views';
import { ROLES } from '../../core/foundation/vocabulary';
import type { Actor } from '../policy/actor';
import { auth } from './auth';
import { serverDb } from '../db/connection';
import { usernameFor } from './people';
import { person } from '../db/schema';

/** Wrong tries before a person is locked, and for how long. */
const TRIES = 5;
const LOCK_s = 15 * 60;
/** Of one address: somebody who goes through names. */
const TRIES_OF_ADDRESS = 60;

const kept = globalThis as { mudflatLimiters?: { person: RateLimiterPostgres; address: RateLimiterPostgres } };
function limiters() {
  const limiter = (points: number, keyPrefix: string): RateLimiterPostgres =>
    new RateLimiterPostgres({
      storeClient: serverDb().pool,
      tableName: 'sign_in_attempt',
      tableCreated: true,
      keyPrefix,
      points,
      duration: LOCK_s,
      blockDuration: LOCK_s,
      clearExpiredByTimeout: false,
    });
  return (kept.mudflatLimiters ??= { person: limiter(TRIES, 'person'), address: limiter(TRIES_OF_ADDRESS, 'address') });
}

/** What a request to sign in, switch or sign out comes to: cookies to set. */
export type SignInOutcome = Result<
  { readonly name: string | null; readonly cookies: readonly string[] },
  ProblemDetails
>;

const locked = (ms: number): SignInOutcome =>
  fail(
    problemDetails(
      'Locked.',
      [
        {
          path: '/pin',
          message: `Too many wrong tries. Locked for ${Math.max(1, Math.ceil(ms / 60_000))} more minutes; a lead can set a new PIN.`,
        },
      ],
      429,
    ),
  );

/** Signs a person in on this device, beside those who are signed in there already. */
export async function signIn(headers: Headers, name: string, pin: string): Promise<SignInOutcome> {
  const [limits, key, address] = [
    limiters(),
    usernameFor(name),
    headers.get('x-forwarded-for')?.split(',').at(-1)?.trim() ?? 'none',
  ];
  const [ofPerson, ofAddress] = await Promise.all([limits.person.get(key), limits.address.get(address)]);
  if (ofPerson && ofPerson.consumedPoints >= TRIES) return locked(ofPerson.msBeforeNext);
  if (ofAddress && ofAddress.consumedPoints >= TRIES_OF_ADDRESS) return locked(ofAddress.msBeforeNext);
  // Counted before it is checked: tries at the same moment cannot go past the limit.
  const counted = await limits.person.consume(key).catch((e: unknown) => e);
  if (counted instanceof Error) throw counted;
  if ((counted as { remainingPoints: number; consumedPoints: number }).consumedPoints > TRIES)
    return locked((counted as { msBeforeNext: number }).msBeforeNext);
  const response = await auth().api.signInUsername({
    body: { username: key, password: pin },
    headers,
    asResponse: true,
  });
  const [there] = await serverDb()
    .db.select({ name: person.name })
    .from(person)
    .where(and(eq(person.username, key), isNull(person.retiredAt)));
  if (!response.ok || !there) {
    await limits.address.consume(address).catch(() => undefined);
    const left = TRIES - (counted as { consumedPoints: number }).consumedPoints;
    if (left <= 0) return locked(LOCK_s * 1000);
    return fail(
      problemDetails(
        'Not signed in.',
        [{ path: '/pin', message: `Name and PIN do not go together. ${left} ${left === 1 ? 'try' : 'tries'} left.` }],
        401,
      ),
    );
  }
  await limits.person.delete(key);
  return ok({ name: there.name, cookies: response.headers.getSetCookie() });
}

/** Persons signed in on this device, and who of them is at the bench. */
export async function signedIn(headers: Headers): Promise<SignedIn> {
  const { active, onDevice } = await sessionsOf(headers);
  return {
    name: active?.name ?? null,
    role: active?.role ?? null,
    depotId: active?.depotId ?? null,
    onDevice: onDevice.map((p) => p.name),
  };
}

interface DeviceSessions {
  readonly active: Actor | null;
  readonly onDevice: readonly (Actor & { readonly token: string })[];
}

interface SessionUser {
  id: string;
  name: string;
  role?: unknown;
  depotId?: unknown;
  retiredAt?: unknown;
}

/** The person at the bench of this device; `null` where nobody is signed in. */
export async function actorOf(headers: Headers): Promise<Actor | null> {
  if (!headers.get('cookie')) return null;
  const found = await auth().api.getSession({ headers });
  return found ? actorFrom(found.user) : null;
}

/**
 * Role and depot come from the database with the session, anew each time: what a lead takes away is gone at
 * once.
 */
function actorFrom({ id, name, role, depotId, retiredAt }: SessionUser): Actor | null {
  const known = ROLES.find((r) => r === role);
  return known && !retiredAt ? { id, name, role: known, depotId: typeof depotId === 'string' ? depotId : null } : null;
}

async function sessionsOf(headers: Headers): Promise<DeviceSessions> {
  if (!headers.get('cookie')) return { active: null, onDevice: [] };
  const [active, sessions] = await Promise.all([actorOf(headers), auth().api.listDeviceSessions({ headers })]);
  const onDevice = sessions.map((s) => ({ token: s.session.token, actor: actorFrom(s.user) }));
  return {
    active,
    onDevice: onDevice
      .flatMap(({ token, actor }) => (actor ? [{ ...actor, token }] : []))
      .toSorted((a, b) => (a.name < b.name ? -1 : 1)),
  };
}

/**
 * A person of that name who is signed in on this device too: what was typed before the device changed hands
 * is theirs.
 */
export async function deviceActor(headers: Headers, name: string): Promise<Actor | null> {
  return (await sessionsOf(headers)).onDevice.find((p) => p.name === name) ?? null;
}

/** Puts another person at the bench who is signed in on this device. */
export async function switchPerson(headers: Headers, name: string): Promise<SignInOutcome> {
  const to = (await sessionsOf(headers)).onDevice.find((p) => usernameFor(p.name) === usernameFor(name));
  if (!to)
    return fail(
      problemDetails(
        'Not signed in here.',
        [{ path: '/name', message: `${name} is not signed in on this device: sign in with the PIN.` }],
        401,
      ),
    );
  const response = await auth().api.setActiveSession({ body: { sessionToken: to.token }, headers, asResponse: true });
  if (!response.ok)
    return fail(
      problemDetails(
        'Not signed in here.',
        [{ path: '/name', message: `The session of ${name} has ended: sign in with the PIN.` }],
        401,
      ),
    );
  return ok({ name: to.name, cookies: response.headers.getSetCookie() });
}

/** Signs the person at the bench out; another one of this device takes the place, if there is one. */
export async function signOut(headers: Headers): Promise<SignInOutcome> {
  const { active, onDevice } = await sessionsOf(headers);
  const own = onDevice.find((p) => p.id === active?.id);
  const response = own
    ? await auth().api.revokeDeviceSession({ body: { sessionToken: own.token }, headers, asResponse: true })
    : await auth().api.signOut({ headers, asResponse: true });
  const rest = onDevice.filter((p) => p.id !== active?.id);
  return ok({ name: rest[0]?.name ?? null, cookies: response.headers.getSetCookie() });
}

import { tr } from '../../core/locale/translate';
import { and, eq, isNull } from 'drizzle-orm';
import { RateLimiterPostgres } from 'rate-limiter-flexible';
import { fail, ok, type Result } from '../../core/foundation/result';
import { type ProblemDetails, problemDetails } from '../../formats/problem';
import type { SignedIn } from '../../application/views';
import { outranks } from '../../application/policy';
import { ROLES } from '../../core/foundation/vocabulary';
import type { Actor } from '../policy/actor';
import { auth } from './auth';
import { deviceCookie, knownDevice } from './known-device';
import { localeOf, type SessionRow, sessionRows, tokensIn } from './session-cookies';
import { currentLocale } from '../../core/locale/locale';
import { answerFor } from '../locale/reader';
import { serverDb } from '../db/connection';
import { attemptsOf, usernameFor } from './people';
import { checkPin } from './pin';
import { account, person } from '../db/schema';

/** Wrong tries before a person is locked, and for how long. */
const TRIES = 5;
const LOCK_s = 15 * 60;
/**
 * Of one address: somebody who goes through names. It slows them down; it does not shut out a workshop behind
 * one address for long, and devices on which somebody has signed in before not at all.
 */
const TRIES_OF_ADDRESS = 60;
const SLOWED_s = 60;

const kept = globalThis as { mudflatLimiters?: { person: RateLimiterPostgres; address: RateLimiterPostgres } };
function limiters() {
  const limiter = (points: number, keyPrefix: string, lock_s: number): RateLimiterPostgres =>
    new RateLimiterPostgres({
      storeClient: serverDb().pool,
      tableName: 'sign_in_attempt',
      tableCreated: true,
      keyPrefix,
      points,
      duration: lock_s,
      blockDuration: lock_s,
      clearExpiredByTimeout: false,
    });
  return (kept.mudflatLimiters ??= {
    person: limiter(TRIES, 'person', LOCK_s),
    address: limiter(TRIES_OF_ADDRESS, 'address', SLOWED_s),
  });
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
          message: tr`Too many wrong tries. Locked for ${Math.max(1, Math.ceil(ms / 60_000))} more minutes; a lead can set a new PIN.`,
        },
      ],
      429,
    ),
  );

/**
 * Has a PIN tried, within the limits of tries: of the name and of whoever asks. `attempt`: what comes of the
 * right PIN; `null` where it is wrong.
 */
export async function withinTries(
  headers: Headers,
  name: string,
  attempt: () => Promise<SignInOutcome | null>,
): Promise<SignInOutcome> {
  const limits = limiters();
  const device = knownDevice(headers);
  const key = attemptsOf(name, device);
  // The web server writes it, whatever the request says of itself.
  const address = device ?? headers.get('x-forwarded-for') ?? 'none';
  const [ofPerson, ofAddress] = await Promise.all([limits.person.get(key), limits.address.get(address)]);
  if (ofPerson && ofPerson.consumedPoints >= TRIES) return locked(ofPerson.msBeforeNext);
  if (ofAddress && ofAddress.consumedPoints >= TRIES_OF_ADDRESS) return locked(ofAddress.msBeforeNext);
  // Counted before it is checked: tries at the same moment cannot go past the limit.
  const counted = await limits.person.consume(key).catch((e: unknown) => e);
  if (counted instanceof Error) throw counted;
  const { consumedPoints, msBeforeNext } = counted as { consumedPoints: number; msBeforeNext: number };
  if (consumedPoints > TRIES) return locked(msBeforeNext);
  const outcome = await attempt();
  if (outcome) {
    await limits.person.delete(key);
    return outcome;
  }
  await limits.address.consume(address).catch(() => undefined);
  const left = TRIES - consumedPoints;
  if (left <= 0) return locked(LOCK_s * 1000);
  return fail(
    problemDetails(
      'Not signed in.',
      [{ path: '/pin', message: tr`Name and PIN do not go together. ${left} ${left === 1 ? 'try' : 'tries'} left.` }],
      401,
    ),
  );
}

/** Signs a person in on this device, beside those who are signed in there already. */
export const signIn = (headers: Headers, name: string, pin: string): Promise<SignInOutcome> =>
  withinTries(headers, name, async () => {
    const response = await auth(headers).api.signInUsername({
      body: { username: usernameFor(name), password: pin },
      headers,
      asResponse: true,
    });
    const [there] = await serverDb()
      .db.select({ name: person.name })
      .from(person)
      .where(and(eq(person.username, usernameFor(name)), isNull(person.retiredAt)));
    return response.ok && there
      ? ok({ name: there.name, cookies: [...response.headers.getSetCookie(), deviceCookie(headers)] })
      : null;
  });

/** Persons signed in on this device, and who of them is at the bench. */
export const signedIn = async (headers: Headers): Promise<SignedIn> => shownSessions(await sessionsOf(headers));

export const shownSessions = ({ active, onDevice }: DeviceSessions): SignedIn => ({
  name: active?.name ?? null,
  role: active?.role ?? null,
  depotId: active?.depotId ?? null,
  onDevice: onDevice.map((p) => p.name),
  locale: currentLocale(),
});

export interface DeviceSessions {
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

/** A session that was used this lately need not be prolonged. */
const PROLONGED_ms = 3600 * 1000;

/** The person at the bench of this device; `null` where nobody is signed in. */
export async function actorOf(headers: Headers): Promise<Actor | null> {
  const { active } = tokensIn(headers);
  const [row] = active === null ? [] : await sessionRows([active]);
  return row && isFresh(row) ? actorIn(row) : prolonged(headers);
}

/** Whoever is at the bench reads what is answered. */
function actorIn(row: SessionRow): Actor | null {
  answerFor(row.locale);
  return actorFrom(row.person);
}

const isFresh = (row: SessionRow): boolean => Date.now() - row.updatedAt.getTime() < PROLONGED_ms;

/** By the library, which also prolongs the session. */
async function prolonged(headers: Headers): Promise<Actor | null> {
  if (!headers.get('cookie')) return null;
  const found = await auth(headers).api.getSession({ headers });
  if (found) answerFor(await localeOf(found.user.id));
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

/** Everybody who is signed in on the device that asks. */
export async function sessionsOf(headers: Headers): Promise<DeviceSessions> {
  const tokens = tokensIn(headers);
  const rows = await sessionRows(new Set([...tokens.all, ...(tokens.active === null ? [] : [tokens.active])]));
  const own = rows.find((r) => r.token === tokens.active);
  const active = own && isFresh(own) ? actorIn(own) : await prolonged(headers);
  const onDevice = rows
    .filter((r) => tokens.all.has(r.token))
    .map((r) => ({ token: r.token, actor: actorFrom(r.person) }));
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

/** Whether somebody may do what another may not: by role, or in more depots. */
const mayMore = (to: Actor, than: Actor | null): boolean =>
  than !== null &&
  (outranks(to.role, than.role) || (to.depotId !== than.depotId && than.depotId !== null && to.role !== 'viewer'));

/**
 * Puts another person at the bench who is signed in on this device. Whoever may more than the one who stands
 * there types the PIN: a tablet goes through many hands.
 */
export async function switchPerson(headers: Headers, name: string, pin?: string): Promise<SignInOutcome> {
  const { active, onDevice } = await sessionsOf(headers);
  const to = onDevice.find((p) => usernameFor(p.name) === usernameFor(name));
  if (!to) return notHere('/name', tr`${name} is not signed in on this device: sign in with the PIN.`);
  if (!mayMore(to, active)) return setActive(headers, to);
  if (pin === undefined)
    return notHere(
      '/pin',
      tr`${to.name} may do more than ${active?.name ?? 'whoever was here'}: the PIN is asked for.`,
    );
  return withinTries(headers, to.name, async () => {
    const [kept] = await serverDb()
      .db.select({ password: account.password })
      .from(account)
      .where(and(eq(account.userId, to.id), eq(account.providerId, 'credential')));
    return kept?.password && (await checkPin(kept.password, pin)) ? setActive(headers, to) : null;
  });
}

async function setActive(headers: Headers, to: { name: string; token: string }): Promise<SignInOutcome> {
  const response = await auth(headers).api.setActiveSession({
    body: { sessionToken: to.token },
    headers,
    asResponse: true,
  });
  return response.ok
    ? ok({ name: to.name, cookies: response.headers.getSetCookie() })
    : notHere('/name', tr`The session of ${to.name} has ended: sign in with the PIN.`);
}

const notHere = (path: string, message: string): SignInOutcome =>
  fail(problemDetails('Not signed in here.', [{ path, message }], 401));

/** Signs the person at the bench out; another one of this device takes the place, if there is one. */
export async function signOut(headers: Headers): Promise<SignInOutcome> {
  const { active, onDevice } = await sessionsOf(headers);
  const own = onDevice.find((p) => p.id === active?.id);
  const response = own
    ? await auth(headers).api.revokeDeviceSession({ body: { sessionToken: own.token }, headers, asResponse: true })
    : await auth(headers).api.signOut({ headers, asResponse: true });
  const rest = onDevice.filter((p) => p.id !== active?.id);
  return ok({ name: rest[0]?.name ?? null, cookies: response.headers.getSetCookie() });
}

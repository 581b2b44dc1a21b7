import { createHmac, timingSafeEqual } from 'node:crypto';
import { and, eq, gt, inArray, sql } from 'drizzle-orm';
import type { Locale } from '../../core/locale/locale';
import { type Db, serverDb } from '../db/connection';
import { person, session } from '../db/schema';
import { isSecureRequest } from './known-device';

/**
 * Who is signed in, by the cookies of the sign-in library, in one question instead of its several: every
 * request asks it. A cookie is `token.signature`, the signature HMAC-SHA-256 of the token in base64, as the
 * library writes it. What does not look so is left to the library.
 */
export interface SessionRow {
  readonly token: string;
  readonly updatedAt: Date;
  readonly person: typeof person.$inferSelect;
  /** Their own choice, else the workshop's. */
  readonly locale: Locale | null;
}

const ACTIVE = '.session_token';
const OTHERS = '.session_token_multi-';

interface Tokens {
  /** At the bench. */
  readonly active: string | null;
  /** Of all who are signed in on the device. */
  readonly all: ReadonlySet<string>;
}

/** The tokens whose signature is ours. */
export function tokensIn(headers: Headers, secret = process.env.MUDFLAT_SECRET ?? ''): Tokens {
  const prefix = isSecureRequest(headers) ? '__Host-mudflat' : 'mudflat';
  let active: string | null = null;
  const all = new Set<string>();
  for (const pair of (headers.get('cookie') ?? '').split(';')) {
    const cut = pair.indexOf('=');
    const name = pair.slice(0, cut).trim();
    const isActive = name === `${prefix}${ACTIVE}`;
    if (cut < 0 || !(isActive || name.startsWith(`${prefix}${OTHERS}`))) continue;
    const token = tokenOf(pair.slice(cut + 1).trim(), secret);
    if (token === null) continue;
    if (isActive) active = token;
    else all.add(token);
  }
  return { active, all };
}

function tokenOf(value: string, secret: string): string | null {
  let plain: string;
  try {
    plain = decodeURIComponent(value);
  } catch {
    return null;
  }
  const cut = plain.lastIndexOf('.');
  if (cut <= 0) return null;
  const token = plain.slice(0, cut);
  const [own, theirs] = [
    createHmac('sha256', secret).update(token).digest(),
    Buffer.from(plain.slice(cut + 1), 'base64'),
  ];
  return own.length === theirs.length && timingSafeEqual(own, theirs) ? token : null;
}

/** A person's own choice, else the workshop's. */
const LOCALE = sql<Locale | null>`coalesce(${person.locale}, (select locale from installation limit 1))`;

/** The locale of a person. */
export async function localeOf(personId: string, db: Db = serverDb().db): Promise<Locale | null> {
  const [row] = await db.select({ locale: LOCALE }).from(person).where(eq(person.id, personId));
  return row?.locale ?? null;
}

/** The sessions of these tokens that have not run out, each with its person as the database has it now. */
export async function sessionRows(tokens: Iterable<string>): Promise<readonly SessionRow[]> {
  const wanted = [...tokens];
  if (wanted.length === 0) return [];
  return serverDb()
    .db.select({ token: session.token, updatedAt: session.updatedAt, person, locale: LOCALE })
    .from(session)
    .innerJoin(person, eq(person.id, session.userId))
    .where(and(inArray(session.token, wanted), gt(session.expiresAt, new Date())));
}

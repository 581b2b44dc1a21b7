import { tr } from '../../core/locale/translate';
import { and, asc, eq, isNull, ne, sql } from 'drizzle-orm';
import type { DepotLine } from '../../application/views';
import { ok, type Problem } from '../../core/foundation/result';
import type { AddDepot, ChangeDepot } from '../../formats/requests/fleet';
import type { Db } from '../db/connection';
import { databaseCode, type Done, notFound, refuse, UNIQUE_VIOLATION } from '../db/refusal';
import { depot, fleetUnit } from '../db/schema';
import { append } from '../journal/append';

/** Zones of the IANA database that this machine knows. */
function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

export const checkDepot = ({ timeZone }: { readonly timeZone: string }, path = ''): Problem[] =>
  isTimeZone(timeZone)
    ? []
    : [
        {
          path: `${path}/timeZone`,
          message: tr`There is no time zone "${timeZone}": choose one of the IANA database, such as Etc/UTC.`,
        },
      ];

const taken = (name: string): Done =>
  refuse('It is there already.', [{ path: '/name', message: tr`There is a depot "${name}" already.` }], 409);

/** A depot by its name: capitals and blanks make no difference. */
export const depotKey = (name: string): string => name.trim().replace(/\s+/g, ' ').toLowerCase();

/** Writes a depot, unless another one than `id` has a name that looks like this one. */
async function onceByName(db: Db, id: string, name: string | null, write: () => Promise<Done>): Promise<Done> {
  if (name !== null) {
    const others = await db.select({ name: depot.name }).from(depot).where(ne(depot.id, id));
    const same = others.find((d) => depotKey(d.name) === depotKey(name));
    if (same) return taken(same.name);
  }
  try {
    return await write();
  } catch (error) {
    if (databaseCode(error)?.code !== UNIQUE_VIOLATION) throw error;
    return taken(name ?? '');
  }
}

/** A depot with its zone and what it reckons in. The same id twice is the same depot. */
export async function addDepot(db: Db, d: AddDepot): Promise<Done> {
  const problems = checkDepot(d);
  if (problems.length) return refuse('Some fields are wrong.', problems);
  const name = d.name.trim();
  const { id, timeZone, currency } = d;
  const choices = { schools: {}, decision: 'three-way' as const, ...(currency ? { currency } : {}) };
  return onceByName(db, id, name, () => append(db, depot, { id, name, timeZone, choices }));
}

/** Changes what is given. A depot with units that are in use is not retired. */
export async function changeDepot(db: Db, id: string, c: ChangeDepot): Promise<Done> {
  const problems = c.timeZone === undefined ? [] : checkDepot({ timeZone: c.timeZone });
  if (problems.length) return refuse('Some fields are wrong.', problems);
  if (c.retired) {
    const used = await unitsInUse(db, id);
    if (used > 0)
      return refuse(
        'It is in use.',
        [
          {
            path: '/retired',
            message: tr`${used} ${used === 1 ? 'unit stands' : 'units stand'} there: move or retire them first.`,
          },
        ],
        409,
      );
    const others = await db
      .select({ id: depot.id })
      .from(depot)
      .where(and(ne(depot.id, id), isNull(depot.retiredAt)));
    if (others.length === 0)
      return refuse('The last depot stays.', [{ path: '/retired', message: 'Add another depot first.' }], 409);
  }
  return onceByName(db, id, c.name?.trim() ?? null, async () => {
    const [done] = await db
      .update(depot)
      .set({
        ...(c.name === undefined ? {} : { name: c.name.trim() }),
        ...(c.timeZone === undefined ? {} : { timeZone: c.timeZone }),
        ...(c.retired === undefined ? {} : { retiredAt: c.retired ? new Date() : null }),
        ...(c.currency === undefined
          ? {}
          : { choices: sql`${depot.choices} || jsonb_build_object('currency', ${c.currency}::text)` }),
      })
      .where(eq(depot.id, id))
      .returning({ id: depot.id });
    return done ? ok({ id, duplicate: false }) : notFound('depot');
  });
}

async function unitsInUse(db: Db, depotId: string): Promise<number> {
  const [row] = await db
    .select({ n: sql<number>`count(*)::int` })
    .from(fleetUnit)
    .where(and(eq(fleetUnit.depotId, depotId), isNull(fleetUnit.retiredAt)));
  return row?.n ?? 0;
}

/** All depots with how many units stand there, for the workshop's own screen. */
export const listDepots = (db: Db): Promise<DepotLine[]> =>
  db
    .select({
      id: depot.id,
      name: depot.name,
      timeZone: depot.timeZone,
      currency: sql<string | null>`${depot.choices}->>'currency'`,
      retired: sql<boolean>`${depot.retiredAt} is not null`,
      units: sql<number>`(select count(*)::int from unit u where u.depot_id = "depot".id and u.retired_at is null)`,
    })
    .from(depot)
    .orderBy(asc(depot.name));

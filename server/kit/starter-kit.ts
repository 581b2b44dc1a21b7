import { tr } from '../../core/locale/translate';
import { isNull } from 'drizzle-orm';
import { v5 } from 'uuid';
import type { KitPlan } from '../../application/views';
import type { Connector } from '../../core/engine/connector';
import { fail, ok, type Result } from '../../core/foundation/result';
import { canonical } from '../../formats/canonical';
import { type ProblemDetails, problemsAt } from '../../formats/problem';
import type { FittingValue, ServiceBody } from '../../formats/requests/service-data';
import type { StarterKit } from '../../formats/starter-kit';
import { keepCircuit, ownCircuits } from '../catalogue/circuits';
import { importCatalogue, ownTests } from '../catalogue/tests';
import { type Db, within } from '../db/connection';
import { allOrNothing, LOOK } from '../db/all-or-nothing';
import { refuse } from '../db/refusal';
import { engineFamily } from '../db/schema';
import { addEngineFamily } from '../fleet/fleet';
import type { Actor } from '../policy/actor';
import { keepServiceData } from '../repair/repair-log';
import { viewServiceData } from '../repair/service-data';
import { importSpecifications } from '../specifications/import-specifications';
import { currentEntries } from '../specifications/specifications';

/**
 * What this workshop knows and can pass on. Limits of its depots stay with it: another one has other depots.
 */
export async function starterKit(db: Db): Promise<StarterKit> {
  const families = await db
    .select({ code: engineFamily.code, engine: engineFamily.engine })
    .from(engineFamily)
    .where(isNull(engineFamily.retiredAt))
    .orderBy(engineFamily.code);
  const { lines } = await viewServiceData(db);
  return {
    format: 'mudflat/starter-kit',
    version: 1,
    families,
    tests: await ownTests(db),
    circuits: await ownCircuits(db),
    limits: (await currentEntries(db)).filter((e) => e.scope !== 'depot'),
    fittingValues: lines.flatMap(({ kind, family, key, body, source }) =>
      kind === 'fitting' ? [{ family, key, value: (body as FittingValue).value, source }] : [],
    ),
    connectors: lines.flatMap(({ kind, family, key, body, source }) =>
      kind === 'connector' && (body as Connector).pins.length ? [{ family, key, body: body as Connector, source }] : [],
    ),
  };
}

type Row = KitPlan['rows'][number];
type Part = Result<readonly Row[], ProblemDetails>;

/**
 * Takes a kit in, all or nothing. Without `batch` it is done and undone again: what it would do is what it
 * does. Approved limits come as drafts: whoever passes them on cannot approve them here. Rules of thumb stay
 * what they are.
 */
export async function importKit(
  db: Db,
  kit: StarterKit,
  batch: string | null,
  actor: Actor,
): Promise<Result<KitPlan, ProblemDetails>> {
  return allOrNothing(
    db,
    async (tx) => {
      const rows: Row[] = [];
      const store = { batch: batch ?? LOOK, by: actor.name, actor };
      for (const take of [takeFamilies, takeTests, takeCircuits, takeLimits, takeFittingValues, takeConnectors]) {
        const part = await take(within(tx), kit, store);
        if (!part.ok) return part;
        rows.push(...part.value);
      }
      return ok({ rows, stored: batch === null ? 0 : rows.filter((r) => r.action !== 'unchanged').length });
    },
    { onlyLook: batch === null },
  );
}

interface Store {
  readonly batch: string;
  readonly by: string;
  readonly actor: Actor;
}
async function takeFamilies(db: Db, { families }: StarterKit, { batch }: Store): Promise<Part> {
  const there = new Map(
    (await db.select({ code: engineFamily.code, engine: engineFamily.engine }).from(engineFamily)).map((f) => [
      f.code.toLowerCase(),
      f.engine,
    ]),
  );
  const rows: Row[] = [];
  for (const [i, { code, engine }] of families.entries()) {
    const own = there.get(code.toLowerCase());
    const what = tr`engine family ${code}`;
    if (own === undefined) {
      const done = await addEngineFamily(db, { id: v5(`family ${code}`, batch), code, engine });
      if (!done.ok) return fail(problemsAt(`/families/${i}`, done.error));
      rows.push({ what, action: 'new' });
    } else if (canonical(own) === canonical(engine)) rows.push({ what, action: 'unchanged' });
    else
      return refuse('This kit cannot be taken.', [
        { path: `/families/${i}/engine`, message: tr`There is another engine under the name "${code}" here already.` },
      ]);
  }
  return ok(rows);
}

async function takeTests(db: Db, { tests }: StarterKit, store: Store): Promise<Part> {
  if (tests.length === 0) return ok([]);
  const done = await importCatalogue(db, tests, store);
  if (!done.ok) return done;
  return ok(done.value.rows.map((r): Row => ({ what: tr`test ${r.name}`, action: plain(r.action) })));
}

async function takeCircuits(db: Db, { circuits }: StarterKit, { batch, by }: Store): Promise<Part> {
  const own = new Map((await ownCircuits(db)).map((c) => [c.id, canonical(c)]));
  const rows: Row[] = [];
  for (const [i, circuit] of circuits.entries()) {
    const before = own.get(circuit.id);
    const done = await keepCircuit(db, {
      id: v5(`circuit ${circuit.id}`, batch),
      by,
      circuitId: circuit.id,
      circuit,
    });
    if (!done.ok) return fail(problemsAt(`/circuits/${i}`, done.error));
    const action = before === undefined ? 'new' : before === canonical(circuit) ? 'unchanged' : 'change';
    rows.push({ what: tr`circuit ${circuit.name}`, action });
  }
  return ok(rows);
}

async function takeLimits(db: Db, { limits }: StarterKit, { batch, actor }: Store): Promise<Part> {
  const drafts = limits.map((l) => ({ ...l, status: l.status === 'rule-of-thumb' ? l.status : ('draft' as const) }));
  const done = await importSpecifications(db, drafts, { batch, actor });
  if (!done.ok) return done;
  return ok(
    done.value.rows.map(({ entry, action }): Row => ({
      what: tr`limits of ${entry.test}${entry.of ? `, ${entry.of}` : ''}`,
      action: plain(action),
    })),
  );
}

const takeFittingValues = (db: Db, { fittingValues }: StarterKit, store: Store): Promise<Part> =>
  takeServiceData(
    db,
    fittingValues.map((f) => ({ ...f, kind: 'fitting', body: { value: f.value }, what: `${f.key}: ${f.value}` })),
    '/fittingValues',
    store,
  );

const takeConnectors = (db: Db, { connectors }: StarterKit, store: Store): Promise<Part> =>
  takeServiceData(
    db,
    connectors.map((c) => ({ ...c, kind: 'connector', what: tr`connector ${c.body.name}` })),
    '/connectors',
    store,
  );

interface ServiceEntry {
  readonly kind: 'fitting' | 'connector';
  readonly family: string | null;
  readonly key: string;
  readonly body: ServiceBody;
  readonly source: string;
  readonly what: string;
}

async function takeServiceData(
  db: Db,
  entries: readonly ServiceEntry[],
  place: string,
  { batch, by }: Store,
): Promise<Part> {
  const { lines } = await viewServiceData(db);
  const rows: Row[] = [];
  for (const [i, { kind, family, key, body, source, what }] of entries.entries()) {
    const now = lines.find((l) => l.kind === kind && l.key === key && l.family === family);
    const isSame = now !== undefined && canonical([now.body, now.source]) === canonical([body, source]);
    rows.push({ what: tr`${what}, ${family ?? 'any engine'}`, action: isSame ? 'unchanged' : now ? 'change' : 'new' });
    if (isSame) continue;
    const id = v5(`${kind} ${family ?? ''} ${key}`, batch);
    const done = await keepServiceData(db, { id, by, family, kind, key, body, source });
    if (!done.ok) return fail(problemsAt(`${place}/${i}`, done.error));
  }
  return ok(rows);
}

const plain = (action: string): Row['action'] => (action === 'new' || action === 'unchanged' ? action : 'change');

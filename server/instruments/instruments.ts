import { tr } from '../../core/locale/translate';
import { and, asc, desc, eq, isNull, or } from 'drizzle-orm';
import { ok } from '../../core/foundation/result';
import { checkLink } from '../../formats/meter-link';
import { readInstrument, readLeadZero } from '../../formats/instrument';
import type { DepotInstrumentsView, InstrumentView, TestLeadView } from '../../application/views';
import { type Db, eachOf, type Tx } from '../db/connection';
import { type Done, notFound, refuse } from '../db/refusal';
import { depot, instrument, testLead } from '../db/schema';
import { alreadyThere, append } from '../journal/append';
import type { AddInstrument, MeasureTestLeads } from '../../formats/requests/instruments';

/** What of a row is shown. Moments may be text: only whether there is one counts. */
type ShownInstrument = Pick<
  typeof instrument.$inferSelect,
  'id' | 'name' | 'kind' | 'accuracy' | 'calibrationDue' | 'details' | 'replacedBy'
> & { readonly retiredAt: Date | string | null };

export const instrumentView = (i: ShownInstrument): InstrumentView => ({
  id: i.id,
  name: i.name,
  kind: i.kind,
  accuracy: i.accuracy,
  calibrationDue: i.calibrationDue,
  retired: i.retiredAt !== null || i.replacedBy !== null,
  ...(i.details.clamp_mVperA === undefined ? {} : { clamp_mVperA: i.details.clamp_mVperA }),
  ...(i.details.leadRepeatability_ohm === undefined ? {} : { leadRepeatability_ohm: i.details.leadRepeatability_ohm }),
  ...(i.details.link === undefined ? {} : { link: i.details.link }),
});

/** Adds an instrument, or says one that is there better: what was read with the old row keeps the old row. */
export async function addInstrument(db: Db, i: AddInstrument): Promise<Done> {
  const valid = readInstrument(i.instrument);
  if (!valid.ok) return refuse('This instrument cannot be used.', valid.error);
  const wrong = i.link ? checkLink(i.link) : [];
  if (wrong.length) return refuse('This instrument cannot be reached so.', wrong);
  const { clamp_mVperA, leadRepeatability_ohm } = i.instrument;
  return db.transaction(async (tx) => {
    const row = {
      id: i.id,
      depotId: i.depotId,
      name: i.name.trim(),
      kind: i.instrument.kind,
      accuracy: [...(i.instrument.accuracy ?? [])],
      calibrationDue: i.calibrationDue ?? null,
      details: {
        ...(clamp_mVperA === undefined ? {} : { clamp_mVperA }),
        ...(leadRepeatability_ohm === undefined ? {} : { leadRepeatability_ohm }),
        ...(i.link ? { link: i.link } : {}),
      },
    };
    const before = await alreadyThere(tx, instrument, row);
    if (before) return before;
    // Two at once would not see each other's name.
    const [place] = await tx.select({ id: depot.id }).from(depot).where(eq(depot.id, i.depotId)).for('no key update');
    if (!place) return notFound('depot', '/depotId');
    const inUse = await tx
      .select({ id: instrument.id, name: instrument.name })
      .from(instrument)
      .where(
        and(
          eq(instrument.depotId, i.depotId),
          or(eq(instrument.name, row.name), i.replaces ? eq(instrument.id, i.replaces) : undefined),
          isNull(instrument.replacedBy),
          isNull(instrument.retiredAt),
        ),
      );
    if (i.replaces && !inUse.some((x) => x.id === i.replaces))
      return refuse(
        'Somebody was here before.',
        [{ path: '/replaces', message: 'This instrument was changed or taken out of use since.' }],
        409,
      );
    if (inUse.some((x) => x.name === row.name && x.id !== i.replaces))
      return refuse(
        'It is there already.',
        [{ path: '/name', message: tr`There is an instrument "${row.name}" already.` }],
        409,
      );
    const done = await append(tx, instrument, row);
    if (i.replaces) await tx.update(instrument).set({ replacedBy: i.id }).where(eq(instrument.id, i.replaces));
    return done;
  });
}

/** An instrument that is in use; `null`: there is none. */
export async function findInstrument(db: Db, id: string): Promise<InstrumentView | null> {
  const [row] = await db.select().from(instrument).where(eq(instrument.id, id));
  const view = row && instrumentView(row);
  return view && !view.retired ? view : null;
}

/** Takes an instrument out of use; what was read with it keeps it. */
export async function retireInstrument(db: Db, id: string): Promise<Done> {
  const done = await db
    .update(instrument)
    .set({ retiredAt: new Date() })
    .where(and(eq(instrument.id, id), isNull(instrument.retiredAt)))
    .returning({ id: instrument.id });
  const [there] = done.length
    ? done
    : await db.select({ id: instrument.id }).from(instrument).where(eq(instrument.id, id));
  return there ? ok({ id, duplicate: done.length === 0 }) : notFound('instrument');
}

/** Notes what leads or an extension show touched together; an empty zero takes them off the list. */
export async function measureTestLeads(db: Db, l: MeasureTestLeads): Promise<Done> {
  const zero = readLeadZero(l.zero ?? '');
  if (!zero.ok) return refuse('The zero cannot be read.', [{ path: '/zero', message: zero.error }]);
  const [place] = await db.select({ id: depot.id }).from(depot).where(eq(depot.id, l.depotId));
  if (!place) return notFound('depot', '/depotId');
  const row = {
    id: l.id,
    depotId: l.depotId,
    name: l.name.trim(),
    zero: zero.value === null ? null : (l.zero ?? '').trim(),
    measuredBy: l.by,
  };
  const inserted = await db
    .insert(testLead)
    .values(row)
    .onConflictDoNothing({ target: testLead.id })
    .returning({ id: testLead.id });
  return ok({ id: l.id, duplicate: inserted.length === 0 });
}

/** Leads and extensions of a depot by their newest measurement. */
export async function testLeadsOf(db: Db | Tx, depotId: string): Promise<TestLeadView[]> {
  const rows = await db
    .selectDistinctOn([testLead.name])
    .from(testLead)
    .where(eq(testLead.depotId, depotId))
    .orderBy(testLead.name, desc(testLead.sequence));
  return rows.flatMap((r) =>
    r.zero === null ? [] : [{ name: r.name, zero: r.zero, measuredAt: r.createdAt.toISOString() }],
  );
}

/** What each depot measures with. */
export async function viewInstruments(db: Db): Promise<DepotInstrumentsView[]> {
  const depots = await db.select().from(depot).orderBy(asc(depot.name));
  const rows = await db.select().from(instrument).orderBy(asc(instrument.name));
  return eachOf(db, depots, async (d, at) => ({
    id: d.id,
    name: d.name,
    timeZone: d.timeZone,
    testLeads: await testLeadsOf(at, d.id),
    instruments: rows
      .filter((i) => i.depotId === d.id)
      .map(instrumentView)
      .filter((i) => !i.retired),
  }));
}

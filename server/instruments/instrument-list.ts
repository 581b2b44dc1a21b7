import { tr } from '../../core/locale/translate';
import { and, asc, eq, isNull } from 'drizzle-orm';
import { v5 } from 'uuid';
import type { InstrumentsPlan } from '../../application/views';
import { fail, type Problem, type Result } from '../../core/foundation/result';
import { canonical } from '../../formats/canonical';
import { type InstrumentEntry, instrumentKey } from '../../formats/instruments-csv';
import { namedInTable } from '../../formats/table-values';
import { type ProblemDetails, problemDetails } from '../../formats/problem';
import { LOOK } from '../db/all-or-nothing';
import { type Db, within } from '../db/connection';
import { depot, instrument } from '../db/schema';
import { takeList } from '../db/take-list';
import type { Actor } from '../policy/actor';
import { addInstrument } from './instruments';

/** Instruments in use, as a list says them. */
export async function listInstruments(db: Db): Promise<(Omit<InstrumentEntry, 'line'> & InUse)[]> {
  const rows = await db
    .select({ instrument, depot: depot.name })
    .from(instrument)
    .innerJoin(depot, eq(depot.id, instrument.depotId))
    .where(and(isNull(instrument.replacedBy), isNull(instrument.retiredAt)))
    .orderBy(asc(depot.name), asc(instrument.name));
  return rows.map(({ instrument: i, depot: place }) => ({
    id: i.id,
    link: i.details.link,
    depot: place,
    name: i.name,
    kind: i.kind,
    calibrationDue: i.calibrationDue,
    clamp_mVperA: i.details.clamp_mVperA ?? null,
    leadRepeatability_ohm: i.details.leadRepeatability_ohm ?? null,
    accuracy: i.accuracy,
  }));
}
/** What no list says of an instrument. */
interface InUse {
  readonly id: string;
  readonly link: (typeof instrument.$inferSelect)['details']['link'];
}

/**
 * Instruments of a list. Without `batch`: what it would do. With it: does it, all or nothing. One that is
 * there under its name is changed to what the list says; what was read with it before keeps what it was.
 * Problems stand at the line.
 */
export async function importInstruments(
  db: Db,
  entries: readonly InstrumentEntry[],
  actor: Actor,
  batch: string | null,
): Promise<Result<InstrumentsPlan, ProblemDetails>> {
  const [depots, inUse] = await Promise.all([
    db.select({ id: depot.id, name: depot.name }).from(depot),
    listInstruments(db),
  ]);
  const there = new Map(inUse.map((i) => [instrumentKey(i), i]));
  const problems: Problem[] = [];
  const rows = entries.flatMap((entry) => {
    const path = `/line ${entry.line}/depot`;
    const place = namedInTable(depots, (d) => d.name, entry.depot);
    if (!place) {
      problems.push({ path, message: tr`There is no depot "${entry.depot}". Add it first.` });
      return [];
    }
    const before = there.get(instrumentKey({ ...entry, depot: place.name }));
    const action = !before ? 'new' : saysTheSame(before, entry) ? 'unchanged' : 'change';
    if (action !== 'unchanged' && actor.depotId !== null && actor.depotId !== place.id)
      problems.push({ path, message: tr`Instruments of ${place.name} are changed by a lead of that depot.` });
    return [{ entry, place, before, action } as const];
  });
  if (problems.length) return fail(problemDetails('This list cannot be taken.', problems));
  const plan = rows.map(({ entry, place, action }) => ({
    depot: place.name,
    name: entry.name,
    kind: entry.kind,
    action,
  }));
  return takeList(db, {
    rows,
    plan,
    take: (tx, { entry, place, before }) => {
      const { clamp_mVperA, leadRepeatability_ohm } = entry;
      return addInstrument(within(tx), {
        id: v5(instrumentKey(entry), batch ?? LOOK),
        by: actor.name,
        depotId: place.id,
        name: entry.name,
        calibrationDue: entry.calibrationDue,
        instrument: {
          kind: entry.kind,
          accuracy: [...entry.accuracy],
          ...(clamp_mVperA === null ? {} : { clamp_mVperA }),
          ...(leadRepeatability_ohm === null ? {} : { leadRepeatability_ohm }),
        },
        ...(before ? { replaces: before.id } : {}),
        ...(before?.link ? { link: before.link } : {}),
      });
    },
    columnOf: (path) => COLUMNS.find(([field]) => path.startsWith(field))?.[1] ?? '/name',
    onlyLook: batch === null,
  });
}

/** The column of a field, and of what is inside of it. */
const COLUMNS: readonly (readonly [field: string, column: string])[] = [
  ['/depotId', '/depot'],
  ['/calibrationDue', '/calibration_due'],
  ['/instrument/clamp_mVperA', '/clamp_mv_per_a'],
  ['/instrument/leadRepeatability_ohm', '/lead_repeatability_ohm'],
  ['/instrument/accuracy', '/quantity'],
  ['/instrument', '/kind'],
];

const saysTheSame = (a: Omit<InstrumentEntry, 'line'>, b: Omit<InstrumentEntry, 'line'>): boolean =>
  said(a) === said(b);
const said = (i: Omit<InstrumentEntry, 'line'>): string =>
  canonical([i.kind, i.calibrationDue, i.clamp_mVperA, i.leadRepeatability_ohm, i.accuracy]);

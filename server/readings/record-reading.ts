import { tr } from '../../core/locale/translate';
import { eq } from 'drizzle-orm';
import { positionsOf } from '../../core/catalogue/positions';
import { readEntry } from '../../core/limits/entry';
import { fail, ok, type Result } from '../../core/foundation/result';
import type { Judgement } from '../../core/judge/types';
import { CORE_VERSION } from '../../core/foundation/version';
import { readClampZero, readLeadZero } from '../../formats/instrument';
import { type ProblemDetails, problemsAt } from '../../formats/problem';
import { forReader, judgeForRecord } from '../../application/judging/judge-run';
import { type ReadingView } from '../../application/views';
import { allOrNothing } from '../db/all-or-nothing';
import type { Db, Tx } from '../db/connection';
import { databaseCode, notFound, refuse } from '../db/refusal';
import { append, refuseTaken } from '../journal/append';
import { madeAt } from '../journal/made-at';
import { noteOtherVersion } from './judge-again';
import {
  judgementOf,
  loadRun,
  readingView,
  runInputs,
  type RunRecord,
  situationOf,
  specificationView,
} from './run-view';
import { circumstance, reading, testRun } from '../db/schema';
import { mendedBetween } from './mended';
import { chooseFor, specificationById } from '../specifications/specifications';
import { countingReadings, currentReadings } from '../../application/judging/corrections';
import { clockProblem } from './clock';
import type { RecordCircumstance, RecordReading } from '../../formats/requests/runs';

/** What the bench gets back for a write. */
export interface Recorded {
  readonly duplicate: boolean;
  readonly judgement: Judgement;
  readonly reading: ReadingView | null;
}
type Outcome = Result<Recorded, ProblemDetails>;

/** Appends a reading, judges the set again and keeps the verdict. The same id twice stores it once. */
export const recordReading = (db: Db, runId: string, body: RecordReading): Promise<Outcome> =>
  refuseTakenId(() => db.transaction((tx) => recordIn(tx, runId, body)));

/**
 * The id of a reading of another run fails at the primary key: no query of its own for what never happens.
 */
async function refuseTakenId(record: () => Promise<Outcome>): Promise<Outcome> {
  try {
    return await record();
  } catch (error) {
    if (databaseCode(error)?.constraint !== 'reading_pkey') throw error;
    return refuseTaken(reading);
  }
}

/**
 * Several readings in one transaction: all of them are stored or none. Errors carry the index:
 * `/readings/3/entry`.
 */
export const recordReadings = (db: Db, runId: string, bodies: readonly RecordReading[]): Promise<Outcome> =>
  refuseTakenId(() =>
    allOrNothing(db, async (tx) => {
      let last: Outcome = notFound('reading');
      for (const [i, body] of bodies.entries()) {
        last = await recordIn(tx, runId, body);
        if (!last.ok) return fail(problemsAt(`/readings/${i}`, last.error));
      }
      return last;
    }),
  );

async function recordIn(tx: Tx, runId: string, body: RecordReading): Promise<Outcome> {
  const record = await loadRun(tx, runId, true);
  if (!record) return notFound('test run');
  const same = record.readings.find((r) => r.id === body.id);
  if (same) return repeated(record, same, body);
  const clock = clockProblem(body.takenAt, '/takenAt');
  if (clock) return refuse('When was this?', [clock]);
  const clash = checkPlace(record, body) ?? (await checkRepair(tx, record, body));
  if (clash) return clash;
  const judged = judgeWith(record, body);
  if (!judged.ok) return judged;
  await noteOtherVersion(tx, record, body.by.trim());
  const own = judged.value.readings.find((r) => r.position === body.position);
  if (!own) throw new Error(`the judgement of run ${runId} lost position ${body.position}`);
  const row = {
    id: body.id,
    runId,
    position: String(body.position),
    isCylinder: typeof body.position === 'number',
    entry: body.entry,
    supersedes: body.supersedes ?? null,
    why: body.why ?? null,
    takenBy: body.by.trim(),
    takenAt: new Date(body.takenAt),
    instrumentId: record.circumstance.instrumentId,
    leadZero: record.circumstance.leadZero,
    judged: own,
    coreVersion: CORE_VERSION,
    specificationId: record.specification.id,
    ...(madeAt() ? { createdAt: madeAt() } : {}),
  };
  // The reading and the verdict of its set in one statement.
  const written = tx.$with('written').as(tx.insert(reading).values(row).returning({ id: reading.id }));
  await tx.with(written).update(testRun).set({ judgement: judged.value }).where(eq(testRun.id, runId));
  return ok({ duplicate: false, judgement: forReader(judged.value, record.definition), reading: readingView(row) });
}

function repeated(record: RunRecord, stored: ReadingView, body: RecordReading): Outcome {
  if (stored.entry !== body.entry || stored.position !== body.position) {
    return refuse(
      'This id is taken.',
      [{ path: '/id', message: tr`The reading with this id is "${stored.entry}" at ${stored.position}.` }],
      409,
    );
  }
  return ok({ duplicate: true, judgement: judgementOf(record), reading: stored });
}

/**
 * What was read before a repair is the before-value of its proof: it is not overwritten by what is read after
 * it. A slip of before that was typed later stays a matter of a new run too.
 */
async function checkRepair(
  tx: Tx,
  { job, readings, definition }: RunRecord,
  body: RecordReading,
): Promise<Outcome | null> {
  const old = readings.find((r) => r.id === body.supersedes);
  if (!old) return null;
  const mended = await mendedBetween(tx, job.id, new Date(old.takenAt), new Date(body.takenAt));
  return mended
    ? refuse(
        'Something was mended since.',
        [
          {
            path: '/supersedes',
            message: tr`${old.entry} was read before the repair and stays. Begin a new run of “${definition.name}”: before and after stand together.`,
          },
        ],
        409,
      )
    : null;
}

/**
 * A first reading goes to a free position, a correction to the reading that counts now. Neither overwrites a
 * colleague.
 */
function checkPlace(record: RunRecord, body: RecordReading): Outcome | null {
  const now = currentReadings(record.readings).find((r) => r.position === body.position);
  const supersedes = body.supersedes ?? null;
  if (supersedes === (now?.id ?? null)) return null;
  if (now && supersedes === null) {
    return refuse(
      'This position is read already.',
      [
        {
          path: '/supersedes',
          message: tr`${now.takenBy} read ${now.entry} at ${now.position}; send yours as a correction of it.`,
        },
      ],
      409,
    );
  }
  const message = now
    ? tr`The reading that counts at ${now.position} is now ${now.entry} by ${now.takenBy}.`
    : 'There is no reading at this position to correct.';
  return refuse('This correction is out of date.', [{ path: '/supersedes', message }], 409);
}

function judgeWith(record: RunRecord, body: RecordReading): Result<Judgement, ProblemDetails> {
  const inputs = runInputs(record);
  const meter = record.instruments.find((i) => i.id === record.circumstance.instrumentId);
  const read = readEntry(body.entry, inputs.limits, meter?.clamp_mVperA ?? null);
  if (!read.ok) return refuse('This entry cannot be read.', [{ path: '/entry', message: read.error }]);
  if (read.value.entry.kind === 'nothing')
    return refuse('This entry is empty.', [{ path: '/entry', message: 'A reading needs an entry.' }]);
  const positions = positionsOf(record.definition, record.unit.engine);
  if (!positions.includes(body.position)) {
    return refuse('No such position.', [
      {
        path: '/position',
        message: tr`There is no position ${body.position} here; there are ${positions.join(', ')}.`,
      },
    ]);
  }
  const { id, position, entry, supersedes = null, why = null } = body;
  const readings = countingReadings([
    ...record.readings,
    { id, position, entry, supersedes, why, instrumentId: record.circumstance.instrumentId },
  ]);
  const judged = judgeForRecord({ ...inputs, readings });
  return judged.ok ? judged : refuse('This run cannot be judged.', judged.error);
}

interface Limited {
  readonly record: RunRecord;
  readonly change: { readonly specificationId?: string; readonly because?: string };
}

/**
 * Limits can hold for a range of temperature only: when the temperature is stated, others may judge. Nothing
 * changes where a lead has put the run onto limits that would not have been chosen.
 */
async function withLimitsFor(tx: Tx, next: RunRecord, before: RunRecord): Promise<Limited> {
  if (next.circumstance.condition.partTemperature_degC === before.circumstance.condition.partTemperature_degC)
    return { record: next, change: {} };
  const [was, becomes] = [
    await chooseFor(tx, before.definition, situationOf(before)),
    await chooseFor(tx, next.definition, situationOf(next)),
  ];
  if (was.id === becomes.id || was.id !== before.specification.id) return { record: next, change: {} };
  const row = await specificationById(tx, becomes.id);
  if (!row) throw new Error(`specification ${becomes.id} was chosen and is not there`);
  return {
    record: { ...next, specification: specificationView(row) },
    change: { specificationId: becomes.id, because: becomes.because },
  };
}

/**
 * Appends what is true now (states, lead zero, meter, temperature) and judges what was read again with it.
 */
export async function recordCircumstance(db: Db, runId: string, body: RecordCircumstance): Promise<Outcome> {
  return db.transaction(async (tx) => {
    const record = await loadRun(tx, runId, true);
    if (!record) return notFound('test run');
    const clock = clockProblem(body.recordedAt, '/recordedAt');
    if (clock) return refuse('When was this?', [clock]);
    const next = {
      instrumentId: body.instrumentId ?? null,
      leadZero: body.leadZero?.trim() ? body.leadZero.trim() : null,
      states: body.states,
      condition: body.condition,
    };
    const clamp = record.instruments.find((i) => i.id === next.instrumentId)?.clamp_mVperA ?? null;
    const zero =
      record.definition.quantity === 'current'
        ? readClampZero(next.leadZero ?? '', clamp)
        : readLeadZero(next.leadZero ?? '');
    if (!zero.ok) return refuse('The zero cannot be read.', [{ path: '/leadZero', message: zero.error }]);
    if (next.instrumentId !== null && !record.instruments.some((i) => i.id === next.instrumentId))
      return notFound('instrument', '/instrumentId');
    const zeros =
      next.instrumentId === null
        ? record.circumstance.zeros
        : { ...record.circumstance.zeros, [next.instrumentId]: next.leadZero };
    const now = await withLimitsFor(tx, { ...record, circumstance: { ...next, zeros } }, record);
    const judged = judgeForRecord(runInputs(now.record));
    if (!judged.ok) return refuse('This run cannot be judged.', judged.error);
    const done = await append(tx, circumstance, {
      ...next,
      id: body.id,
      runId,
      recordedBy: body.by.trim(),
      recordedAt: new Date(body.recordedAt),
    });
    if (!done.ok) return done;
    if (!done.value.duplicate) await noteOtherVersion(tx, record, body.by.trim());
    if (!done.value.duplicate)
      await tx
        .update(testRun)
        .set({ judgement: judged.value, ...now.change })
        .where(eq(testRun.id, runId));
    return ok({
      duplicate: done.value.duplicate,
      judgement: forReader(judged.value, record.definition),
      reading: null,
    });
  });
}

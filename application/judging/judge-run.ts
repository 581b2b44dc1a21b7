import { STATES } from '../../core/catalogue/shared';
import { positionsInUse } from '../../core/catalogue/positions';
import type { TestDefinition } from '../../core/catalogue/types';
import type { Engine } from '../../core/engine/layout';
import { judgeSet, sayAgain } from '../../core/judge/set';
import { asFor, currentLocale, localeKey, PLAIN } from '../../core/locale/locale';
import type { Judgement, Limits, ReadingIn, TestSet } from '../../core/judge/types';
import type { DecisionRule } from '../../core/metrology/conformity';
import type { Instrument } from '../../core/metrology/instrument';
import { ok, type Result } from '../../core/foundation/result';
import { readInstrument } from '../../formats/instrument';
import type { CircumstanceView, InstrumentView } from '../views';
import type { CountingReading } from './corrections';

/** What a test run is judged with: the same on the bench, on the server and in a file. */
export interface RunInputs {
  readonly definition: TestDefinition;
  readonly engine: Engine;
  readonly limits: Limits;
  readonly decision: DecisionRule;
  readonly circumstance: CircumstanceView;
  readonly instruments: readonly InstrumentView[];
  readonly readings: readonly CountingReading[];
}

/** An instrument of a run with its zero, which is that of its leads or that of its clamp. */
function instrumentWith(chosen: InstrumentView | undefined, zero: string | null, limits: Limits): Result<Instrument> {
  if (!chosen && zero === null)
    return ok({ kind: 'unknown', leadZero_ohm: null, leadZeroResolution_ohm: 0, accuracy: [] });
  const { name, kind = 'unknown', accuracy = [], clamp_mVperA, leadRepeatability_ohm } = chosen ?? {};
  return readInstrument({
    kind,
    ...(name === undefined ? {} : { name }),
    accuracy,
    clamp_mVperA,
    leadRepeatability_ohm,
    ...(limits.quantity === 'current' ? { clampZero: zero } : { leadZero: zero }),
  });
}

/** The meter of a run with the zero of its circumstance. */
export const meterOf = ({
  circumstance,
  instruments,
  limits,
}: Pick<RunInputs, 'circumstance' | 'instruments' | 'limits'>): Result<Instrument> =>
  instrumentWith(
    instruments.find((i) => i.id === circumstance.instrumentId),
    circumstance.leadZero,
    limits,
  );

/** A reading with the meter that it was taken with, where that is not the one in use now. */
function readingOf(r: CountingReading, inputs: RunInputs): Result<ReadingIn> {
  const { circumstance, instruments, limits } = inputs;
  const plain = { position: r.position, entry: r.entry, ...(r.earlier.length ? { earlier: r.earlier } : {}) };
  const other =
    r.instrumentId !== null && r.instrumentId !== circumstance.instrumentId
      ? instruments.find((i) => i.id === r.instrumentId)
      : undefined;
  if (!other) return ok(plain);
  const instrument = instrumentWith(other, circumstance.zeros[other.id] ?? null, limits);
  return instrument.ok ? ok({ ...plain, instrument: instrument.value }) : instrument;
}

/** The set of a run as the judge takes it. */
export function runSet(inputs: RunInputs): Result<TestSet> {
  const { definition: test } = inputs;
  const meter = meterOf(inputs);
  if (!meter.ok) return meter;
  const readings: ReadingIn[] = [];
  for (const r of inputs.readings) {
    const read = readingOf(r, inputs);
    if (!read.ok) return read;
    readings.push(read.value);
  }
  return ok({
    test: test.id,
    definition: test,
    engine: inputs.engine,
    limits: inputs.limits,
    decision: inputs.decision,
    instrument: meter.value,
    readings,
    // A position that the test has dropped since must not hide what was read there.
    positions: [
      ...new Set([
        ...positionsInUse(
          test,
          inputs.engine,
          inputs.readings.map((r) => r.position),
        ),
        ...inputs.readings.map((r) => r.position),
      ]),
    ],
    isMeterProven: inputs.circumstance.states.includes(STATES.meterProven.id),
    condition: { ...test.condition, connection: test.connection, ...inputs.circumstance.condition },
  });
}

/** Judges a run. */
export function judgeRun(inputs: RunInputs): Result<Judgement> {
  const set = runSet(inputs);
  return set.ok ? judgeSet(set.value) : set;
}

/** Judges a run for the record, which is nobody's language; what is wrong with it is said to whoever asks. */
export function judgeForRecord(inputs: RunInputs): Result<Judgement> {
  const judged = asFor({ locale: PLAIN, words: null }, () => judgeRun(inputs));
  return judged.ok ? judged : judgeRun(inputs);
}

/** What the record holds, in the words of whoever reads; to most it is what stands there. */
export const forReader = (kept: Judgement, definition: TestDefinition): Judgement =>
  localeKey(currentLocale()) === localeKey(PLAIN) ? kept : sayAgain(kept, definition);

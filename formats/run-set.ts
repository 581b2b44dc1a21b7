import { findTest } from '../core/catalogue/catalogue';
import { positionsOf } from '../core/catalogue/positions';
import type { Engine } from '../core/engine/layout';
import { judgeSet } from '../core/judge/set';
import type { Judgement, Limits, Position, TestSet } from '../core/judge/types';
import type { Instrument } from '../core/metrology/instrument';
import { fail, ok, type Result } from '../core/result';
import { readInstrument } from './instrument';
import type { CircumstanceView, InstrumentView } from './views';

/** What a test run is judged with: the same on the bench, on the server and in a file. */
export interface RunInputs {
  readonly test: string;
  readonly engine: Engine;
  readonly limits: Limits;
  readonly circumstance: CircumstanceView;
  readonly instruments: readonly InstrumentView[];
  readonly readings: readonly { readonly position: Position; readonly entry: string }[];
}

/** The meter of a run with the lead zero of its circumstance; `null` where no meter is chosen. */
export function meterOf({ circumstance, instruments }: Pick<RunInputs, 'circumstance' | 'instruments'>): Result<Instrument | null> {
  const chosen = instruments.find((i) => i.id === circumstance.instrumentId);
  const { leadZero } = circumstance;
  if (!chosen && leadZero === null) return ok({ kind: 'unknown', leadZero_ohm: null, leadZeroResolution_ohm: 0, accuracy: [] });
  return readInstrument({ kind: chosen?.kind ?? 'unknown', ...(chosen ? { name: chosen.name } : {}), accuracy: chosen?.accuracy ?? [], leadZero });
}

/** The set of a run as the judge takes it. */
export function runSet(inputs: RunInputs): Result<TestSet> {
  const test = findTest(inputs.test);
  const meter = meterOf(inputs);
  if (!meter.ok) return meter;
  if (!test) return fail([{ path: '/test', message: `The catalogue has no test "${inputs.test}".` }]);
  return ok({
    test: inputs.test, engine: inputs.engine, limits: inputs.limits, instrument: meter.value, readings: inputs.readings,
    // A position that the catalogue has dropped since must not hide what was read there.
    positions: [...new Set([...positionsOf(test, inputs.engine), ...inputs.readings.map((r) => r.position)])],
    condition: { ...test.condition, connection: test.connection, ...inputs.circumstance.condition },
  });
}

/** Judges a run. */
export function judgeRun(inputs: RunInputs): Result<Judgement> {
  const set = runSet(inputs);
  return set.ok ? judgeSet(set.value) : set;
}

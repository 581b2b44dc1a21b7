import type { Engine } from '../core/engine/layout';
import type { DecisionRule } from '../core/metrology/conformity';
import type { Condition, Limits, ReadingIn, TestSet } from '../core/judge/types';
import { ok, type Result } from '../core/foundation/result';
import { type InstrumentDocument, readInstrument } from './instrument';
import { schema } from './schemas';
import { validate } from './validate';

/** `mudflat/test-set` as it stands in a file. */
export interface TestSetDocument {
  readonly format: 'mudflat/test-set';
  readonly version: 1;
  readonly test: string;
  readonly engine?: Engine;
  readonly condition?: Condition;
  readonly instrument?: InstrumentDocument;
  readonly limits: Limits;
  readonly readings: readonly (Omit<ReadingIn, 'instrument'> & { readonly instrument?: InstrumentDocument | null })[];
  readonly groups?: TestSet['groups'];
  readonly decision?: DecisionRule;
  readonly isMeterProven?: boolean;
}

/** A document of unknown content to a set that can be judged. */
export function readTestSet(document: unknown): Result<TestSet> {
  const valid = validate<TestSetDocument>(schema('urn:mudflat:test-set:1'), document);
  if (!valid.ok) return valid;
  const { test, engine, condition, instrument, limits, groups, decision, isMeterProven } = valid.value;
  const meter = instrument ? readInstrument(instrument) : ok(null);
  if (!meter.ok) return meter;
  const readings: ReadingIn[] = [];
  for (const [i, reading] of valid.value.readings.entries()) {
    const { instrument: own, ...plain } = reading;
    const read = own ? readInstrument(own, `/readings/${i}/instrument`) : ok(own);
    if (!read.ok) return read;
    readings.push(read.value === undefined ? plain : { ...plain, instrument: read.value });
  }
  return ok({
    test,
    engine: engine ?? null,
    condition: condition ?? {},
    instrument: meter.value,
    limits,
    readings,
    groups,
    decision,
    isMeterProven,
  });
}

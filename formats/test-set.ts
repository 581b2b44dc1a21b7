import type { Engine } from '../core/engine/layout';
import { judgeSet } from '../core/judge/set';
import type { Condition, Judgement, Limits, ReadingIn, TestSet } from '../core/judge/types';
import { ok, type Result } from '../core/result';
import { type InstrumentDocument, readInstrument } from './instrument';
import { readJson, schema, validate } from './validate';

/** `mudflat/test-set` as it stands in a file. */
export interface TestSetDocument {
  readonly format: 'mudflat/test-set';
  readonly version: 1;
  readonly test: string;
  readonly engine?: Engine;
  readonly condition?: Condition;
  readonly instrument?: InstrumentDocument;
  readonly limits: Limits;
  readonly readings: readonly ReadingIn[];
}

/** A document of unknown content to a set that can be judged. */
export function readTestSet(document: unknown): Result<TestSet> {
  const valid = validate<TestSetDocument>(schema('urn:mudflat:test-set:1'), document);
  if (!valid.ok) return valid;
  const { test, engine, condition, instrument, limits, readings } = valid.value;
  const meter = instrument ? readInstrument(instrument) : ok(null);
  if (!meter.ok) return meter;
  return ok({ test, engine: engine ?? null, condition: condition ?? {}, instrument: meter.value, limits, readings });
}

/** From text to judgement: what the command line and the HTTP API both call. */
export function judgeText(text: string): Result<Judgement> {
  const json = readJson(text);
  return json.ok ? judgeDocument(json.value) : json;
}

export function judgeDocument(document: unknown): Result<Judgement> {
  const set = readTestSet(document);
  return set.ok ? judgeSet(set.value) : set;
}

import type { Engine } from '../core/engine/layout';
import type { AccuracyRange, Instrument } from '../core/metrology/instrument';
import { judgeSet } from '../core/judge/set';
import type { Condition, Judgement, Limits, ReadingIn, TestSet } from '../core/judge/types';
import { entryToBase, parseEntry } from '../core/quantity/entry';
import { baseUnit } from '../core/quantity/units';
import { fail, ok, problem, type Result } from '../core/result';
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

export interface InstrumentDocument {
  readonly kind: string;
  readonly name?: string;
  readonly leadZero?: string | null;
  readonly accuracy?: readonly AccuracyRange[];
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

/** An instrument of a file, its lead zero read by the same grammar as any entry. */
export function readInstrument(document: InstrumentDocument, path = '/instrument'): Result<Instrument> {
  const zero = readLeadZero(document.leadZero ?? '');
  if (!zero.ok) return problem(`${path}/leadZero`, zero.error);
  return ok({
    kind: document.kind, name: document.name, accuracy: document.accuracy ?? [],
    leadZero_ohm: zero.value?.value ?? null, leadZeroResolution_ohm: zero.value?.resolution ?? 0,
  });
}

/** What the leads alone show, ohm; `null` for an empty entry. */
export function readLeadZero(entry: string): Result<{ value: number; resolution: number } | null, string> {
  const parsed = parseEntry(entry, 'resistance');
  if (!parsed.ok) return parsed;
  if (parsed.value.kind === 'nothing') return ok(null);
  if (parsed.value.kind !== 'number') return fail('The lead zero is a number that stands still, such as 0.2. With the leads touching, OL or a wander means a broken lead.');
  const zero = entryToBase(parsed.value, { unit: baseUnit('resistance'), scale: 1 });
  return zero.value < 0 ? fail('The lead zero is 0 or more.') : ok(zero);
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

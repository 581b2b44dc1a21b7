import type { AccuracyRange, Instrument } from '../core/metrology/instrument';
import { readEntry } from '../core/limits/entry';
import { entryToBase, parseEntry } from '../core/quantity/entry';
import { baseUnit } from '../core/quantity/units';
import { fail, ok, problem, type Result } from '../core/foundation/result';

export interface InstrumentDocument {
  readonly kind: string;
  readonly name?: string;
  readonly leadZero?: string | null;
  readonly accuracy?: readonly AccuracyRange[];
  readonly leadRepeatability_ohm?: number | undefined;
  readonly clamp_mVperA?: number | undefined;
  readonly clampZero?: string | null | undefined;
}

/** An instrument of a file, its lead zero read by the same grammar as any entry. */
export function readInstrument(document: InstrumentDocument, path = '/instrument'): Result<Instrument> {
  const zero = readLeadZero(document.leadZero ?? '');
  if (!zero.ok) return problem(`${path}/leadZero`, zero.error);
  const clamp = document.clamp_mVperA ?? null;
  const clampZero = readClampZero(document.clampZero ?? '', clamp);
  if (!clampZero.ok) return problem(`${path}/clampZero`, clampZero.error);
  return ok({
    ...(document.leadRepeatability_ohm === undefined ? {} : { leadRepeatability_ohm: document.leadRepeatability_ohm }),
    ...(clamp === null ? {} : { clamp_mVperA: clamp }),
    ...(clampZero.value === null ? {} : { clampZero_A: clampZero.value }),
    kind: document.kind,
    name: document.name,
    accuracy: document.accuracy ?? [],
    leadZero_ohm: zero.value?.value ?? null,
    leadZeroResolution_ohm: zero.value?.resolution ?? 0,
  });
}

/** What the leads alone show, ohm; `null` for an empty entry. */
export function readLeadZero(entry: string): Result<{ value: number; resolution: number } | null, string> {
  const parsed = parseEntry(entry, 'resistance');
  if (!parsed.ok) return parsed;
  if (parsed.value.kind === 'nothing') return ok(null);
  if (parsed.value.kind !== 'number')
    return fail(
      'The lead zero is a number that stands still, such as 0.2. With the leads touching, OL or a wander means a broken lead.',
    );
  const zero = entryToBase(parsed.value, { unit: baseUnit('resistance'), scale: 1 });
  return zero.value < 0 ? fail('The lead zero is 0 or more.') : ok(zero);
}

/** What a clamp shows away from any wire, ampere; `null` for an empty entry. */
export function readClampZero(entry: string, clamp_mVperA: number | null): Result<number | null, string> {
  const read = readEntry(entry, { quantity: 'current', unit: 'A' }, clamp_mVperA);
  if (!read.ok) return read;
  const parsed = read.value.entry;
  if (parsed.kind === 'nothing') return ok(null);
  return parsed.kind === 'number'
    ? ok(parsed.value)
    : fail('The clamp’s zero is a number that stands still, such as 0.3.');
}

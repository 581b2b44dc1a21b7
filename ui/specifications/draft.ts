import { tr } from '../../core/locale/translate';
import { LIMIT_NUMBERS } from '../../core/limits/check';
import type { Limits } from '../../core/limits/types';
import { fail, ok, type Problem, type Result } from '../../core/foundation/result';
import type { When } from '../../core/specifications/types';
import type { SpecificationEntry } from '../../formats/specifications';
import { type Draft, DraftReader, numberShown, pruned } from '../kit/draft';

const CONDITIONS = ['systemVoltage_V', 'fromTemperature_degC', 'toTemperature_degC'] as const;
const STATES = ['key', 'engine', 'connection'] as const;
const SOURCES = ['document', 'page', 'documentRevision', 'documentDate'] as const;
/** What has no field of its own stands as JSON. */
const MORE = ['byPosition', 'sequence', 'transfer', 'tolerance'] as const;

const shown = (value: string | number | null | undefined): string =>
  typeof value === 'string' ? value : numberShown(value);

export function draftOf(e: SpecificationEntry): Draft {
  const { limits, when = {} } = e;
  const more = Object.fromEntries(MORE.filter((f) => limits[f] !== undefined).map((f) => [f, limits[f]]));
  return {
    test: e.test,
    scope: e.scope,
    of: e.of ?? '',
    school: e.school ?? '',
    quantity: limits.quantity,
    unit: limits.unit,
    source: e.source,
    status: e.status ?? 'draft',
    ...Object.fromEntries(LIMIT_NUMBERS.map((f) => [f, shown(limits[f])])),
    ...Object.fromEntries([...CONDITIONS, ...STATES].map((f) => [`when.${f}`, shown(when[f])])),
    ...Object.fromEntries(SOURCES.map((f) => [f, shown(e[f])])),
    maxRatio: shown(limits.neighbours?.maxRatio),
    maxDifference: shown(limits.neighbours?.maxDifference),
    material: limits.material ?? '',
    more: Object.keys(more).length ? JSON.stringify(more, null, 1) : '',
  };
}

/** The entry of a draft, or what cannot be read, by the server's paths. */
export function entryOfDraft(draft: Draft): Result<SpecificationEntry> {
  const read = new DraftReader(draft);
  const problems: Problem[] = [];
  if (!read.text('source'))
    problems.push({ path: '/entry/source', message: 'Where is it from? Document and page, or who says so.' });
  const more = read.json('more', '/entry/limits/more');
  for (const key of Object.keys(more))
    if (!(MORE as readonly string[]).includes(key))
      problems.push({ path: '/entry/limits/more', message: tr`"${key}" has no place here; ${MORE.join(', ')} have.` });
  const neighbours = pruned({
    maxRatio: read.number('maxRatio', '/entry/limits/neighbours/maxRatio'),
    maxDifference: read.number('maxDifference', '/entry/limits/neighbours/maxDifference'),
  });
  const limits = pruned({
    quantity: read.text('quantity'),
    unit: read.text('unit') ?? '',
    ...Object.fromEntries(LIMIT_NUMBERS.map((f) => [f, read.number(f, `/entry/limits/${f}`)])),
    material: read.text('material'),
    ...more,
    neighbours: Object.keys(neighbours).length ? neighbours : undefined,
  }) as unknown as Limits;
  const when = pruned({
    ...Object.fromEntries(CONDITIONS.map((f) => [f, read.number(`when.${f}`, `/entry/when/${f}`)])),
    ...Object.fromEntries(STATES.map((f) => [f, read.text(`when.${f}`)])),
  }) as When;
  const all = [...problems, ...read.problems];
  if (all.length) return fail(all);
  const scope = draft.scope as SpecificationEntry['scope'];
  return ok(
    pruned({
      test: draft.test ?? '',
      scope,
      of: scope === 'general' ? undefined : read.text('of'),
      when: Object.keys(when).length ? when : undefined,
      school: read.text('school'),
      limits,
      source: read.text('source') ?? '',
      ...Object.fromEntries(SOURCES.map((f) => [f, read.text(f)])),
      status: draft.status as SpecificationEntry['status'],
    }),
  );
}

/** Beginnings for a transfer function: the numbers are to be replaced by those of the sensor's sheet. */
export const TEMPLATES: Readonly<Record<string, object>> = {
  'Ratiometric line': {
    transfer: {
      kind: 'ratiometric',
      stimulus: { quantity: 'pressure', unit: 'kPa' },
      supply_V: 5,
      low: { at: 0, ratio: 0.1 },
      high: { at: 100, ratio: 0.9 },
    },
    tolerance: { absolute: 0.1 },
  },
  Table: {
    transfer: {
      kind: 'table',
      stimulus: { quantity: 'pressure', unit: 'kPa' },
      points: [
        [0, 0.5],
        [100, 4.5],
      ],
    },
    tolerance: { absolute: 0.1 },
  },
  'NTC by β': {
    transfer: { kind: 'ntc-beta', resistance_ohm: 2500, at_degC: 20, beta_K: 3500 },
    tolerance: { percentOfExpected: 10 },
  },
  'NTC, Steinhart-Hart': {
    transfer: { kind: 'ntc-steinhart-hart', a: 0.001, b: 0.0002, c: 0.0000001 },
    tolerance: { percentOfExpected: 10 },
  },
  'By position': { byPosition: { 'name of the position': { lower: 0, upper: 1 } } },
  'Rising sweep': { sequence: { direction: 'rising', maxStep: 1 } },
};

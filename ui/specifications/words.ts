import { significant } from '../../core/locale/numbers';
import { tr, word } from '../../core/locale/translate';
import { unitValue } from '../../core/quantity/values';
import { rangeWords } from '../../core/judge/words';
import { predict } from '../../core/limits/at';
import { stimulusOf, type Transfer } from '../../core/limits/transfer';
import type { Limits } from '../../core/limits/types';
import type { PassedOver } from '../../core/specifications/choose';
import type { When } from '../../core/specifications/types';
import type { SpecificationEntry } from '../../formats/specifications';
import { check } from '../../formats/compiled/limits';
import type { ValidateFunction } from 'ajv';
import { validate } from '../../formats/validate';

export const STATUS_WORDS = {
  approved: 'approved',
  draft: 'draft',
  'rule-of-thumb': 'rule of thumb',
  withdrawn: 'off the shelf',
} as const;
export const SCOPE_WORDS = { part: 'Part', family: 'Engine family', depot: 'Depot', general: 'Any engine' } as const;

/** What an entry is for: "Engine family L4-20", "Any engine". */
export const forWords = (e: SpecificationEntry): string =>
  e.scope === 'general' ? word(SCOPE_WORDS.general) : tr`${SCOPE_WORDS[e.scope]} ${e.of ?? ''}`;

export function whenWords(when: When = {}): string {
  const { fromTemperature_degC: from, toTemperature_degC: to } = when;
  const temperature =
    from === undefined && to === undefined
      ? ''
      : to === undefined
        ? tr`from ${from} °C`
        : from === undefined
          ? tr`up to ${to} °C`
          : tr`${from} to ${to} °C`;
  return [
    when.systemVoltage_V ? `${when.systemVoltage_V} V` : '',
    when.key ? tr`key ${when.key}` : '',
    when.engine ? tr`engine ${when.engine}` : '',
    when.connection ?? '',
    temperature,
  ]
    .filter(Boolean)
    .map(word)
    .join(', ');
}

/** The limits in a few words. */
export function limitWords({ limits }: Pick<SpecificationEntry, 'limits'>): string {
  if (limits.quantity === 'observation') return 'pass or fail';
  if (limits.transfer) return tr`transfer function, ${limits.transfer.kind}`;
  const range = rangeWords(limits, limits);
  const more = [
    limits.byPosition ? 'by position' : '',
    limits.sequence ? limits.sequence.direction : '',
    limits.neighbours ? 'against neighbours' : '',
  ]
    .filter(Boolean)
    .map(word)
    .join(', ');
  return range === 'no limit' ? more || range : more ? `${range}; ${more}` : range;
}

export const WHY_NOT: Readonly<Record<PassedOver, string>> = {
  withdrawn: 'It was taken off the shelf.',
  'older revision': 'A newer revision is there.',
  'other condition': 'It is for another condition.',
  'more general': 'Something more exact is there.',
  'fewer conditions met': 'Another meets more of the conditions.',
  'other school': 'The depot has picked another house rule.',
  'not approved': 'An approved one is there.',
  'other part': 'It is for another part.',
  'other family': 'It is for another engine family.',
  'other depot': 'It is another depot’s rule.',
  'came first': 'An equal one was there before it.',
};

/** Fields as people call them. */
const FIELDS: Readonly<Record<string, string>> = {
  unit: 'unit',
  lower: 'lower limit',
  upper: 'upper limit',
  watchLower: 'not liked below',
  watchUpper: 'not liked above',
  recheckMargin: 'recheck margin',
  shortBelow: 'short below',
  openAbove: 'open above',
  steadyWithin: 'steady within',
  neighbours: 'neighbours',
  referenceTemperature_degC: 'reference, °C',
  temperatureCoefficient_perK: 'coefficient per K',
  material: 'conductor',
  byPosition: 'by position',
  sequence: 'sequence',
  transfer: 'transfer function',
  tolerance: 'tolerance',
  source: 'source',
  document: 'document',
  page: 'page',
  documentRevision: 'its revision',
  documentDate: 'its date',
};
export const fieldWords = (field: string): string => FIELDS[field] ?? field;

/** A value of a limit as a table shows it. */
export const valueWords = (value: unknown): string =>
  value === null || value === undefined ? '–' : typeof value === 'string' ? value : JSON.stringify(value);

const COLD_TO_HOT = [-20, 0, 20, 40, 80] as const;

function tellingPoints(t: Transfer): readonly number[] {
  if (t.kind === 'ratiometric') return [t.low.at, (t.low.at + t.high.at) / 2, t.high.at];
  return t.kind === 'table' ? t.points.map(([x]) => x) : COLD_TO_HOT;
}

/** What a transfer function asks for at a few points: "0 kPa: 0.5 V; …". Empty while it is not whole. */
export function predictionWords(limits: Limits): string {
  const valid = validate(check as ValidateFunction<Limits>, limits);
  if (!valid.ok || !limits.transfer) return '';
  const { unit } = stimulusOf(limits.transfer);
  return tellingPoints(limits.transfer)
    .map((x) => {
      const expected = predict(limits, unitValue(x))?.expected;
      return tr`${x} ${unit}: ${expected === undefined ? 'nothing' : `${significant(expected, 4)} ${limits.unit}`}`;
    })
    .join('; ');
}

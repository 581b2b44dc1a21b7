'use client';
import { type Locale, LOCALE_CHOICES } from '../../core/locale/locale';
import type { Problem } from '../../core/foundation/result';
import type { Draft } from '../kit/draft';
import { DraftField } from '../kit/form';
import { useLanguages } from './languages';

const WORDS = {
  decimal: { point: 'a point: 0.85', comma: 'a comma: 0,85' },
  units: { given: 'as the limits have them', metric: 'metric: kPa, Nm', imperial: 'imperial: psi, lbf ft' },
  dates: { dmy: 'day first: 23 Nov 2026', mdy: 'month first: Nov 23, 2026', ymd: 'year first: 2026-11-23' },
} as const satisfies { readonly [K in keyof typeof LOCALE_CHOICES]: Readonly<Record<Locale[K], string>> };

const LABELS = { decimal: 'Decimal mark', units: 'Units', dates: 'Dates' } as const;

const chosen = <T extends string>(choices: readonly [T, ...T[]], value: string | undefined): T =>
  choices.find((c) => c === value) ?? choices[0];

/** What the fields say. */
export const localeOf = (draft: Draft): Locale => ({
  language: draft.language ?? 'en',
  decimal: chosen(LOCALE_CHOICES.decimal, draft.decimal),
  units: chosen(LOCALE_CHOICES.units, draft.units),
  dates: chosen(LOCALE_CHOICES.dates, draft.dates),
});

/** Language, where there is more than one, decimal mark, units and order of dates. */
export function LocaleFields({
  draft,
  problems,
  base,
  disabled = false,
  onChange,
}: {
  draft: Draft;
  problems: readonly Problem[];
  base: string;
  disabled?: boolean;
  onChange: (field: string, value: string) => void;
}) {
  const languages = useLanguages(draft.language ?? 'en');
  const own = { draft, problems, disabled, onChange };
  return (
    <div className="grid grid-cols-[repeat(auto-fit,minmax(14rem,1fr))] gap-x-4">
      {languages.length > 1 && (
        <DraftField
          {...own}
          field="language"
          path={`${base}/language`}
          label="Language"
          options={languages.map(({ code, name }) => [code, name] as const)}
        />
      )}
      {(Object.keys(LABELS) as (keyof typeof LABELS)[]).map((field) => (
        <DraftField
          key={field}
          {...own}
          field={field}
          path={`${base}/${field}`}
          label={LABELS[field]}
          options={Object.entries(WORDS[field])}
        />
      ))}
    </div>
  );
}

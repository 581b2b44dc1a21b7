'use client';
import { useState } from 'react';
import { grouped, withMark } from '../../core/locale/numbers';
import { dayShown } from '../../core/locale/dates';
import { asFor, currentLocale, type Locale } from '../../core/locale/locale';
import { tr } from '../../core/locale/translate';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import type { Draft } from '../kit/draft';
import { OtherProblems } from '../kit/form';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';
import { LocaleFields, localeOf } from './locale-fields';

/** How numbers, units and dates are shown to whoever is at the bench. What is stored stays as it is. */
export function ChooseLocale({ onClose }: { onClose: () => void }) {
  const by = usePerson();
  const [draft, setDraft] = useState<Draft>({ ...currentLocale() });
  const { busy, problems, post } = useSend();
  async function choose(locale: Locale | null): Promise<void> {
    // A whole page load: every part of the screen is drawn anew.
    if (await post('/api/session/locale', { by, locale })) window.location.reload();
  }
  return (
    <FormDialog
      onClose={onClose}
      title="Numbers, units and language"
      description={tr`For ${by}, on every device. Readings are kept as they were typed.`}
      onSubmit={() => void choose(localeOf(draft))}
    >
      <LocaleFields
        draft={draft}
        problems={problems}
        base="/locale"
        onChange={(field, value) => setDraft({ ...draft, [field]: value })}
      />
      <Example locale={localeOf(draft)} />
      <OtherProblems problems={problems} paths={['/locale']} />
      <div className="mt-4 flex flex-wrap gap-3">
        <Button type="submit" tone="strong" disabled={busy}>
          Show it so
        </Button>
        <Button disabled={busy} onClick={() => void choose(null)}>
          As the workshop has it
        </Button>
      </div>
    </FormDialog>
  );
}

/** The same pressure and the same torque. */
const EXAMPLES = {
  given: [],
  metric: [
    ['350', 'kPa'],
    ['20', 'Nm'],
  ],
  imperial: [
    ['50.8', 'psi'],
    ['14.8', 'lbf ft'],
  ],
} as const;

/** What the choice comes to. */
function Example({ locale }: { locale: Locale }) {
  const text = asFor({ locale, words: null }, () =>
    [
      `${withMark('0.85')} Ω`,
      `${grouped(12_500)} km`,
      ...EXAMPLES[locale.units].map(([value, unit]) => `${withMark(value)} ${unit}`),
      dayShown(2026, 11, 23),
    ].join('   '),
  );
  return (
    <p className="rounded-lg bg-panel p-3 font-mono whitespace-pre-wrap" aria-label="What it comes to">
      {text}
    </p>
  );
}

'use client';
import { tr } from '../../core/locale/translate';
import { useMemo, useState } from 'react';
import { indexFindable } from '../../core/catalogue/search';
import type { Problem } from '../../core/foundation/result';
import { groupBy } from '../../core/foundation/collections';
import type { PlanStep } from '../../core/plan/types';
import type { JobView } from '../../application/views';
import { Button } from '../kit/button';
import { Dialog, FormDialog } from '../kit/dialog';
import { Field, inputLook } from '../kit/field';
import { OtherProblems } from '../kit/form';

const REASONS = [
  'Part is already out',
  'No access today',
  'Engine is warm already',
  'No tool for it here',
  'Done before, elsewhere',
];

/** Why a step is skipped: one of the usual reasons, or words. */
export function Skip({
  step,
  onClose,
  onSkip,
}: {
  step: PlanStep;
  onClose: () => void;
  onSkip: (because: string) => void;
}) {
  const [because, setBecause] = useState('');
  return (
    <FormDialog
      onClose={onClose}
      title={tr`Skip ${step.name}`}
      onSubmit={() => {
        if (because.trim()) onSkip(because.trim());
      }}
    >
      <div className="mb-3 flex flex-wrap gap-2">
        {REASONS.map((r) => (
          <Button key={r} onClick={() => onSkip(r)}>
            {r}
          </Button>
        ))}
      </div>
      <Field id="skip-because" label="Or say why">
        <input
          id="skip-because"
          className={inputLook}
          value={because}
          maxLength={200}
          onChange={(e) => setBecause(e.target.value)}
        />
      </Field>
      <Button type="submit" tone="strong" disabled={because.trim() === ''}>
        Skip
      </Button>
    </FormDialog>
  );
}

interface ChooseProps {
  /** `null`: they are on their way. */
  readonly tests: JobView['tests'] | null;
  readonly problems: readonly Problem[];
  readonly planned: ReadonlySet<string>;
  readonly onClose: () => void;
  readonly onStart: (test: string) => void;
  readonly onAdd: (test: string) => void;
}

/** The whole catalogue: anybody may always do something else. */
export function Choose({ tests, problems, planned, onClose, onStart, onAdd }: ChooseProps) {
  const [search, setSearch] = useState('');
  const find = useMemo(() => indexFindable(tests ?? []), [tests]);
  const found = find(search);
  const unfit = found.filter((t) => t.isUnfit);
  return (
    <Dialog wide onClose={onClose} title="Another test">
      <input
        aria-label="Find a test"
        placeholder="Find a test"
        value={search}
        onChange={(e) => setSearch(e.target.value)}
        className={inputLook}
      />
      <OtherProblems problems={problems} paths={[]} />
      {tests !== null && found.length === 0 && (
        <p className="mt-2 text-soft">The catalogue has no test with “{search}” in it.</p>
      )}
      <ByArea tests={found.filter((t) => !t.isUnfit)} {...{ planned, onStart, onAdd }} />
      {unfit.length > 0 && (
        <details className="mt-3">
          <summary className="min-h-10 cursor-pointer font-semibold">
            For what this unit does not have ({unfit.length})
          </summary>
          <ByArea tests={unfit} {...{ planned, onStart, onAdd }} />
        </details>
      )}
    </Dialog>
  );
}

function ByArea({
  tests,
  planned,
  onStart,
  onAdd,
}: Pick<ChooseProps, 'planned' | 'onStart' | 'onAdd'> & { tests: JobView['tests'] }) {
  return (
    <>
      {[...groupBy(tests, (t) => t.area)].map(([area, own]) => (
        <div key={area} className="mt-3">
          <h3 className="text-sm font-semibold text-soft">{area}</h3>
          <ul className="grid gap-2 md:grid-cols-2">
            {own.map((t) => (
              <li key={t.id} className="flex items-start gap-2 rounded-lg border border-line p-2">
                <div className="min-w-0 flex-1">
                  <b>{t.name}</b>{' '}
                  <span className="text-sm whitespace-nowrap text-soft">
                    {t.minutes} min{t.people > 1 ? tr`, ${t.people} people` : ''}
                  </span>
                  <p className="text-sm">{t.purpose}</p>
                </div>
                <div className="flex flex-col gap-1">
                  <Button className="min-h-10 px-3" onClick={() => onStart(t.id)}>
                    Start<span className="sr-only"> {t.name}</span>
                  </Button>
                  {!planned.has(t.id) && (
                    <Button className="min-h-10 px-3" onClick={() => onAdd(t.id)}>
                      Plan<span className="sr-only"> {t.name}</span>
                    </Button>
                  )}
                </div>
              </li>
            ))}
          </ul>
        </div>
      ))}
    </>
  );
}

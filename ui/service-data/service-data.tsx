'use client';
import { isoDayShown } from '../../core/locale/dates';
import { tr } from '../../core/locale/translate';
import { Link } from '../kit/link';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import { v7 } from 'uuid';
import type { FittingPlan, ServiceDataView } from '../../application/repair-view';
import { type FittingSequence, type FittingStep, SEQUENCES } from '../../core/repair/sequences';
import type { FittingValue } from '../../formats/requests/service-data';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import type { Draft } from '../kit/draft';
import { inputLook } from '../kit/field';
import { DraftField, OtherProblems } from '../kit/form';
import { ListFile } from '../kit/list-file';
import { useMay, usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';
import { Connectors } from './connectors';

type Line = ServiceDataView['lines'][number];
interface Place {
  readonly key: string;
  readonly sequence: FittingSequence;
  readonly step: FittingStep & { readonly value: NonNullable<FittingStep['value']> };
}

/** Every value that a repair asks for. */
const PLACES: readonly Place[] = SEQUENCES.flatMap((sequence) =>
  sequence.steps.flatMap((step) =>
    step.value ? [{ key: `${sequence.id}/${step.id}`, sequence, step: { ...step, value: step.value } }] : [],
  ),
);
const ANY = '';
const valueOf = (line: Line | undefined): string => (line ? (line.body as FittingValue).value : '');

/** Where something stands: any engine, else the first family with values of its own. */
function firstShown({ lines }: ServiceDataView): string {
  const families = lines.flatMap((l) => (l.kind === 'fitting' ? [l.family ?? ANY] : []));
  return families.includes(ANY) ? ANY : (families[0] ?? ANY);
}

/**
 * Values of the workshop's own service information, by engine family: what is there, from where, and what is
 * missing.
 */
export function ServiceData({ view }: { view: ServiceDataView }) {
  const router = useRouter();
  const may = useMay('service-data.change');
  const [family, setFamily] = useState(() => firstShown(view));
  const [editing, setEditing] = useState<Place | null>(null);
  const done = (): void => {
    setEditing(null);
    router.refresh();
  };
  const find = (key: string, of: string): Line | undefined =>
    view.lines.find((l) => l.kind === 'fitting' && l.key === key && l.family === (of || null));
  return (
    <main className="mx-auto w-full max-w-5xl flex-1 p-4">
      <Intro />
      <Tools view={view} family={family} onFamily={setFamily} mayImport={may} onDone={done} />
      <Connectors view={view} family={family} onDone={done} />
      {SEQUENCES.map((sequence) => {
        const own = PLACES.filter((p) => p.sequence.id === sequence.id);
        return (
          own.length > 0 && (
            <section key={sequence.id} aria-label={sequence.name} className="mb-4 rounded-xl bg-card p-3">
              <h2 className="font-semibold">{sequence.name}</h2>
              <ul className="divide-y divide-line">
                {own.map((p) => (
                  <Value
                    key={p.key}
                    place={p}
                    line={find(p.key, family)}
                    general={family === ANY ? undefined : find(p.key, ANY)}
                    onEdit={may ? () => setEditing(p) : null}
                  />
                ))}
              </ul>
            </section>
          )
        );
      })}
      {editing !== null && (
        <EditValue
          place={editing}
          family={family}
          line={find(editing.key, family)}
          onClose={() => setEditing(null)}
          onDone={done}
        />
      )}
    </main>
  );
}

const Intro = () => (
  <p className="mb-3 text-soft">
    What the maker’s service information asks for, with its source. A repair shows it beside what was reached. What
    stands for any engine is taken where the family has none of its own. Depots, engine families and units are on the
    screen{' '}
    <Link className="underline" href="/workshop">
      Workshop
    </Link>
    .
  </p>
);

/** For which family, and the values in and out as a list. */
function Tools({
  view,
  family,
  onFamily,
  mayImport,
  onDone,
}: {
  view: ServiceDataView;
  family: string;
  onFamily: (family: string) => void;
  mayImport: boolean;
  onDone: () => void;
}) {
  return (
    <div className="mb-4 flex flex-wrap items-end gap-3">
      <label className="flex-1 basis-60 font-semibold">
        Engine family
        <select className={inputLook} value={family} onChange={(e) => onFamily(e.target.value)}>
          <option value={ANY}>any engine</option>
          {view.families.map((f) => (
            <option key={f}>{f}</option>
          ))}
        </select>
      </label>
      <ListFile<FittingPlan['rows'][number]>
        title="A list of values"
        description="CSV with the columns family, sequence, step, value, source; an empty family is any engine."
        things={['value', 'values']}
        importUrl="/api/service-data/import"
        exportUrl="/api/service-data?format=csv"
        mayImport={mayImport}
        show={(r) => r.what}
        onDone={onDone}
      />
    </div>
  );
}

function Value({
  place: { step },
  line,
  general,
  onEdit,
}: {
  place: Place;
  line: Line | undefined;
  general: Line | undefined;
  onEdit: (() => void) | null;
}) {
  const shown = line ?? general;
  return (
    <li className="flex min-h-14 flex-wrap items-center gap-x-4 gap-y-1 py-1">
      <span className="flex-1 basis-60">
        {step.value.what}
        {step.value.isLimit && <span className="text-soft">, at most</span>}
      </span>
      <b className="min-w-24 font-mono">{shown ? valueOf(shown) : '–'}</b>
      <span className="flex-1 basis-60 text-sm text-soft">
        {shown
          ? tr`${line ? '' : 'of any engine: '}${shown.source}; ${shown.by}, ${isoDayShown(shown.at.slice(0, 10))}${shown.revision > 1 ? tr`, entered ${shown.revision} times` : ''}`
          : 'not entered'}
      </span>
      {onEdit && (
        <Button aria-label={tr`${line ? 'Change' : 'Enter'} ${step.value.what}`} onClick={onEdit}>
          {line ? 'Change' : 'Enter'}
        </Button>
      )}
    </li>
  );
}

function EditValue(p: {
  place: Place;
  family: string;
  line: Line | undefined;
  onClose: () => void;
  onDone: () => void;
}) {
  const by = usePerson();
  const [id] = useState(() => v7());
  const [draft, setDraft] = useState<Draft>({ value: valueOf(p.line), source: p.line?.source ?? '' });
  const { busy, problems, post } = useSend();
  const fields = {
    draft,
    problems,
    onChange: (field: string, value: string) => setDraft((d) => ({ ...d, [field]: value })),
  };
  return (
    <FormDialog
      onClose={p.onClose}
      title={`${p.place.sequence.name}: ${p.place.step.value.what}`}
      description={tr`For ${p.family || 'any engine'}. What was entered before stays in the record.`}
      onSubmit={() => {
        void post('/api/service-data', {
          id,
          by,
          family: p.family || null,
          kind: 'fitting',
          key: p.place.key,
          body: { value: draft.value ?? '' },
          source: draft.source ?? '',
        }).then((sent) => {
          if (sent) p.onDone();
        });
      }}
    >
      <DraftField {...fields} field="value" path="/body/value" label="Value" hint="with its unit: 17 Nm, 90°" />
      <DraftField {...fields} field="source" path="/source" label="Where it is from" hint="document and page" />
      <OtherProblems problems={problems} paths={['/body/value', '/source']} />
      <Button type="submit" tone="strong" disabled={busy}>
        Keep
      </Button>
    </FormDialog>
  );
}

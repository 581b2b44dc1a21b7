'use client';
import { tr } from '../../core/locale/translate';
import { TriangleAlert } from 'lucide-react';
import { Link } from '../kit/link';
import { v7 } from 'uuid';
import { probeAt } from '../../core/catalogue/positions';
import type { TestDefinition } from '../../core/catalogue/types';
import { joinAnd } from '../../core/quantity/print';
import { Button } from '../kit/button';
import { OtherProblems } from '../kit/form';
import { useSend } from '../kit/use-send';
import { limitWords, whenWords } from '../specifications/words';
import type { CatalogueEntry } from './entry';

/**
 * A test in full: cautions before the steps, what it proves, and what judges it where the shelf has nothing
 * better.
 */
export function TestDetail({
  entry: { test: t, own },
  by,
  onCopy,
  onEdit,
  onDone,
}: {
  entry: CatalogueEntry;
  by: string;
  onCopy: () => void;
  onEdit: () => void;
  onDone: () => void;
}) {
  const { busy, problems, post } = useSend();
  const takeAway = async (): Promise<void> => {
    if (await post('/api/catalogue', { id: v7(), by, testId: t.id, test: null })) onDone();
  };
  return (
    <article className="rounded-xl bg-card p-5" aria-label={t.name}>
      <div className="flex flex-wrap items-start gap-2">
        <h2 className="mr-auto text-2xl font-bold">{t.name}</h2>
        <Button onClick={onCopy}>Copy and change</Button>
        {own && <Button onClick={onEdit}>Change</Button>}
        {own && (
          <Button disabled={busy} onClick={() => void takeAway()}>
            Take away
          </Button>
        )}
      </div>
      <OtherProblems problems={problems} paths={[]} />
      <p className="text-lg">{t.purpose}</p>
      <p className="mt-1 text-soft">
        {t.tool.kind}, {t.tool.mode}; about {t.minutes} min{t.people > 1 ? tr`, ${t.people} people` : ''}; key{' '}
        {t.condition.key}, engine {t.condition.engine}, {t.connection}
        {t.uses?.length ? tr`; uses ${joinAnd(t.uses.map((u) => u.what))}` : ''}
      </p>
      <section className="mt-3 rounded-lg border-l-4 border-ochre bg-panel p-3" aria-label="Cautions">
        <TriangleAlert size={16} className="mr-1 inline text-ochre" aria-hidden="true" />
        {t.cautions.map((c, i) => (i ? <span key={c.id}> {c.text}</span> : <b key={c.id}>{c.text}</b>))}
      </section>
      <div className="mt-3 grid gap-4 md:grid-cols-2">
        <HowItIsDone test={t} />
        <div>
          <h3 className="font-semibold">Where</h3>
          <Places test={t} />
          <h3 className="mt-3 font-semibold">Proves</h3>
          <p>{t.proves}</p>
          <h3 className="mt-2 font-semibold">Cannot prove</h3>
          <p>{t.cannotProve}</p>
          <h3 className="mt-3 font-semibold">Without limits on the shelf</h3>
          <Rules test={t} />
          <Link className="mt-1 inline-flex min-h-10 items-center underline" href={`/shelf?test=${t.id}`}>
            On the shelf
          </Link>
        </div>
      </div>
    </article>
  );
}

function HowItIsDone({ test: t }: { test: TestDefinition }) {
  return (
    <div>
      <h3 className="font-semibold">What must be true</h3>
      <ul className="list-disc pl-5">
        {t.states.map((s) => (
          <li key={s.id}>
            {s.label} <span className="text-sm text-soft">{s.why}</span>
          </li>
        ))}
        {t.states.length === 0 && <li className="text-soft">nothing in particular</li>}
      </ul>
      <h3 className="mt-3 font-semibold">Steps</h3>
      <ol className="list-decimal pl-5">
        {t.steps.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ol>
    </div>
  );
}

/** What judges where the shelf has nothing. */
function Rules({ test: t }: { test: TestDefinition }) {
  return t.rules.length === 0 ? (
    <p className="text-soft">
      {t.quantity === 'observation' ? 'Pass or fail as seen.' : 'Nothing judges: enter the maker’s own.'}
    </p>
  ) : (
    <ul>
      {t.rules.map((r, i) => (
        <li key={i}>
          <span className="font-mono">{limitWords(r)}</span>{' '}
          <span className="text-sm text-soft">{whenWords(r.when)} rule of thumb</span>
        </li>
      ))}
    </ul>
  );
}

function Places({ test }: { test: TestDefinition }) {
  if (test.positions === 'cylinders')
    return (
      <p>
        <b>Every cylinder.</b> {test.probe}
      </p>
    );
  if (!test.probes)
    return (
      <>
        <p>{test.probe}</p>
        <p className="text-soft">{test.positions.join(' · ')}</p>
      </>
    );
  return (
    <dl>
      {test.positions.map((p) => (
        <div key={p}>
          <dt className="inline font-semibold">{p}: </dt>
          <dd className="inline">{probeAt(test, p)}</dd>
        </div>
      ))}
    </dl>
  );
}

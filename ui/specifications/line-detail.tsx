'use client';
import { entryShown } from '../../core/locale/numbers';
import { isoDayShown } from '../../core/locale/dates';
import { tr } from '../../core/locale/translate';
import { useState } from 'react';
import { v7 } from 'uuid';
import { verdictWord } from '../../core/judge/words';
import { differences } from '../../core/specifications/clash';
import type { Verdict } from '../../core/foundation/vocabulary';
import type { SpecificationEntry } from '../../formats/specifications';
import type { SpecificationLine } from '../../application/specifications-view';
import { Button } from '../kit/button';
import { OtherProblems } from '../kit/form';
import { useSend } from '../kit/use-send';
import { fieldWords, forWords, limitWords, STATUS_WORDS, valueWords, whenWords } from './words';

interface Effect {
  readonly runId: string;
  readonly jobNumber: number;
  readonly fleetNumber: string;
  readonly was: string;
  readonly becomes: string;
  readonly summary: string;
  readonly changes: readonly {
    readonly position: number | string;
    readonly entry: string;
    readonly was: Verdict;
    readonly becomes: Verdict;
  }[];
}

/** One specification: everything it says, its revisions, and what a lead can do with it. */
export function LineDetail({
  line,
  name,
  by,
  onEdit,
  onDone,
}: {
  line: SpecificationLine;
  name: string;
  by: string;
  onEdit: () => void;
  onDone: () => void;
}) {
  const { entry, status, ships } = line;
  const sender = useSend();
  const again = async (change: { status?: SpecificationEntry['status']; withdraw?: boolean }): Promise<void> => {
    const body = {
      id: v7(),
      by,
      onRevision: line.revision,
      entry: { ...entry, ...(change.status ? { status: change.status } : {}) },
      ...(change.withdraw ? { withdraw: true } : {}),
    };
    if (await sender.post('/api/specifications', body)) onDone();
  };
  return (
    <section className="rounded-xl bg-card p-4" aria-label="Chosen limits">
      <h2 className="text-lg font-bold">{name}</h2>
      <p className="text-soft">
        {forWords(entry)}
        {entry.school && tr`, house rule “${entry.school}”`}
        {whenWords(entry.when) && `, ${whenWords(entry.when)}`}
      </p>
      <p className="mt-1 font-mono text-lg">{limitWords(entry)}</p>
      <Facts line={line} />
      <OtherProblems problems={sender.problems} paths={[]} />
      <div className="mt-3 flex flex-wrap gap-2">
        <Button onClick={onEdit}>{ships ? 'Make our own' : 'Change'}</Button>
        {!ships && status !== 'approved' && status !== 'withdrawn' && (
          <Button tone="strong" disabled={sender.busy} onClick={() => void again({ status: 'approved' })}>
            Approve
          </Button>
        )}
        {!ships && status !== 'withdrawn' && (
          <Button disabled={sender.busy} onClick={() => void again({ withdraw: true })}>
            Take off the shelf
          </Button>
        )}
      </div>
      {!ships && status !== 'withdrawn' && <OpenJobs line={line} by={by} onDone={onDone} />}
      {line.earlier.length > 0 && <EarlierRevisions line={line} />}
    </section>
  );
}

/** Everything that the limits say, and from where. */
function Facts({ line }: { line: SpecificationLine }) {
  const { entry, status } = line;
  return (
    <dl className="mt-2 grid grid-cols-[9rem_minmax(0,1fr)] gap-x-2 text-sm">
      {Object.entries(entry.limits)
        .filter(([f]) => !['quantity', 'source', 'status'].includes(f))
        .map(([f, v]) => (
          <div key={f} className="contents">
            <dt className="text-soft">{fieldWords(f)}</dt>
            <dd className="font-mono break-words">{valueWords(v)}</dd>
          </div>
        ))}
      {(['source', 'document', 'page', 'documentRevision', 'documentDate'] as const)
        .filter((f) => entry[f])
        .map((f) => (
          <div key={f} className="contents">
            <dt className="text-soft">{fieldWords(f)}</dt>
            <dd>{entry[f]}</dd>
          </div>
        ))}
      <dt className="text-soft">status</dt>
      <dd>
        {STATUS_WORDS[status]}
        {line.by && tr`, by ${line.by}`}
      </dd>
    </dl>
  );
}

function EarlierRevisions({ line: { earlier, entry } }: { line: SpecificationLine }) {
  return (
    <details className="mt-3">
      <summary className="min-h-8 cursor-pointer font-semibold">
        {earlier.length === 1 ? 'Earlier revision' : tr`${earlier.length} earlier revisions`}
      </summary>
      <ol className="mt-1 flex flex-col gap-2 text-sm">
        {earlier.map((r) => (
          <li key={r.id}>
            <b>Revision {r.revision}</b>, {r.status}, {r.by || 'nobody noted'}, {isoDayShown(r.at.slice(0, 10))}
            <ul>
              {differences(r.entry, entry).map((d) => (
                <li key={d.field} className="font-mono break-words">
                  {fieldWords(d.field)} {valueWords(d.there)} → {valueWords(d.here)}
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ol>
    </details>
  );
}

/** What these limits would change in open jobs: looked at first, then applied by a lead. */
function OpenJobs({ line, by, onDone }: { line: SpecificationLine; by: string; onDone: () => void }) {
  const [effects, setEffects] = useState<readonly Effect[] | null>(null);
  const [said, setSaid] = useState('');
  const sender = useSend();

  async function look(): Promise<void> {
    setSaid('');
    try {
      const response = await fetch(`/api/specifications/${line.id}/effect`);
      if (response.ok) setEffects(((await response.json()) as { effects: Effect[] }).effects);
      else setSaid('The server could not say. Try again.');
    } catch {
      setSaid('No server. Try again.');
    }
  }

  async function apply(): Promise<void> {
    const done = await sender.post<{ applied: number }>(`/api/specifications/${line.id}/effect`, {
      by,
      runs: effects?.map((e) => e.runId) ?? [],
    });
    if (!done) return;
    setSaid(tr`${done.applied} judged again.`);
    setEffects(null);
    onDone();
  }

  return (
    <div className="mt-3 border-t border-line pt-3">
      <Button onClick={() => void look()}>What would change in open jobs?</Button>
      {said && (
        <p role="status" className="mt-2">
          {said}
        </p>
      )}
      {effects?.length === 0 && (
        <p className="mt-2 text-soft">Nothing: every open job that these limits apply to is judged by them.</p>
      )}
      {effects && effects.length > 0 && (
        <>
          <ul className="mt-2 flex flex-col gap-2 text-sm">
            {effects.map((e) => (
              <li key={e.runId} className="rounded-lg bg-panel p-2">
                <b>
                  {e.fleetNumber}, job {e.jobNumber}
                </b>
                : {e.was} → {e.becomes}
                {e.changes.length === 0 ? (
                  <span className="block text-soft">No verdict changes.</span>
                ) : (
                  <ul>
                    {e.changes.map((c) => (
                      <li key={c.position}>
                        <span className="font-mono">
                          {c.position}: {entryShown(c.entry)}
                        </span>{' '}
                        {verdictWord(c.was, line.entry.limits)} → <b>{verdictWord(c.becomes, line.entry.limits)}</b>
                      </li>
                    ))}
                  </ul>
                )}
              </li>
            ))}
          </ul>
          <OtherProblems problems={sender.problems} paths={[]} />
          <div className="mt-2">
            <Button tone="strong" disabled={sender.busy} onClick={() => void apply()}>
              Judge {effects.length === 1 ? 'this run' : tr`these ${effects.length} runs`} again
            </Button>
          </div>
        </>
      )}
    </div>
  );
}

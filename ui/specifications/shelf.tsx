'use client';
import { tr, word } from '../../core/locale/translate';
import { FileDown, FileUp, Plus, Search } from 'lucide-react';
import { useRouter } from '../kit/router';
import { useMemo, useState } from 'react';
import { groupBy } from '../../core/foundation/collections';
import type { SpecificationLine, SpecificationsPlan, SpecificationsView } from '../../application/specifications-view';
import { Button, buttonLook } from '../kit/button';
import { ImportFile } from '../kit/import-file';
import { usePerson } from '../kit/session';
import { Choice } from './choice';
import { Depots } from './depots';
import { EditLimits } from './edit-limits';
import { LineDetail } from './line-detail';
import { PlanRows } from './plan-rows';
import { forWords, limitWords, STATUS_WORDS, whenWords } from './words';

/**
 * The lines that a search finds, by test in the order of the catalogue; what the catalogue has lost comes
 * last.
 */
function useFound(view: SpecificationsView, search: string) {
  const names = useMemo(() => new Map(view.tests.map((t) => [t.id, t])), [view.tests]);
  const texts = useMemo(() => view.lines.map((line) => ({ line, text: textOf(line, names) })), [view.lines, names]);
  const found = useMemo(() => findLines(texts, search), [texts, search]);
  const groups = useMemo(() => {
    const byTest = groupBy(found, (l) => l.entry.test);
    return [...new Set([...names.keys(), ...byTest.keys()])].flatMap((test) => {
      const those = byTest.get(test);
      return those ? [[test, those] as const] : [];
    });
  }, [found, names]);
  return { names, groups };
}

/** Finding limits, new ones, and all of them in and out as files. */
function ShelfTools(props: {
  search: string;
  onSearch: (search: string) => void;
  onNew: () => void;
  onImport: () => void;
}) {
  return (
    <div className="mb-3 flex flex-wrap items-center gap-2">
      <label className="flex min-h-12 min-w-60 flex-1 items-center gap-2 rounded-lg border-2 border-line bg-card px-3">
        <Search size={18} aria-hidden="true" />
        <span className="sr-only">Find limits</span>
        <input
          value={props.search}
          onChange={(e) => props.onSearch(e.target.value)}
          placeholder="Test, family, part, source, status"
          className="min-w-0 flex-1 bg-transparent focus-visible:outline-none"
        />
      </label>
      <Button onClick={props.onNew}>
        <Plus size={18} aria-hidden="true" />
        Limits
      </Button>
      <Button onClick={props.onImport}>
        <FileUp size={18} aria-hidden="true" />
        In
      </Button>
      <a className={buttonLook()} href="/api/specifications?format=csv" download>
        <FileDown size={18} aria-hidden="true" />
        CSV
      </a>
      <a className={buttonLook()} href="/api/specifications" download>
        <FileDown size={18} aria-hidden="true" />
        JSON
      </a>
    </div>
  );
}

const ImportLimits = (props: { onClose: () => void; onDone: () => void }) => (
  <ImportFile<SpecificationsPlan>
    title="Limits from a file"
    description="JSON or CSV, as “JSON” and “CSV” write them. Nothing is taken before you have seen what it meets on the shelf."
    url="/api/specifications/import"
    types={[
      ['.json', 'application/json'],
      ['.csv', 'text/csv'],
    ]}
    changes={(p) => p.rows.filter((r) => r.action !== 'unchanged').length}
    show={(p) => <PlanRows plan={p} />}
    {...props}
  />
);

/** The shelf of limits: what judges what, from where, approved or not, with its revisions. */
export function Shelf({ view, test: asked }: { view: SpecificationsView; test: string | null }) {
  const router = useRouter();
  const by = usePerson();
  const [search, setSearch] = useState(view.tests.find((t) => t.id === asked)?.name ?? '');
  const [picked, setPicked] = useState<string | null>(null);
  const [editing, setEditing] = useState<SpecificationLine | 'new' | null>(null);
  const [importing, setImporting] = useState(false);
  const { names, groups } = useFound(view, search);
  // A revision that has been replaced meanwhile opens what replaced it.
  const line = view.lines.find((l) => l.id === picked || l.earlier.some((r) => r.id === picked)) ?? null;
  const done = (): void => {
    setEditing(null);
    setImporting(false);
    router.refresh();
  };

  return (
    <main className="mx-auto grid w-full max-w-7xl flex-1 content-start gap-4 p-4 lg:grid-cols-[minmax(0,1fr)_24rem]">
      <div className="min-w-0">
        <ShelfTools
          search={search}
          onSearch={setSearch}
          onNew={() => setEditing('new')}
          onImport={() => setImporting(true)}
        />
        {view.choice && <Choice choice={view.choice} />}
        {groups.length === 0 && <p className="py-8 text-soft">Nothing on the shelf has “{search}” in it.</p>}
        {groups.slice(0, MOST_TESTS).map(([test, lines]) => (
          <section key={test} className="mb-4" aria-label={names.get(test)?.name ?? test}>
            <h2 className="font-bold">{names.get(test)?.name ?? test}</h2>
            <ul className="mt-1 flex flex-col gap-1">
              {lines.map((l) => (
                <li key={l.id}>
                  <LineButton line={l} active={l.id === line?.id} onPick={() => setPicked(l.id)} />
                </li>
              ))}
            </ul>
          </section>
        ))}
        {groups.length > MOST_TESTS && (
          <p className="text-soft">{groups.length - MOST_TESTS} more tests: type part of a name above.</p>
        )}
      </div>
      <div className="flex flex-col gap-4">
        {line ? (
          <LineDetail
            key={line.id}
            line={line}
            name={names.get(line.entry.test)?.name ?? line.entry.test}
            by={by}
            onEdit={() => setEditing(line)}
            onDone={() => router.refresh()}
          />
        ) : (
          <p className="rounded-xl border border-dashed border-line p-4 text-soft">
            Choose limits to see where they come from, their revisions, and what they would change.
          </p>
        )}
        <Depots view={view} by={by} onDone={() => router.refresh()} />
      </div>
      {editing && (
        <EditLimits
          view={view}
          line={editing === 'new' ? null : editing}
          test={asked ?? undefined}
          by={by}
          onClose={() => setEditing(null)}
          onDone={done}
        />
      )}
      {importing && <ImportLimits onClose={() => setImporting(false)} onDone={done} />}
    </main>
  );
}

const MOST_TESTS = 60;

/** All that a line is found by, made once: searching runs on every keystroke. */
function textOf(l: SpecificationLine, names: ReadonlyMap<string, { name: string; area: string }>): string {
  const test = names.get(l.entry.test);
  return [
    test?.name,
    test?.area,
    l.entry.test,
    forWords(l.entry),
    l.entry.school,
    l.entry.source,
    STATUS_WORDS[l.status],
    whenWords(l.entry.when),
  ]
    .join(' ')
    .toLowerCase();
}

function findLines(
  texts: readonly { line: SpecificationLine; text: string }[],
  search: string,
): readonly SpecificationLine[] {
  const words = search.trim().toLowerCase().split(/\s+/).filter(Boolean);
  return texts.filter(({ text }) => words.every((w) => text.includes(w))).map(({ line }) => line);
}

const TONES = {
  approved: 'text-eelgrass',
  draft: 'text-ochre',
  'rule-of-thumb': 'text-soft',
  withdrawn: 'text-soft line-through',
} as const;

function LineButton({ line, active, onPick }: { line: SpecificationLine; active: boolean; onPick: () => void }) {
  const { entry, status, revision, ships } = line;
  return (
    <button
      type="button"
      aria-pressed={active}
      onClick={onPick}
      className={`grid min-h-12 w-full items-center gap-x-3 rounded-lg border bg-card px-3 py-1.5 text-left sm:grid-cols-[minmax(0,11rem)_minmax(0,1fr)_9rem] ${active ? 'border-estuary ring-2 ring-estuary' : 'border-line hover:border-estuary'}`}
    >
      <span className="min-w-0">
        <b className="block truncate">{forWords(entry)}</b>
        <span className="block truncate text-sm text-soft">
          {[entry.school && tr`house rule “${entry.school}”`, whenWords(entry.when)]
            .filter(Boolean)
            .map(word)
            .join(', ')}
        </span>
      </span>
      <span className="min-w-0">
        <span className="block font-mono">{limitWords(entry)}</span>
        <span className="block truncate text-sm text-soft">{entry.source}</span>
      </span>
      <span className={`text-sm sm:text-right ${TONES[status]}`}>
        <b>{STATUS_WORDS[status]}</b>
        <span className="block text-soft">{ships ? 'ships with the test' : tr`revision ${revision}`}</span>
      </span>
    </button>
  );
}

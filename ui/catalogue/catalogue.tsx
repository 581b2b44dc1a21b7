'use client';
import { tr } from '../../core/locale/translate';
import { FileDown, FileUp, Plus, Search } from 'lucide-react';
import { useRouter } from '../kit/router';
import { useMemo, useState } from 'react';
import { indexFindable, searchWords } from '../../core/catalogue/search';
import type { TestDefinition } from '../../core/catalogue/types';
import { groupBy } from '../../core/foundation/collections';
import { Button, buttonLook } from '../kit/button';
import { ImportFile } from '../kit/import-file';
import { usePerson } from '../kit/session';
import { useDetail } from '../kit/use-detail';
import { copyOf } from './draft';
import type { CatalogueEntry } from './entry';
import { EditTest } from './edit-test';
import { NewTest } from './new-test';
import { TestDetail } from './test-detail';
import type { CataloguePlan } from '../../application/catalogue-plan';

/** All tests that can be done, found while typing; a lead adds and copies them here. */
export function Catalogue({ entries }: { entries: readonly CatalogueEntry[] }) {
  const router = useRouter();
  const by = usePerson();
  const [search, setSearch] = useState('');
  const [detail, show] = useDetail<HTMLDivElement>();
  const [picked, setPicked] = useState(entries[0]?.test.id ?? '');
  const [editing, setEditing] = useState<{ test: TestDefinition; isNew: boolean } | null>(null);
  const [beginning, setBeginning] = useState(false);
  const [importing, setImporting] = useState(false);
  const find = useMemo(
    () => indexFindable(entries.map((e) => ({ ...e, name: e.test.name, words: searchWords(e.test) }))),
    [entries],
  );
  const found = useMemo(() => find(search), [find, search]);
  const areas = [...new Set(entries.map((e) => e.test.area))];
  const entry = entries.find((e) => e.test.id === picked) ?? found[0];
  const done = (id?: string): void => {
    if (id !== undefined) setPicked(id);
    setEditing(null);
    setBeginning(false);
    setImporting(false);
    router.refresh();
  };
  return (
    <main className="mx-auto grid w-full max-w-7xl flex-1 content-start gap-4 p-4 lg:grid-cols-[22rem_minmax(0,1fr)]">
      <div>
        <TestList
          entries={entries}
          picked={entry?.test.id ?? null}
          search={search}
          found={found}
          onSearch={setSearch}
          onPick={(id) => {
            setPicked(id);
            show();
          }}
        />
        <CatalogueTools onNew={() => setBeginning(true)} onImport={() => setImporting(true)} />
      </div>
      <div ref={detail} tabIndex={-1} className="min-w-0 scroll-mt-3 focus:outline-none">
        {entry ? (
          <TestDetail
            key={entry.test.id}
            entry={entry}
            by={by}
            onCopy={() => setEditing({ test: copyOf(entry.test), isNew: true })}
            onEdit={() => setEditing({ test: entry.test, isNew: false })}
            onDone={() => router.refresh()}
          />
        ) : (
          <p className="text-soft">No test has “{search}” in it.</p>
        )}
      </div>
      {beginning && (
        <NewTest
          areas={areas}
          taken={new Set(entries.map((e) => e.test.id))}
          by={by}
          onAll={(test) => {
            setBeginning(false);
            setEditing({ test, isNew: true });
          }}
          onClose={() => setBeginning(false)}
          onDone={done}
        />
      )}
      {editing && (
        <EditTest
          test={editing.test}
          isNew={editing.isNew}
          areas={areas}
          by={by}
          onClose={() => setEditing(null)}
          onDone={done}
        />
      )}
      {importing && <ImportTests onClose={() => setImporting(false)} onDone={done} />}
    </main>
  );
}

/** A new test, and all of them in and out as files. */
function CatalogueTools({ onNew, onImport }: { onNew: () => void; onImport: () => void }) {
  return (
    <div className="mt-2 flex flex-wrap gap-2">
      <Button onClick={onNew}>
        <Plus size={18} aria-hidden="true" />
        Test
      </Button>
      <Button onClick={onImport}>
        <FileUp size={18} aria-hidden="true" />
        In
      </Button>
      <a className={buttonLook()} href="/api/catalogue" download>
        <FileDown size={18} aria-hidden="true" />
        All
      </a>
      <a className={buttonLook()} href="/api/catalogue?own=1" download>
        <FileDown size={18} aria-hidden="true" />
        Our own
      </a>
    </div>
  );
}

interface TestListProps {
  readonly entries: readonly CatalogueEntry[];
  readonly found: readonly CatalogueEntry[];
  readonly picked: string | null;
  readonly search: string;
  readonly onSearch: (text: string) => void;
  readonly onPick: (id: string) => void;
}

/** The tests that were found, by area, under the field that finds them. */
function TestList({ entries, found, picked, search, onSearch, onPick }: TestListProps) {
  return (
    <>
      <label className="mb-2 flex min-h-12 items-center gap-2 rounded-lg border-2 border-line bg-card px-3">
        <Search size={18} aria-hidden="true" />
        <span className="sr-only">Find a test</span>
        <input
          value={search}
          onChange={(e) => onSearch(e.target.value)}
          placeholder="Find a test"
          className="min-w-0 flex-1 bg-transparent focus-visible:outline-none"
        />
      </label>
      <p className="mb-2 text-sm text-soft" role="status">
        {found.length === entries.length ? tr`${entries.length} tests` : tr`${found.length} of ${entries.length} tests`}
      </p>
      <div className="lg:max-h-[calc(100dvh-15rem)] lg:overflow-y-auto lg:pr-1">
        {[...groupBy(found, (e) => e.test.area)].map(([area, those]) => (
          <section key={area} className="mb-3" aria-label={area}>
            <h2 className="text-sm font-semibold text-soft">{area}</h2>
            <ul>
              {those.map(({ test, own }) => (
                <li key={test.id}>
                  <button
                    type="button"
                    aria-pressed={test.id === picked}
                    onClick={() => onPick(test.id)}
                    className={`block min-h-10 w-full rounded-lg border px-3 py-1 text-left ${test.id === picked ? 'border-estuary bg-card font-semibold' : 'border-transparent hover:border-line'}`}
                  >
                    {test.name}
                    {own && <span className="ml-2 text-sm font-normal text-estuary">our own</span>}
                  </button>
                </li>
              ))}
            </ul>
          </section>
        ))}
      </div>
    </>
  );
}

function ImportTests({ onClose, onDone }: { onClose: () => void; onDone: () => void }) {
  return (
    <ImportFile<CataloguePlan>
      title="Tests from a file"
      description="JSON, as “All” and “Our own” write it. Nothing is taken before you have seen what it changes."
      url="/api/catalogue/import"
      types={[['.json', 'application/json']]}
      changes={(p) => p.rows.filter((r) => r.action !== 'unchanged').length}
      onClose={onClose}
      onDone={onDone}
      show={(p) => (
        <ul>
          {p.rows.map((r) => (
            <li key={r.id} className="border-t border-line py-1">
              <b>{r.name}</b> <span className="font-mono text-sm text-soft">{r.id}</span> {r.action}
            </li>
          ))}
        </ul>
      )}
    />
  );
}

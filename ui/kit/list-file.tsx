'use client';
import { tr } from '../../core/locale/translate';
import { FileDown, FileUp } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import type { ListPlan } from '../../application/list-plan';
import { Button, buttonLook } from './button';
import { ImportFile } from './import-file';

type Planned<T> = ListPlan<T>['rows'][number];

export interface ListFileProps<T> {
  readonly title: string;
  /** What its columns are. */
  readonly description: string;
  readonly things: readonly [singular: string, plural: string];
  /** Takes the list, first to look, then to keep. */
  readonly importUrl: string;
  readonly exportUrl: string;
  readonly mayImport: boolean;
  /** What a row is about, before what is done to it. */
  readonly show: (row: Planned<T>) => ReactNode;
  readonly onDone: () => void;
}

/**
 * Things of one kind as a CSV list: into a file, and from one. Several may stand on a page: their names say
 * of what.
 */
export function ListFile<T>(p: ListFileProps<T>) {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      {p.mayImport && (
        <Button aria-label={tr`From a list: ${p.things[1]}`} onClick={() => setOpen(true)}>
          <FileUp size={18} aria-hidden="true" />
          From a list
        </Button>
      )}
      <a className={buttonLook()} aria-label={tr`As a list: ${p.things[1]}`} href={p.exportUrl} download>
        <FileDown size={18} aria-hidden="true" />
        As a list
      </a>
      {isOpen && (
        <ImportFile<ListPlan<T>>
          title={p.title}
          description={p.description}
          url={p.importUrl}
          types={[['.csv', 'text/csv']]}
          things={p.things}
          changes={(plan) => plan.rows.filter((r) => r.action !== 'unchanged').length}
          show={(plan) => (
            <ul className="max-h-72 overflow-y-auto">
              {plan.rows.map((r, i) => (
                // A list is shown once, as it is: its rows never change places.
                <li key={i}>
                  {p.show(r)}: {r.action}
                </li>
              ))}
            </ul>
          )}
          onClose={() => setOpen(false)}
          onDone={() => {
            setOpen(false);
            p.onDone();
          }}
        />
      )}
    </>
  );
}

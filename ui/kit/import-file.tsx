'use client';
import { type ReactNode, useState } from 'react';
import { v7 } from 'uuid';
import type { Problem } from '../../core/foundation/result';
import type { ProblemDetails } from '../../formats/problem';
import { Button } from './button';
import { Dialog } from './dialog';

interface Planned {
  readonly stored: number;
}

export interface ImportFileProps<P extends Planned> {
  readonly title: string;
  readonly description: string;
  readonly url: string;
  /** Name of the file field. Default: File. */
  readonly label?: string;
  /** What is taken: "entry", "entries". */
  readonly verb?: string;
  readonly things?: readonly [singular: string, plural: string];
  /** MIME types by what the name ends with; the first is taken for any other. */
  readonly types: readonly (readonly [ending: string, type: string])[];
  readonly changes: (plan: P) => number;
  readonly show: (plan: P) => ReactNode;
  readonly onClose: () => void;
  readonly onDone: () => void;
}

/** A file that was chosen, what the server would do with it, and having it done. */
function useImport<P extends Planned>({ url, types, onDone }: Pick<ImportFileProps<P>, 'url' | 'types' | 'onDone'>) {
  const [file, setFile] = useState<{ file: File; type: string; batch: string } | null>(null);
  const [plan, setPlan] = useState<P | null>(null);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const [busy, setBusy] = useState(false);

  async function ask(chosen: File, type: string, query: string): Promise<P | null> {
    setBusy(true);
    try {
      const response = await fetch(`${url}${query}`, {
        method: 'POST',
        headers: { 'content-type': type },
        body: chosen,
      });
      if (response.ok) {
        setProblems([]);
        return (await response.json()) as P;
      }
      setProblems(((await response.json()) as ProblemDetails).errors);
    } catch {
      setProblems([{ path: '', message: 'No server. Nothing was stored; try again when it is back.' }]);
    } finally {
      setBusy(false);
    }
    return null;
  }

  async function choose(chosen: File | undefined): Promise<void> {
    if (!chosen) return;
    const type =
      (types.find(([ending]) => chosen.name.toLowerCase().endsWith(ending)) ?? types[0])?.[1] ?? 'application/json';
    // Its bytes, as they are: the server tells how the letters are written.
    setFile({ file: chosen, type, batch: v7() });
    setPlan(await ask(chosen, type, ''));
  }

  async function store(): Promise<void> {
    if (file && (await ask(file.file, file.type, `?batch=${file.batch}`))) onDone();
  }

  return { plan, problems, busy, choose, store };
}

/**
 * A file in two steps: first what it would do; then, if the person agrees, the server takes it in one piece.
 */
export function ImportFile<P extends Planned>(props: ImportFileProps<P>) {
  const { title, description, label = 'File', verb = 'Take', types, changes, show, onClose } = props;
  const [singular, plural] = props.things ?? ['entry', 'entries'];
  const { plan, problems, busy, choose, store } = useImport<P>(props);
  const count = plan ? changes(plan) : 0;
  return (
    <Dialog wide onClose={onClose} title={title} description={description}>
      <input
        type="file"
        accept={types.flat().join()}
        aria-label={label}
        className="block w-full rounded-lg border border-line p-3"
        onChange={(e) => void choose(e.target.files?.[0])}
      />
      {problems.length > 0 && (
        <ul role="alert" className="mt-3 max-h-60 overflow-y-auto font-semibold text-rust">
          {problems.slice(0, 200).map((p) => (
            <li key={p.path + p.message}>
              {p.message}
              {p.path && <span className="ml-2 font-mono text-sm font-normal">{p.path}</span>}
            </li>
          ))}
        </ul>
      )}
      {plan && <div className="mt-4 max-h-80 overflow-y-auto">{show(plan)}</div>}
      {plan && (
        <div className="mt-4 flex items-center gap-3">
          <Button tone="strong" disabled={busy || count === 0} onClick={() => void store()}>
            {verb} {count === 1 ? `1 ${singular}` : `${count} ${plural}`}
          </Button>
          {count === 0 && <span className="text-sm text-soft">The file says what is here already.</span>}
        </div>
      )}
    </Dialog>
  );
}

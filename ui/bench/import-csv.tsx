'use client';
import { useState } from 'react';
import { v7 } from 'uuid';
import type { ProblemDetails } from '../../formats/problem';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';

interface Plan {
  readonly rows: readonly { line: number; position: number | string; entry: string; action: 'new' | 'correction' | 'unchanged'; was: string | null }[];
  readonly problems: readonly { line: number; message: string }[];
  readonly stored: number;
}

async function post(url: string, text: string): Promise<Plan | string> {
  try {
    const response = await fetch(url, { method: 'POST', headers: { 'content-type': 'text/csv' }, body: text });
    if (response.ok) return (await response.json()) as Plan;
    const problem = (await response.json()) as ProblemDetails;
    return problem.errors.map((e) => e.message).join(' ') || problem.title;
  } catch {
    return 'No server. Nothing was stored; try again when it is back.';
  }
}

/** A file in two steps: first what it would do, row by row; then, if the person agrees, it is stored. */
export function ImportCsv({ runId, by, onClose }: { runId: string; by: string; onClose: () => void }) {
  const [text, setText] = useState('');
  const [batch, setBatch] = useState('');
  const [plan, setPlan] = useState<Plan | null>(null);
  const [error, setError] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);

  async function ask(url: string, body: string): Promise<Plan | null> {
    setBusy(true);
    const answer = await post(url, body);
    setBusy(false);
    if (typeof answer === 'string') { setError(answer); return null; }
    setError(null);
    return answer;
  }

  async function choose(file: File | undefined): Promise<void> {
    if (!file) return;
    const content = await file.text();
    setText(content);
    setBatch(v7());
    setPlan(await ask(`/api/runs/${runId}/csv`, content));
  }

  async function store(): Promise<void> {
    const done = await ask(`/api/runs/${runId}/csv?batch=${batch}&by=${encodeURIComponent(by)}`, text);
    if (done) window.location.reload();
  }

  const changes = plan?.rows.filter((r) => r.action !== 'unchanged') ?? [];
  return (
    <Dialog open onOpenChange={(open) => { if (!open) onClose(); }} title="Readings from a file" description="CSV with a header row; the columns position and entry are needed. Nothing is stored before you have seen what the file says.">
      <input type="file" accept=".csv,text/csv,text/plain" aria-label="CSV file" className="block w-full rounded-lg border border-line p-3" onChange={(e) => void choose(e.target.files?.[0])} />
      {error && <p role="alert" className="mt-3 font-semibold text-rust">{error}</p>}
      {plan && <PlanTable plan={plan} />}
      {plan && (
        <div className="mt-4 flex flex-wrap items-center gap-3">
          <Button tone="strong" disabled={busy || changes.length === 0} onClick={() => void store()}>Store {changes.length === 1 ? '1 reading' : `${changes.length} readings`}</Button>
          {plan.problems.length > 0 && <span className="text-sm text-ochre">{plan.problems.length} rows are left out.</span>}
          {changes.length === 0 && <span className="text-sm text-soft">The file says what is here already.</span>}
        </div>
      )}
    </Dialog>
  );
}

const MOST_SHOWN = 200;

function PlanTable({ plan }: { plan: Plan }) {
  return (
    <div className="mt-4 max-h-72 overflow-y-auto">
      {plan.problems.length > 0 && (
        <ul className="mb-3 border-l-4 border-rust pl-3" aria-label="Rows that cannot be read">
          {plan.problems.slice(0, MOST_SHOWN).map((p) => <li key={p.line}>Line {p.line}: {p.message}</li>)}
        </ul>
      )}
      <table className="w-full text-left">
        <thead><tr className="text-sm text-soft"><th>Line</th><th>Position</th><th>Entry</th><th>What it does</th></tr></thead>
        <tbody>
          {plan.rows.slice(0, MOST_SHOWN).map((r) => (
            <tr key={r.line} className="border-t border-line">
              <td>{r.line}</td><td>{r.position}</td><td className="font-mono">{r.entry}</td>
              <td>{r.action === 'correction' ? <>corrects <span className="font-mono">{r.was}</span></> : r.action}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

'use client';
import { tr } from '../../core/locale/translate';
import { ImportFile } from '../kit/import-file';

interface Plan {
  readonly rows: readonly {
    line: number;
    position: number | string;
    entry: string;
    action: 'new' | 'correction' | 'unchanged';
    was: string | null;
  }[];
  readonly problems: readonly { line: number; message: string }[];
  readonly stored: number;
}

/** Readings from a file: first what it would do, row by row; then, if the person agrees, they are stored. */
export function ImportCsv({ runId, onClose }: { runId: string; onClose: () => void }) {
  return (
    <ImportFile<Plan>
      title="Readings from a file"
      description="CSV with a header row; the columns position and entry are needed. Nothing is stored before you have seen what the file says."
      url={`/api/runs/${runId}/csv`}
      label="CSV file"
      verb="Store"
      things={['reading', 'readings']}
      types={[['.csv', 'text/csv']]}
      changes={(plan) => plan.rows.filter((r) => r.action !== 'unchanged').length}
      show={(plan) => <PlanTable plan={plan} />}
      onClose={onClose}
      onDone={() => window.location.reload()}
    />
  );
}

const MOST_SHOWN = 200;

function PlanTable({ plan }: { plan: Plan }) {
  return (
    <div>
      {plan.problems.length > 0 && (
        <ul className="mb-3 border-l-4 border-rust pl-3" aria-label="Rows that cannot be read">
          <li className="text-ochre">
            {plan.problems.length === 1 ? '1 row is left out.' : tr`${plan.problems.length} rows are left out.`}
          </li>
          {plan.problems.slice(0, MOST_SHOWN).map((p) => (
            <li key={p.line}>
              Line {p.line}: {p.message}
            </li>
          ))}
        </ul>
      )}
      <table className="w-full text-left">
        <thead>
          <tr className="text-sm text-soft">
            <th>Line</th>
            <th>Position</th>
            <th>Entry</th>
            <th>What it does</th>
          </tr>
        </thead>
        <tbody>
          {plan.rows.slice(0, MOST_SHOWN).map((r) => (
            <tr key={r.line} className="border-t border-line">
              <td>{r.line}</td>
              <td>{r.position}</td>
              <td className="font-mono">{r.entry}</td>
              <td>
                {r.action === 'correction' ? (
                  <>
                    corrects <span className="font-mono">{r.was}</span>
                  </>
                ) : (
                  r.action
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

import { noteOf, rowsOf } from '../../application/posts/rows';
import { scaleFor } from '../../application/posts/scale';
import type { reportFacts } from '../../application/report/facts';
import type { RunView } from '../../application/views';
import { readerUnit } from '../../core/quantity/reader-unit';
import { PostRow } from '../posts/post-row';

/** The posts of a test on paper, a row for each bank. */
export function PrintedPosts({ run }: { run: RunView }) {
  const rows = rowsOf(run.unit.engine, run.definition);
  const readings = new Map(run.judgement.readings.map((r) => [r.position, r]));
  return (
    <div className="mt-2 flex flex-col gap-2">
      {rows.map((r, i) => (
        <div key={r.title} className="flex h-52 break-inside-avoid">
          <PostRow
            title={r.title}
            note={noteOf(run.unit.engine, i, rows.length, run.definition)}
            positions={r.positions}
            readings={readings}
            limits={run.specification.limits}
            scale={scaleFor(run.specification.limits)}
            active={null}
          />
        </div>
      ))}
    </div>
  );
}

/** What was read, as it was typed and corrected, with its verdict. */
export function ReadingsTable({ run, rows }: { run: RunView; rows: ReturnType<typeof reportFacts>['rows'] }) {
  return (
    <table className="mt-3 w-full border-collapse text-left [&_td:not(:last-child)]:pr-3 [&_th:not(:last-child)]:pr-3">
      <thead>
        <tr className="border-b border-ink">
          <th>Where</th>
          <th>Read</th>
          <th>Corrected, {readerUnit(run.specification.limits.unit).symbol}</th>
          <th>Verdict</th>
          <th>Why</th>
          <th>When, who</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={r.reading.position} className="border-b border-line align-top">
            <td className="font-bold">{r.reading.position}</td>
            <td className="font-mono">{r.entry}</td>
            <td className="font-mono whitespace-nowrap">{r.corrected}</td>
            <td className="font-semibold whitespace-nowrap">{r.verdict}</td>
            <td>{r.reasons}</td>
            <td className="whitespace-nowrap">{r.taken}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

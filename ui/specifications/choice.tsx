import { tr } from '../../core/locale/translate';
import { Link } from '../kit/link';
import type { ChoiceView } from '../../application/specifications-view';
import { forWords, limitWords, whenWords, WHY_NOT } from './words';

/** Why the limits of a run judge it, and why the others do not. */
export function Choice({ choice }: { choice: ChoiceView }) {
  return (
    <section className="mb-4 rounded-xl border-2 border-estuary bg-card p-4" aria-label="Which limits judge">
      <h2 className="font-bold">
        <Link className="underline" href={`/runs/${choice.runId}`}>
          {choice.title}
        </Link>
      </h2>
      <p className="mt-1">
        <b>Why these limits:</b> {choice.because || 'They were chosen before reasons were kept.'}
      </p>
      {choice.passedOver.length === 0 ? (
        <p className="mt-1 text-soft">Nothing else on the shelf is about this test.</p>
      ) : (
        <table className="mt-2 w-full text-left text-sm">
          <thead>
            <tr className="text-soft">
              <th>Passed over</th>
              <th>Limits</th>
              <th>Why</th>
            </tr>
          </thead>
          <tbody>
            {choice.passedOver.map((p) => (
              <tr key={p.id} className="border-t border-line align-top">
                <td>
                  {[
                    forWords(p.entry),
                    whenWords(p.entry.when),
                    p.entry.school && tr`house rule “${p.entry.school}”`,
                    tr`revision ${p.revision}`,
                  ]
                    .filter(Boolean)
                    .join(', ')}
                </td>
                <td className="font-mono">{limitWords(p.entry)}</td>
                <td>{WHY_NOT[p.why]}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

import { tr } from '../../core/locale/translate';
import type { Clash } from '../../core/specifications/clash';
import type { SpecificationsPlan } from '../../application/specifications-view';
import { fieldWords, forWords, limitWords, valueWords, whenWords } from './words';

const ACTION = { new: 'new', revision: 'next revision', unchanged: 'is there already' } as const;
const MOST_SHOWN = 300;

/** What a file would do, with what it meets on the shelf beside it. */
export function PlanRows({ plan }: { plan: SpecificationsPlan }) {
  return (
    <ul className="flex flex-col gap-2">
      {plan.rows.slice(0, MOST_SHOWN).map((r, i) => (
        <li key={i} className="rounded-lg border border-line p-2">
          <p>
            <b>{r.entry.test}</b> {forWords(r.entry)} {whenWords(r.entry.when)}{' '}
            {r.entry.school && tr`house rule “${r.entry.school}”`}{' '}
            <span className="font-mono">{limitWords(r.entry)}</span>{' '}
            <b className={r.action === 'unchanged' ? 'text-soft' : 'text-estuary'}>{ACTION[r.action]}</b>
          </p>
          {r.clashes.map((c) => (
            <SideBySide key={c.with.id} clash={c} />
          ))}
        </li>
      ))}
      {plan.rows.length > MOST_SHOWN && <li className="text-soft">and {plan.rows.length - MOST_SHOWN} more.</li>}
    </ul>
  );
}

const KIND: Readonly<Record<Clash['kind'], string>> = {
  same: 'The same is there already.',
  revision: 'Replaces, as the next revision:',
  clash: 'Stands for exactly the same condition:',
  overlap: 'Can hold at the same time as:',
};

/** What stands on the shelf and what would come, field by field where they differ. */
export function SideBySide({ clash }: { clash: Clash }) {
  const { kind, differs } = clash;
  return (
    <div className="mt-2 rounded-lg border-l-4 border-ochre bg-panel p-2 text-sm">
      <p className="font-semibold">
        {KIND[kind]} {clash.with.source}, revision {clash.with.revision}
      </p>
      {differs.length > 0 && (
        <table className="mt-1 w-full text-left">
          <thead>
            <tr className="text-soft">
              <th>Field</th>
              <th>On the shelf</th>
              <th>Coming</th>
            </tr>
          </thead>
          <tbody>
            {differs.map((d) => (
              <tr key={d.field} className="border-t border-line align-top">
                <td>{fieldWords(d.field)}</td>
                <td className="font-mono break-all">{valueWords(d.there)}</td>
                <td className="font-mono font-semibold break-all">{valueWords(d.here)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

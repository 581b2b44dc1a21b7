import { tr } from '../../core/locale/translate';
import { type CodeStatus, countOf, decodeCode, type findCodes } from '../../core/codes/decode';
import { type Fate, PHASE_WORDS } from '../../core/codes/phases';
import type { CodeMeaning } from '../../core/codes/types';
import type { knownCodes } from '../../application/codes';
import type { JobView } from '../../application/views';
import { Describe } from './describe-code';
import { FreezeFrames } from './freeze-frame';

const TONES: Readonly<Record<Fate, string>> = {
  'as found': 'text-ink',
  'came back': 'text-rust',
  gone: 'text-eelgrass',
  new: 'text-rust',
  'caused by testing': 'text-soft',
};

interface Props {
  readonly view: JobView;
  readonly known: ReturnType<typeof knownCodes>;
  readonly busy: boolean;
  readonly onTakeBack: (code: string) => void;
}

/** The codes of a job: what each says, when it was read, and what became of it. */
export function KnownCodes({ view, known, busy, onTakeBack }: Props) {
  return (
    <table className="mt-1 w-full text-left max-sm:text-[15px] max-sm:leading-snug">
      <thead className="text-sm text-soft">
        <tr>
          <th>Code</th>
          <th>What it says</th>
          <th>Read</th>
          <th>What became of it</th>
          <th>
            <span className="sr-only">Take back</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {known.map((c) => (
          <tr key={c.code} className="border-t border-line align-top">
            <td className="py-1 pr-3 font-mono font-semibold max-sm:w-16 max-sm:pr-2 sm:whitespace-nowrap">{c.code}</td>
            <td className="pr-3 max-sm:pr-2">
              {meaningWords(c)}
              {c.confidence === 'maker-defined' && (
                <Describe depotId={view.depotId} code={c.code} text={view.descriptions[c.code] ?? ''} />
              )}
              <FreezeFrames codes={view.codes} code={c.code} />
            </td>
            <td className="pr-3 text-sm">
              {c.phases.map((p) => PHASE_WORDS[p]).join(', ')}
              {newestWords(view, c.code)}
            </td>
            <td className={`pr-3 font-semibold max-sm:pr-1 ${TONES[c.fate]}`}>{c.fate}</td>
            <td>
              <button
                type="button"
                className="min-h-9 px-1 text-sm underline sm:px-2 pointer-coarse:min-h-12"
                aria-label={tr`take back ${c.code}`}
                disabled={busy}
                onClick={() => onTakeBack(c.code)}
              >
                take back
              </button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** "active, 3 times"; empty where nothing was noted. */
const saidWords = (status: CodeStatus, count: string | null): string =>
  [status === 'unknown' ? '' : status, count === null ? '' : count === '1' ? 'once' : tr`${count} times`]
    .filter(Boolean)
    .join(', ');

function newestWords(view: JobView, code: string): string {
  const newest = view.codes.findLast((c) => c.code === code);
  const words = newest ? saidWords(newest.status, countOf(newest.freezeFrame)) : '';
  return words && `: ${words}`;
}

/** What the typed text says before it is kept. */
export function Preview({ read }: { read: ReturnType<typeof findCodes> }) {
  if (read.codes.length === 0 && read.unknown.length === 0) return null;
  return (
    <div className="mt-2 text-sm" aria-live="polite">
      <ul>
        {read.codes.map(({ code, status, count }, i) => {
          const meaning = decodeCode(code);
          return (
            <li key={i}>
              <span className="font-mono font-semibold">{code}</span>{' '}
              {meaning.ok ? meaningWords(meaning.value) : <span className="text-rust">{meaning.error}</span>}{' '}
              <span className="text-soft">
                {saidWords(status ?? 'unknown', count === undefined ? null : String(count))}
              </span>
            </li>
          );
        })}
      </ul>
      {read.unknown.length > 0 && <p className="text-ochre">Left out, no code: {read.unknown.join(' ')}</p>}
    </div>
  );
}

/** "glow plug, cylinder 2: circuit or open (SAE J2012)" */
export function meaningWords(m: CodeMeaning): string {
  const what = m.component ?? (m.confidence === 'maker-defined' ? tr`${m.system}, defined by the maker` : m.system);
  return `${what}${m.cylinder === null ? '' : tr`, cylinder ${m.cylinder}`}${m.failure === null ? '' : `: ${m.failure}`} (${m.standard})`;
}

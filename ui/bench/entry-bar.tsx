'use client';
import { entryShown } from '../../core/locale/numbers';
import { readerUnit } from '../../core/quantity/reader-unit';
import { tr } from '../../core/locale/translate';
import { capital } from '../../core/foundation/text';
import { CornerDownLeft } from 'lucide-react';
import type { KeyboardEvent, Ref } from 'react';
import type { Limits } from '../../core/judge/types';
import { positionWords } from '../../core/judge/words';
import { useOnClient } from '../kit/on-client';
import type { Target } from './target';
import type { Line } from './use-run';

export interface EntryBarProps {
  readonly ref: Ref<HTMLInputElement>;
  readonly target: Target;
  readonly draft: string;
  readonly error: string | null;
  readonly unit: string;
  readonly limits: Limits;
  /** The reading that this entry would supersede. */
  readonly correcting: Line | undefined;
  readonly why: string;
  readonly onWhy: (why: string) => void;
  readonly onType: (text: string) => void;
  readonly onKey: (e: KeyboardEvent) => void;
  readonly onSubmit: () => void;
  readonly onPress: (key: string) => void;
  readonly onSkipZero: () => void;
}

const REASONS = ['misread', 'typed wrong', 'terminal cleaned', 'read again'] as const;
type KeyCap = readonly [key: string, meaning: string];
const KEYS: readonly KeyCap[] = [
  ['k', '×1000'],
  ['OL', 'open'],
  ['~', 'wanders'],
];

/** The keys that a test's own entries need. */
function keysFor({ limits, target }: Pick<EntryBarProps, 'limits' | 'target'>): readonly KeyCap[] {
  if (target?.kind === 'lead-zero') return [];
  if (limits.quantity === 'observation')
    return [
      ['pass', 'as it should'],
      ['fail', 'with a note'],
    ];
  if (limits.transfer || limits.pair !== undefined || limits.stimulus)
    return [
      ['@', limits.pair !== undefined ? tr`${limits.pair} shows` : 'gauge shows'],
      ['~', 'wanders'],
    ];
  if (limits.quantity === 'time') return [['OL', 'never']];
  return limits.quantity === 'resistance' ? KEYS : [['~', 'wanders']];
}

export function EntryBar({ ref, ...props }: EntryBarProps) {
  const { target, draft, error, correcting, limits, onKey, onSubmit, onType, onPress } = props;
  const label = labelOf(props);
  // What is typed before the page is alive would be lost: until then the field takes nothing.
  const ready = useOnClient();
  return (
    <form
      className="no-print shrink-0"
      onSubmit={(e) => {
        e.preventDefault();
        onSubmit();
      }}
    >
      {/* Its place is kept where there is room for it beside all posts: they must not move when one is
          picked. */}
      <div className="flex flex-col justify-end gap-1 pb-1 lg:pointer-fine:min-h-10">
        {error && (
          <p id="entry-error" role="alert" className="font-semibold text-rust">
            {error}
          </p>
        )}
        {correcting && <Correction {...props} correcting={correcting} />}
        {target?.kind === 'lead-zero' && <ZeroHint clamp={limits.quantity === 'current'} onSkip={props.onSkipZero} />}
      </div>
      <div className="flex flex-wrap gap-2 sm:flex-nowrap">
        <div
          className={`flex min-h-16 min-w-0 flex-1 basis-full items-center gap-3 rounded-xl border-3 bg-card px-4 sm:basis-0 ${error ? 'border-rust' : 'border-estuary'}`}
        >
          <label htmlFor="entry" className="shrink-0 font-bold">
            {label}
          </label>
          <input
            id="entry"
            ref={ref}
            value={draft}
            disabled={!ready}
            autoComplete="off"
            autoCorrect="off"
            spellCheck={false}
            maxLength={40}
            aria-invalid={error !== null}
            aria-describedby={error ? 'entry-error' : undefined}
            placeholder={target === null ? 'choose a post' : ''}
            className="min-w-0 flex-1 bg-transparent font-mono text-3xl placeholder:text-lg placeholder:text-soft focus-visible:outline-none"
            onChange={(e) => onType(e.target.value)}
            onKeyDown={onKey}
          />
          <span className="shrink-0 font-mono text-2xl text-soft">
            {target?.kind === 'lead-zero'
              ? limits.quantity === 'current'
                ? 'mV or A'
                : 'Ω'
              : readerUnit(props.unit).symbol}
          </span>
        </div>
        {keysFor(props).map(([key, meaning]) => (
          <button
            key={key}
            type="button"
            onClick={() => onPress(key)}
            className="flex min-h-16 min-w-15 flex-1 flex-col items-center justify-center rounded-xl border border-line bg-card sm:flex-none"
          >
            <span className="font-mono text-xl font-medium">{key}</span>{' '}
            <span className="text-xs text-soft">{meaning}</span>
          </button>
        ))}
        <button
          type="submit"
          className="flex min-h-16 flex-1 items-center justify-center gap-2 rounded-xl bg-estuary px-4 font-bold text-on-estuary sm:flex-none"
        >
          Record <CornerDownLeft size={18} aria-hidden="true" />
        </button>
      </div>
    </form>
  );
}

function labelOf({ target, correcting, limits }: Pick<EntryBarProps, 'target' | 'correcting' | 'limits'>): string {
  if (target === null) return 'All read';
  if (target.kind === 'lead-zero') return limits.quantity === 'current' ? 'Clamp, no wire' : 'Leads together';
  const name = positionWords(target.position);
  return correcting ? tr`Correct ${name}` : capital(name);
}

function ZeroHint({ clamp, onSkip }: { clamp: boolean; onSkip: () => void }) {
  return (
    <p className="flex flex-wrap items-center gap-x-3 text-sm text-soft">
      {clamp
        ? 'Hold the clamp away from any wire and enter what it shows: it keeps a remainder from its last use.'
        : 'Touch the leads together and enter what the meter shows: the limit is small enough for the leads to matter.'}
      <button type="button" className="min-h-8 font-semibold text-estuary underline" onClick={onSkip}>
        Not now
      </button>
    </p>
  );
}

function Correction({ correcting, why, onWhy }: Pick<EntryBarProps, 'why' | 'onWhy'> & { correcting: Line }) {
  return (
    <p className="flex flex-wrap items-center gap-2 text-sm">
      <span>
        Was <span className="font-mono font-semibold">{entryShown(correcting.entry)}</span>; it stays in the record.
        Why:
      </span>
      {REASONS.map((reason) => (
        <button
          key={reason}
          type="button"
          aria-pressed={why === reason}
          onClick={() => onWhy(reason)}
          className={`min-h-8 rounded-lg border px-2 ${why === reason ? 'border-estuary bg-estuary text-on-estuary' : 'border-line bg-card'}`}
        >
          {reason}
        </button>
      ))}
    </p>
  );
}

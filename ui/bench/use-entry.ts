import { tr } from '../../core/locale/translate';
import { useState } from 'react';
import { findSlip } from '../../core/judge/slip';
import type { Position } from '../../core/judge/types';
import { withReaderUnits } from '../../core/limits/entry-for-reader';
import { readEntry } from '../../core/limits/entry';
import type { Limits } from '../../core/limits/types';
import { readClampZero, readLeadZero } from '../../formats/instrument';
import { meantEntry, type SlipAsked } from './slip-question';
import type { Run } from './use-run';
import type { Targeting } from './use-target';

/** What is typed, until it is a reading. */
export interface EntryField {
  readonly error: string | null;
  /** A question that stands beside the field: was another prefix meant? */
  readonly slip: SlipAsked | null;
  /** Why a reading is corrected. */
  readonly why: string;
  readonly setWhy: (why: string) => void;
  readonly clearError: () => void;
  readonly type: (text: string) => void;
  readonly submit: () => void;
  /** Records what the question offers instead. */
  readonly takeMeant: () => void;
  /** A key that says all there is to say, where there is nothing to measure. */
  readonly pressSeen: (key: 'pass' | 'fail') => void;
}

const EMPTY = 'Type what the display shows, OL where it shows overload.';
/** Not an error at the field: a question stands beside it. */
const ASKED = 'asked';

/**
 * One letter is enough for the overload, whoever types it out gets it all the same; a w for the wander that
 * few keyboards have a good key for.
 */
const asMeant = (text: string): string => (/^(o|open|OL[lpen])$/i.test(text) ? 'OL' : text.replace(/w/i, '~'));

export function useEntry(
  run: Run,
  limits: Limits,
  clamp: number | null,
  targeting: Targeting,
  [draft, setDraft]: readonly [string, (text: string) => void],
): EntryField {
  const { target, active, taken } = targeting;
  const [error, setError] = useState<string | null>(null);
  const [why, setWhy] = useState('misread');
  const [slip, setSlip] = useState<SlipAsked | null>(null);

  function recordZero(entry: string): string | null {
    const zero = clamp === null ? readLeadZero(entry) : readClampZero(entry, clamp);
    if (!zero.ok) return zero.error;
    run.change({ leadZero: entry });
    targeting.pick('auto');
    return null;
  }
  function recordReading(position: Position, entry: string): string | null {
    const read = readEntry(entry, limits, clamp);
    if (!read.ok) return read.error;
    if (read.value.entry.kind === 'nothing') return EMPTY;
    const slipped = findSlip(entry, position, limits, run.judgement.readings);
    if (slipped && !(slip?.position === position && slip.entry === entry)) {
      setSlip({ position, entry, slip: slipped });
      return ASKED;
    }
    setSlip(null);
    run.record(position, entry, run.current.has(position) ? why : null);
    targeting.goOn(position);
    return null;
  }
  /** Shows what is wrong, or empties the field. */
  function settle(problem: string | null): void {
    setError(problem === ASKED ? null : problem);
    if (problem === null) setDraft('');
  }
  function submit(): void {
    const typed = draft.trim();
    const entry = target?.kind === 'lead-zero' ? typed : withReaderUnits(typed, limits);
    if (target === null) return setError('All positions are read. Choose one with the arrow keys to correct it.');
    if (taken) {
      targeting.acceptTaken();
      return setError(
        tr`${taken.entry} was read here by somebody else meanwhile. Enter again sends yours as a correction of it; Esc leaves theirs.`,
      );
    }
    if (entry === '') return setError(EMPTY);
    settle(target.kind === 'lead-zero' ? recordZero(entry) : recordReading(target.position, entry));
  }
  function type(text: string): void {
    targeting.hold();
    setError(null);
    setSlip(null);
    if (limits.quantity === 'observation') return setDraft(text);
    setDraft(asMeant(text));
  }
  return {
    error,
    slip,
    why,
    setWhy,
    clearError: () => {
      setError(null);
      setSlip(null);
    },
    type,
    submit,
    takeMeant: () => {
      if (slip) settle(recordReading(slip.position, meantEntry(slip, limits)));
    },
    pressSeen: (key) => {
      if (active === null) return;
      setError(recordReading(active, `${key} ${draft}`.trim()));
      setDraft('');
    },
  };
}

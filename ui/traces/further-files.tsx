'use client';
import { tr } from '../../core/locale/translate';
import { useState } from 'react';
import type { ProposedShift } from '../../application/traces/together';
import type { Dialect } from '../../formats/trace/dialect';
import { MOST_FILES } from '../../formats/requests/traces';
import type { FurtherFile } from '../../workers/trace.worker';
import { Button, buttonLook } from '../kit/button';
import { inputLook } from '../kit/field';
import { joinFile } from './reader';

/** A further file of the drive while it is laid beside the first. */
export interface FurtherDraft {
  readonly file: File;
  readonly kind: 'csv' | 'wav' | 'can';
  readonly columns: readonly { readonly name: string; readonly unit: string | null }[];
  readonly proposed: ProposedShift;
  /** Seconds as typed; as proposed until a person changes it. */
  readonly shift: string;
}

const shown = (shift_s: number): string => shift_s.toFixed(3);
export const shiftOf = (d: FurtherDraft): number => Number(d.shift.trim().replace(',', '.'));
export const isShiftWrong = (d: FurtherDraft): boolean =>
  d.shift.trim() === '' || !Number.isFinite(shiftOf(d)) || Math.abs(shiftOf(d)) > 1e9;

/** As it is read: what a person has typed is by hand. */
export const furtherFile = (d: FurtherDraft): FurtherFile =>
  d.shift === shown(d.proposed.shift_s)
    ? { file: d.file, shift_s: d.proposed.shift_s, how: d.proposed.how }
    : { file: d.file, shift_s: shiftOf(d), how: 'by hand' };

interface Props {
  readonly first: File;
  readonly dialect: Dialect | null;
  readonly further: readonly FurtherDraft[];
  readonly disabled: boolean;
  readonly onChange: (further: readonly FurtherDraft[], isOther: boolean) => void;
}

/**
 * Other files of the same drive, laid on the clock of the first: by what moves in both, by time stamps, or by
 * hand.
 */
export function FurtherFiles({ first, dialect, further, disabled, onChange }: Props) {
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  async function add(file: File | undefined): Promise<void> {
    if (!file) return;
    setBusy(true);
    setProblem(null);
    const joined = await joinFile(first, dialect, file);
    setBusy(false);
    if (!joined.ok) {
      setProblem(tr`${file.name}${joined.place ? `, ${joined.place}` : ''}: ${joined.message} It was not added.`);
      return;
    }
    onChange([...further, { file, ...joined.value, shift: shown(joined.value.proposed.shift_s) }], true);
  }
  return (
    <div className="mt-3">
      <ul className="flex flex-col gap-2" aria-label="Other files of this drive">
        {further.map((d, i) => (
          <li key={i} className="rounded-lg border border-line p-2">
            <Further
              draft={d}
              first={first}
              onShift={(shift) =>
                onChange(
                  further.map((o, k) => (k === i ? { ...o, shift } : o)),
                  false,
                )
              }
              onRemove={() =>
                onChange(
                  further.filter((_, k) => k !== i),
                  true,
                )
              }
            />
          </li>
        ))}
      </ul>
      {further.length + 1 < MOST_FILES && (
        <label className={`${buttonLook('plain')} mt-2 cursor-pointer focus-within:outline-2`}>
          {busy ? 'Reading it' : 'Add another file of the same drive'}
          <input
            type="file"
            className="sr-only"
            accept=".csv,.txt,.log,.tsv,.asc,.wav,text/csv,text/plain,audio/wav"
            disabled={disabled || busy}
            onChange={(e) => {
              void add(e.target.files?.[0]);
              e.target.value = '';
            }}
          />
        </label>
      )}
      {problem && (
        <p role="alert" className="mt-2 font-semibold text-rust">
          {problem}
        </p>
      )}
    </div>
  );
}

function Further({
  draft: d,
  first,
  onShift,
  onRemove,
}: {
  draft: FurtherDraft;
  first: File;
  onShift: (shift: string) => void;
  onRemove: () => void;
}) {
  return (
    <>
      <p className="font-semibold">{d.file.name}</p>
      <p className="text-sm">{d.proposed.because}</p>
      <div className="flex flex-wrap items-end gap-3">
        <label className="text-sm">
          Begins later than {first.name} by (seconds)
          <input
            aria-label={tr`Shift in seconds, ${d.file.name}`}
            aria-invalid={isShiftWrong(d)}
            className={`${inputLook} font-mono`}
            inputMode="decimal"
            autoComplete="off"
            value={d.shift}
            onChange={(e) => onShift(e.target.value)}
          />
        </label>
        <Button onClick={onRemove}>Leave it out</Button>
      </div>
      {isShiftWrong(d) && (
        <p role="alert" className="font-semibold text-rust">
          Type a number of seconds; below 0 where it began earlier.
        </p>
      )}
    </>
  );
}

'use client';
import { shownUnit } from '../../core/quantity/reader-unit';
import { tr } from '../../core/locale/translate';
import type { Slip } from '../../core/judge/slip';
import { positionWords } from '../../core/judge/words';
import type { Limits, Position } from '../../core/judge/types';
import { printLimit } from '../../core/quantity/print';

/** An entry that looks like a slip of the prefix, with what was probably meant. */
export interface SlipAsked {
  readonly position: Position;
  readonly entry: string;
  readonly slip: Slip;
}

/** Asked before it lands: the meter may have stepped to another prefix by itself. Enter keeps it as typed. */
export function SlipQuestion({ asked, limits, onMeant }: { asked: SlipAsked; limits: Limits; onMeant: () => void }) {
  const { slip, entry, position } = asked;
  const unit = shownUnit(limits.unit);
  return (
    <p
      role="alert"
      className="mb-1 flex flex-wrap items-center gap-x-3 gap-y-1 rounded-lg border-2 border-ochre bg-card px-3 py-1 text-ochre"
    >
      <span>
        <b>
          {printLimit(slip.typed, unit)} at {positionWords(position)}?
        </b>{' '}
        {questionOf(slip, unit)}
      </span>
      {slip.because !== 'battery' && (
        <button
          type="button"
          className="min-h-10 rounded-lg border border-line bg-card px-3 font-semibold text-ink"
          onClick={onMeant}
        >
          It shows {printLimit(slip.meant, unit)}
        </button>
      )}
      <span className="text-sm">Enter again keeps {entry}.</span>
    </p>
  );
}

function questionOf(slip: Slip, unit: string): string {
  const meant = printLimit(slip.meant, unit);
  switch (slip.because) {
    case 'battery':
      return 'That is the battery, and nearly nothing belongs here. Is the black lead on battery plus? Then the ground is good: put it on battery minus and read again. Otherwise: a short to the battery, or another pin.';
    case 'turned':
      return tr`The clamp or the test leads may be turned around: ${meant}.`;
    case 'point':
      return tr`${meant} would fit: look at the point on the display.`;
    case 'neighbours':
      return tr`Its neighbours would fit ${meant}: look at the prefix on the display.`;
    case 'channel':
      return tr`The channel would fit ${meant}: look at the prefix on the display.`;
  }
}

/** The entry as it was probably meant, in the unit of the limits, with the digits that were typed. */
export const meantEntry = ({ slip }: SlipAsked, limits: Limits): string =>
  `${Number(slip.meant.toPrecision(12))} ${limits.unit}`;

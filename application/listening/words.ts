import { tr } from '../../core/locale/translate';
import { positionWords } from '../../core/judge/words';
import type { Position } from '../../core/judge/types';

/**
 * What the bench says aloud while both hands are on the probes. All of it is here: another language is
 * another one of these.
 */
export const SPOKEN = {
  language: 'en',
  position: (p: Position): string => positionWords(p),
  leadsTogether: 'leads together',
  value: (entry: string): string =>
    entry === 'OL'
      ? 'open'
      : entry
          .replace(/~OL$/, ' to open')
          .replace('~', ' to ')
          .replace(/MΩ/, 'megohms')
          .replace(/kΩ/, 'kilohms')
          .replace(/mΩ/, 'milliohms')
          .replace(/Ω/, 'ohms')
          .replace(/\bmV\b/, 'millivolts')
          .replace(/\bV\b/, 'volts')
          .replace(/\bmA\b/, 'milliamperes')
          .replace(/\bA\b/, 'amperes')
          .replace(/°C/, 'degrees'),
  reading: (p: Position, entry: string, verdict: string): string =>
    `${SPOKEN.position(p)}, ${SPOKEN.value(entry)}, ${verdict}.`,
  zero: (entry: string): string => tr`Leads together, ${SPOKEN.value(entry)}.`,
  isOpen: (p: Position): string => tr`${SPOKEN.position(p)}: nothing. Is it open? Touch the probes together for yes.`,
  isNothing: (p: Position): string =>
    tr`${SPOKEN.position(p)}: it shows nothing. Is the probe on it? The switch says yes.`,
  isShort: (p: Position): string =>
    tr`${SPOKEN.position(p)}: no more than the leads. Is the part shorted? The switch says yes, lift for no.`,
  again: (p: Position): string =>
    tr`${SPOKEN.position(p)} again? The switch says yes. For the next one lift, and touch anew.`,
  moved: (p: Position, entry: string): string =>
    tr`${SPOKEN.position(p)} has moved to ${SPOKEN.value(entry)}. Three touches of the probes, then read it again.`,
  back: (p: Position): string => tr`Back to ${SPOKEN.position(p)}.`,
  nothingToTakeBack: 'Nothing to take back.',
  done: 'All positions are read.',
  silent: 'The meter sends nothing any more.',
  lost: 'The meter is gone. Type, or wait until it is back.',
} as const;

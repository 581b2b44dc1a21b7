import { tr } from '../../core/locale/translate';
import type { Problem } from '../../core/foundation/result';

/** Before this nobody recorded anything here. */
const EARLIEST = Date.UTC(2000, 0, 1);
/** A tablet may be in another zone than it says; more than a day ahead its clock is wrong. */
const AHEAD_ms = 24 * 3600 * 1000;

/** What is wrong with the moment that a device gives, ISO 8601; `null` where it can be. */
export function clockProblem(moment: string, path: string, now = Date.now()): Problem | null {
  const at = Date.parse(moment);
  if (at >= EARLIEST && at <= now + AHEAD_ms) return null;
  const shown = Number.isNaN(at) ? moment : new Date(at).toISOString().slice(0, 16).replace('T', ' ');
  return { path, message: tr`The clock of this device says ${shown}: set it right, then enter this again.` };
}

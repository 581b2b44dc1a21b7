import { tr } from '../locale/translate';
import type { RecordedEvidence } from '../evidence/types';
import { positionWords } from '../judge/words';
import { type Found, renewedPositions, ticksOf } from './proof';
import { sequenceFor } from './sequences';
import type { ProofInputs } from './proof';

/**
 * What was mended by the ticked steps of a finding, as evidence: at each position where all of them are
 * ticked, at the moment of the last. So what was read there before is history without being written down
 * twice.
 */
export function mendedBySteps(i: Pick<ProofInputs, 'findings' | 'records' | 'cylinders'>): RecordedEvidence[] {
  return i.findings.flatMap(({ id, body }): RecordedEvidence[] => {
    if (body.kind !== 'found') return [];
    const positions = renewedPositions(id, body, i);
    return (positions.length ? positions : [undefined]).flatMap((position): RecordedEvidence[] => {
      const at = lastTick({ id, body }, i.records, position);
      if (at === null) return [];
      const part = body.name;
      const where = position === undefined ? body.name : positionWords(position);
      return [
        {
          id: `${id} ${position ?? ''}`.trim(),
          at,
          body: {
            kind: 'repair',
            where,
            path: body.what === 'path',
            part,
            ...(position === undefined ? {} : { position }),
            done: tr`${body.name}, every step is ticked`,
          },
        },
      ];
    });
  });
}

/**
 * When the last step of a position was ticked first; `null` while one is left. A value corrected later mends
 * nothing anew.
 */
function lastTick(
  f: { readonly id: string; readonly body: Found },
  records: ProofInputs['records'],
  position: number | string | undefined,
): string | null {
  const { steps } = sequenceFor(f.body.what, f.body.name);
  const ticks = ticksOf(f, records);
  const times = steps.map(
    (s) =>
      ticks.find((t) => t.body.step === s.id && (!s.each || position === undefined || t.body.position === position))
        ?.at,
  );
  const done = times.filter((t) => t !== undefined);
  return done.length === times.length && done.length ? done.reduce((a, b) => (a > b ? a : b)) : null;
}

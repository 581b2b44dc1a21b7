'use client';
import { entryShown } from '../../../core/locale/numbers';
import { Dialog as Radix } from 'radix-ui';
import { verdictWord } from '../../../core/judge/words';
import type { Limits } from '../../../core/judge/types';
import { capital } from '../../../core/foundation/text';
import { SEVERITY } from '../../../core/foundation/vocabulary';
import { SPOKEN } from '../../../application/listening/words';
import type { Target } from '../target';
import type { Listening } from './use-listening';
import { questionWords } from './use-listening';

const TONES = {
  pass: 'text-estuary',
  fail: 'text-rust',
  attention: 'text-ochre',
  undecided: 'text-ochre',
  none: 'text-soft',
} as const;

/** The bench at three metres: which position, what the meter shows, and what the last one was. */
export function FarView({
  listening,
  target,
  shown,
  limits,
  onClose,
}: {
  listening: Listening;
  target: Target;
  shown: string;
  limits: Limits;
  onClose: () => void;
}) {
  const { state, link, last } = listening;
  const { question } = state;
  return (
    <Radix.Root open onOpenChange={(open) => !open && onClose()}>
      <Radix.Portal>
        <Radix.Content
          aria-describedby=""
          className="fixed inset-0 z-50 flex flex-col justify-between gap-[2vh] overflow-hidden bg-ground p-[3vmin] text-ink"
        >
          <div className="flex items-start justify-between gap-4">
            <Radix.Title className="text-[clamp(2.5rem,11vmin,9rem)] leading-none font-bold">
              {framedWords(target)}
            </Radix.Title>
            <Radix.Close className="min-h-14 shrink-0 rounded-xl border-2 border-line bg-card px-5 text-xl font-bold">
              Near <kbd className="font-mono font-normal text-soft">Esc</kbd>
            </Radix.Close>
          </div>
          <p
            className="text-center font-mono text-[clamp(4rem,24vmin,20rem)] leading-none font-medium whitespace-nowrap"
            aria-label="The meter shows"
          >
            {link.isThere ? shown : '– –'}
          </p>
          <div className="min-h-[26vmin]" role="status">
            {question ? (
              <p className="text-[clamp(1.6rem,7vmin,5rem)] leading-tight font-bold text-ochre">
                {capital(questionWords({ ...question, question: question.kind }))}
              </p>
            ) : !link.isThere || state.misfit !== null ? (
              <p className="text-[clamp(1.6rem,6vmin,4rem)] leading-tight font-bold text-ochre">
                {state.misfit ?? link.words}
              </p>
            ) : last ? (
              <p
                className={`text-[clamp(2rem,10vmin,8rem)] leading-tight font-bold ${last.verdict ? TONES[SEVERITY[last.verdict]] : ''}`}
              >
                {capital(SPOKEN.position(last.position))}: <span className="font-mono">{entryShown(last.entry)}</span>
                {last.verdict && <>, {verdictWord(last.verdict, limits)}</>}
              </p>
            ) : null}
          </div>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

const framedWords = (target: Target): string =>
  target === null
    ? SPOKEN.done
    : capital(target.kind === 'lead-zero' ? SPOKEN.leadsTogether : SPOKEN.position(target.position));

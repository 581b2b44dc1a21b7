import { useState } from 'react';
import type { StageId } from '../../core/job/progress';

type Phase = 'untouched' | 'begun' | 'sent';

/** The stage whose work stands open, and what tells whether something has been begun in it. */
export interface OpenWork {
  readonly id: StageId | null;
  /** The job has moved on, and what was begun here is not kept yet. */
  readonly isLeft: boolean;
  readonly watch: { readonly onInput: () => void; readonly onSubmit: () => void };
  readonly leave: () => void;
}

/**
 * What is being typed is not taken away because the job moves on: by a colleague's reading, or by a part of the same form that
 * is kept first. `own`: the stage that is worked on now; `seen`: what the server has sent last.
 */
export function useOpenWork(own: StageId | null, seen: unknown): OpenWork {
  const [held, setHeld] = useState(own);
  const [phase, setPhase] = useState<{ readonly is: Phase; readonly seen: unknown }>({ is: 'untouched', seen });
  // What was sent is kept as soon as the server's next answer is there.
  const isOver = phase.is === 'untouched' || (phase.is === 'sent' && phase.seen !== seen);
  if (isOver && (held !== own || phase.is !== 'untouched')) {
    setHeld(own);
    setPhase({ is: 'untouched', seen });
  }
  return {
    id: isOver ? own : held,
    isLeft: !isOver && held !== own,
    watch: {
      onInput: () => setPhase({ is: 'begun', seen }),
      onSubmit: () => setPhase({ is: 'sent', seen }),
    },
    leave: () => setPhase({ is: 'untouched', seen }),
  };
}

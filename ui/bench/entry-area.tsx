'use client';
import type { KeyboardEvent, RefObject } from 'react';
import type { RunView } from '../../application/views';
import { EntryBar } from './entry-bar';
import type { ListenKeys } from './listening/listening';
import { Pad } from './pad';
import { SlipQuestion } from './slip-question';
import { firstUnconfirmed } from './states-bar';
import { isMeterDoubted, proveMeter, statesAsked } from './states-asked';
import type { BenchLayout } from './use-bench-layout';
import type { EntryField } from './use-entry';
import type { Run } from './use-run';
import type { Targeting } from './use-target';

/** What can be opened over the bench. */
export type Sheet = 'shortcuts' | 'csv' | 'override';

interface EntryAreaProps {
  readonly view: RunView;
  readonly run: Run;
  readonly layout: BenchLayout;
  readonly targeting: Targeting;
  readonly entry: EntryField;
  readonly draft: string;
  readonly pad: boolean | null;
  readonly input: RefObject<HTMLInputElement | null>;
  readonly pick: Targeting['pick'];
  readonly onSheet: (sheet: Sheet) => void;
  readonly onDraft: (text: string) => void;
  readonly listenKeys: RefObject<ListenKeys | null>;
  readonly onListen: () => void;
}

/** The entry bar with its question and its pad, and the keys of the bench. */
export function EntryArea(props: EntryAreaProps) {
  const { view, run, targeting, entry, draft, input, onDraft } = props;
  const { limits } = view.specification;
  const { target, active } = targeting;
  const focus = (): void => input.current?.focus();
  function submit(): void {
    entry.submit();
    focus();
  }
  function press(key: string): void {
    if (key === 'pass' || key === 'fail') return entry.pressSeen(key);
    if (key === 'Enter') return submit();
    if (key === 'back') return entry.type(draft.slice(0, -1));
    entry.type(key === 'OL' ? 'OL' : draft + key);
    focus();
  }
  return (
    <div className="sticky bottom-0 z-10 -mx-3 flex flex-col gap-2 bg-ground px-3 py-1 lg:static">
      {entry.slip && <SlipQuestion asked={entry.slip} limits={limits} onMeant={entry.takeMeant} />}
      <EntryBar
        ref={input}
        target={target}
        draft={draft}
        error={entry.error}
        unit={limits.unit}
        correcting={active === null ? undefined : run.current.get(active)}
        why={entry.why}
        limits={limits}
        onWhy={(reason) => {
          entry.setWhy(reason);
          focus();
        }}
        onType={entry.type}
        onKey={(e) =>
          pressKey(
            e,
            keysOf(props, () => onDraft('')),
          )
        }
        onSubmit={submit}
        onPress={press}
        onSkipZero={targeting.skipZero}
      />
      <Pad open={props.pad} seen={limits.quantity === 'observation'} onPress={press} />
    </div>
  );
}

type Keys = Readonly<Record<string, (() => void) | undefined>>;

/** What keys do that are no text. Arrows to the side, and letters, only while nothing is typed. */
function keysOf(
  { view, run, layout, targeting, draft, pick, onSheet, listenKeys, onListen }: EntryAreaProps,
  empty: () => void,
): Keys {
  const nothing = draft === '';
  const step = (by: 1 | -1) => (): void => {
    const next = targeting.beside(by);
    if (next) pick(next);
  };
  const open = firstUnconfirmed(statesAsked(view.definition.states, run.judgement, run.circumstance), run.circumstance);
  const zero = layout.zeroWanted || view.specification.limits.quantity === 'resistance';
  return {
    ArrowDown: step(1),
    ArrowUp: step(-1),
    ArrowRight: nothing ? step(1) : undefined,
    ArrowLeft: nothing ? step(-1) : undefined,
    Escape: () => {
      empty();
      pick('auto');
    },
    '?': () => onSheet('shortcuts'),
    p: nothing && isMeterDoubted(run) ? () => proveMeter(run) : undefined,
    y: nothing && open ? () => run.change({ states: [...run.circumstance.states, open.id] }) : undefined,
    l: nothing ? onListen : undefined,
    u: nothing ? listenKeys.current?.takeBack : undefined,
    f: nothing ? listenKeys.current?.far : undefined,
    z: nothing && zero ? () => pick({ kind: 'lead-zero' }) : undefined,
  };
}

function pressKey(e: KeyboardEvent, keys: Keys): void {
  const action = e.ctrlKey || e.metaKey || e.altKey ? undefined : keys[e.key];
  if (!action) return;
  e.preventDefault();
  action();
}

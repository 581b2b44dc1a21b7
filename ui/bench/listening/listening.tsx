'use client';
import { entryShown } from '../../../core/locale/numbers';
import { tr } from '../../../core/locale/translate';
import { Link } from '../../kit/link';
import { useEffect, useMemo, useRef, useState } from 'react';
import { SPOKEN } from '../../../application/listening/words';
import type { InstrumentView, RunView } from '../../../application/views';
import { entryOf } from '../../../core/instrument/entry';
import { linkWords } from '../../../core/instrument/link';
import type { MeterValue } from '../../../core/instrument/types';
import type { Position } from '../../../core/judge/types';
import { verdictWord } from '../../../core/judge/words';
import { capital } from '../../../core/foundation/text';
import type { Quantity } from '../../../core/quantity/units';
import { usePerson } from '../../kit/session';
import type { CloseFeed, Tell } from '../../instruments/feeds/feed';
import { openFeed } from '../../instruments/feeds/open-feed';
import { chooseAdapter } from '../../instruments/feeds/serial-feed';
import { type SimulatedFeed, simulatedFeed } from '../../instruments/feeds/simulated-feed';
import type { Run } from '../use-run';
import type { Targeting } from '../use-target';
import { meteredQuantity } from './context';
import { FarView } from './far-view';
import { useHearing, type HearingSettings } from './settings';
import { localVoice, playTone, speak, wakeSound } from './sound';
import { questionWords, useListening } from './use-listening';

/** What keys of the bench do while it listens. */
export interface ListenKeys {
  readonly yes: () => void;
  readonly takeBack: () => void;
  readonly far: () => void;
}

interface Props {
  readonly view: RunView;
  readonly run: Run;
  readonly targeting: Targeting;
  readonly order: readonly Position[];
  readonly clamp: number | null;
  /** Told what its keys do while it is there; `null` when it goes. */
  readonly onKeys: (keys: ListenKeys | null) => void;
  readonly onStop: () => void;
}

/** The bench without hands: what the meter in use shows is read, judged and said. */
export function Listening(props: Props) {
  const { view, run, clamp, onStop } = props;
  const quantity = meteredQuantity(view, clamp);
  const meter = view.instruments.find((i) => i.id === run.circumstance.instrumentId);
  const [isSimulated, setSimulated] = useState(false);
  const isDemo = typeof document !== 'undefined' && document.documentElement.dataset.installation === 'demo';
  const simulated = useMemo(
    () => (isSimulated && quantity ? simulatedFeed(view.definition.id, view.unit.engine, quantity) : null),
    [isSimulated, quantity, view],
  );
  if (quantity === null) return <Unfit onStop={onStop}>This test is not read with a meter: type it.</Unfit>;
  if (isSimulated && !simulated)
    return <Unfit onStop={onStop}>No circuit of the library is read by this test: there is nothing to simulate.</Unfit>;
  if (!simulated && !meter?.link)
    return (
      <Unfit onStop={onStop}>
        {meter ? tr`${meter.name} is typed` : 'No meter is chosen'}: how one is read is entered under{' '}
        <Link className="underline" href="/instruments">
          Instruments
        </Link>
        .
        {isDemo && (
          <button type="button" className={`${BUTTON} ml-3`} onClick={() => setSimulated(true)}>
            Simulated meter
          </button>
        )}
      </Unfit>
    );
  return (
    <Heard
      key={simulated ? 'simulated' : meter?.id}
      {...props}
      quantity={quantity}
      meter={simulated ? null : (meter ?? null)}
      simulated={simulated}
    />
  );
}

const BUTTON = 'inline-flex min-h-11 items-center gap-2 rounded-lg border border-line bg-card px-3 font-semibold';

function Unfit({ children, onStop }: { children: React.ReactNode; onStop: () => void }) {
  return (
    <section aria-label="Listening" className="flex flex-wrap items-center gap-2 rounded-xl bg-panel px-3 py-2">
      <p className="mr-auto">{children}</p>
      <button type="button" className={BUTTON} onClick={onStop}>
        Stop
      </button>
    </section>
  );
}

function Heard({
  quantity,
  meter,
  simulated,
  view,
  run,
  targeting,
  order,
  clamp,
  onKeys,
  onStop,
}: Props & { quantity: Quantity; meter: InstrumentView | null; simulated: SimulatedFeed | null }) {
  const person = usePerson();
  const [hearing, changeHearing] = useHearing(person);
  useEffect(() => {
    if (hearing.tones) wakeSound();
  }, [hearing.tones]);
  const [isFar, setFar] = useState(false);
  const [round, setRound] = useState(0);
  // A card that is the same by content is opened once.
  const linkKey = JSON.stringify([meter?.id, meter?.link, round]);
  const open = useMemo(
    () =>
      (tell: Tell): CloseFeed | null =>
        simulated ? simulated.open(tell) : meter ? openFeed(meter, quantity, tell) : null,
    // oxlint-disable-next-line react/exhaustive-deps -- `linkKey` names exactly what matters of the meter
    [simulated, linkKey, quantity],
  );
  const listening = useListening({ view, run, targeting, order, clamp, quantity }, open, hearing);
  const { state, link } = listening;
  useListenKeys(onKeys, { yes: listening.yes, takeBack: listening.takeBack, far: () => setFar((f) => !f) });
  const shown = displayWords(state.shown, quantity);
  const { limits } = view.specification;
  return (
    <section aria-label="Listening" className="flex flex-col gap-1 rounded-xl bg-panel px-3 py-1.5">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <output
          aria-label="The meter shows"
          title={simulated ? 'Simulated meter' : meter?.link ? `${meter.name}, ${linkWords(meter.link)}` : undefined}
          className="mr-auto min-w-32 font-mono text-2xl whitespace-nowrap"
        >
          {link.isThere ? shown : '– –'}
        </output>
        {state.shown?.lowBattery && <span className="text-sm font-bold text-ochre">its battery is low</span>}
        <Sounds hearing={hearing} onChange={changeHearing} />
        <button type="button" className={BUTTON} onClick={() => setFar(true)}>
          Far view <kbd className="font-mono text-soft">f</kbd>
        </button>
        <button type="button" className={BUTTON} onClick={listening.takeBack}>
          Last again <kbd className="font-mono text-soft">u</kbd>
        </button>
        <button type="button" className={BUTTON} onClick={onStop}>
          Stop <kbd className="font-mono text-soft">l</kbd>
        </button>
      </div>
      {simulated && <Probes feed={simulated} order={order} />}
      <Said
        listening={listening}
        limits={limits}
        onChooseAdapter={
          meter?.link?.kind === 'serial' && !link.isThere
            ? () => void chooseAdapter().then((chosen) => chosen && setRound((r) => r + 1))
            : null
        }
      />
      {isFar && (
        <FarView
          listening={listening}
          target={targeting.target}
          shown={shown}
          limits={limits}
          onClose={() => setFar(false)}
        />
      )}
    </section>
  );
}

/** What it asks, what is wrong with the meter, or what was read last. */
function Said({
  listening: { state, link, last, yes },
  limits,
  onChooseAdapter,
}: {
  listening: ReturnType<typeof useListening>;
  limits: RunView['specification']['limits'];
  onChooseAdapter: (() => void) | null;
}) {
  const trouble = state.misfit ?? (link.isThere ? null : link.words);
  return (
    <div role="status" aria-live="polite">
      {state.question ? (
        <p className="flex flex-wrap items-center gap-3 font-semibold text-ochre">
          {capital(questionWords({ ...state.question, question: state.question.kind }))}
          <button type="button" className={BUTTON} onClick={yes}>
            Yes <kbd className="font-mono text-soft">F9</kbd>
          </button>
        </p>
      ) : trouble !== null ? (
        <p className="flex flex-wrap items-center gap-3 font-semibold text-ochre">
          {trouble}
          {onChooseAdapter && (
            <button type="button" className={BUTTON} onClick={onChooseAdapter}>
              Choose the adapter
            </button>
          )}
        </p>
      ) : last ? (
        <p>
          {capital(SPOKEN.position(last.position))}: <span className="font-mono">{entryShown(last.entry)}</span>
          {last.verdict && <b>, {verdictWord(last.verdict, limits)}</b>}
        </p>
      ) : (
        <p className="text-soft">Put the probes on, and wait for the tone: the next position is framed by itself.</p>
      )}
    </div>
  );
}

const displayWords = (value: MeterValue | null, quantity: Quantity): string =>
  value === null ? '– –' : entryOf(value.value, value.step, quantity);

/** Keys while the focus is elsewhere too: a foot switch sends its key to whatever has it. */
function useListenKeys(onKeys: Props['onKeys'], own: ListenKeys): void {
  const latest = useRef(own);
  useEffect(() => {
    latest.current = own;
  });
  useEffect(() => {
    const keys: ListenKeys = {
      yes: () => latest.current.yes(),
      takeBack: () => latest.current.takeBack(),
      far: () => latest.current.far(),
    };
    const pressed = (e: KeyboardEvent): void => {
      const isTyping = e.target instanceof HTMLElement && e.target.matches('input, textarea, select');
      if (e.key === 'F9') {
        e.preventDefault();
        keys.yes();
      } else if (!isTyping && e.key === 'u') keys.takeBack();
      else if (!isTyping && e.key === 'f') keys.far();
    };
    onKeys(keys);
    window.addEventListener('keydown', pressed);
    return () => {
      onKeys(null);
      window.removeEventListener('keydown', pressed);
    };
  }, [onKeys]);
}

const SWITCH = 'flex min-h-11 items-center gap-2';

function Switch({ label, isOn, onChange }: { label: string; isOn: boolean; onChange: (isOn: boolean) => void }) {
  return (
    <label className={SWITCH}>
      <input type="checkbox" className="size-5" checked={isOn} onChange={(e) => onChange(e.target.checked)} />
      {label}
    </label>
  );
}

function Sounds({
  hearing,
  onChange,
}: {
  hearing: HearingSettings;
  onChange: (part: Partial<HearingSettings>) => void;
}) {
  return (
    <fieldset className="flex flex-wrap items-center gap-x-3">
      <legend className="sr-only">What is heard</legend>
      <Switch
        label="Tones"
        isOn={hearing.tones}
        onChange={(tones) => {
          onChange({ tones });
          if (tones) playTone('in', hearing.volume);
        }}
      />
      <Switch
        label="Speech"
        isOn={hearing.speech}
        onChange={(speech) => {
          onChange({ speech });
          if (speech) speak('Speech is on.', hearing.volume);
        }}
      />
      {hearing.speech && !localVoice() && (
        <span className="text-sm text-ochre">This device has no voice of its own: tones only.</span>
      )}
      {(hearing.tones || hearing.speech) && (
        <label className={SWITCH}>
          <span className="sr-only">Volume</span>
          <input
            type="range"
            min={0}
            max={1}
            step={0.1}
            value={hearing.volume}
            className="w-24"
            onChange={(e) => onChange({ volume: Number(e.target.value) })}
          />
        </label>
      )}
    </fieldset>
  );
}

/** The probes of the simulated meter: they stay where they are put. */
function Probes({ feed, order }: { feed: SimulatedFeed; order: readonly Position[] }) {
  const [at, setAt] = useState<number | string>('off');
  const put = (place: number | string): void => {
    setAt(place);
    feed.put(place);
  };
  const places: readonly (readonly [number | string, string])[] = [
    ['off', 'lifted'],
    ['together', 'together'],
    // As they are read on this bench.
    ...order.filter((p) => feed.positions.includes(p)).map((p) => [p, String(p)] as const),
  ];
  return (
    <div role="group" aria-label="Probes of the simulated meter" className="flex flex-wrap gap-1">
      {places.map(([place, words]) => (
        <button
          key={place}
          type="button"
          aria-pressed={at === place}
          className={`min-h-11 min-w-11 rounded-lg border-2 bg-card px-2 ${at === place ? 'border-estuary font-bold' : 'border-line'}`}
          onClick={() => put(place)}
        >
          {words}
        </button>
      ))}
    </div>
  );
}

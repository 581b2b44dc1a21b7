'use client';
import { isoDayShown } from '../../core/locale/dates';
import { tr } from '../../core/locale/translate';
import { memo, useState } from 'react';
import { Check } from 'lucide-react';
import { COMMAND_SEEN, ENGINE_SEEN } from '../../core/foundation/vocabulary';
import { useToday } from '../kit/on-client';
import type { RequiredState } from '../../core/catalogue/types';
import type { Quantity } from '../../core/quantity/units';
import type { CircumstanceView, InstrumentView, TestLeadView } from '../../application/views';

export interface StatesBarProps {
  readonly states: readonly RequiredState[];
  readonly circumstance: CircumstanceView;
  readonly instruments: readonly InstrumentView[];
  readonly leads: readonly TestLeadView[];
  readonly quantity: Quantity;
  readonly zeroWanted: boolean;
  readonly onChange: (part: Partial<CircumstanceView>) => void;
  readonly onZero: () => void;
  /** A lead signs off what cannot be had. */
  readonly onOverride: (() => void) | null;
}

/** A long name in a list takes no room from the posts. */
const NARROW = 'max-w-40 truncate';
/** On a narrow screen the row scrolls; what is not set comes first. */
const chip = (set: boolean): string =>
  `inline-flex shrink-0 whitespace-nowrap ${set ? '' : '-order-1'} min-h-9 pointer-coarse:min-h-12 items-center gap-1.5 rounded-lg border px-2.5 text-sm ${set ? 'border-line bg-card' : 'border-ochre bg-card font-bold text-ochre'}`;

/** The state that the key confirms: one at a time, in the order in which they stand. */
export const firstUnconfirmed = (
  states: readonly RequiredState[],
  c: Pick<CircumstanceView, 'states'>,
): RequiredState | undefined => states.find((s) => !c.states.includes(s.id));

type Part = Pick<StatesBarProps, 'circumstance' | 'onChange'>;

/**
 * What must be true now. Confirmed once; what is not confirmed stays visible and is printed with the result.
 */
export const StatesBar = memo(function StatesBar(props: StatesBarProps) {
  const { states, circumstance: c, instruments, leads, quantity, zeroWanted, onChange, onZero, onOverride } = props;
  const own = { circumstance: c, onChange };
  return (
    <div
      className="no-print flex shrink-0 gap-2 overflow-x-auto py-1 md:flex-wrap"
      role="group"
      aria-label="What must be true now"
    >
      <StateChips {...own} states={states} />
      {onOverride && states.some((s) => !c.states.includes(s.id)) && (
        <button type="button" className={chip(true)} onClick={onOverride}>
          sign off…
        </button>
      )}
      {(zeroWanted || c.leadZero !== null) && <ZeroChip zero={c.leadZero} quantity={quantity} onZero={onZero} />}
      {quantity === 'resistance' && zeroWanted && c.leadZero === null && leads.length > 0 && (
        <LeadChoice {...own} leads={leads} />
      )}
      {quantity !== 'observation' && <MeterChoice {...own} instruments={instruments} quantity={quantity} />}
      <Overdue meter={instruments.find((i) => i.id === c.instrumentId)} />
      <Temperature
        value={c.condition.partTemperature_degC}
        onChange={(t) => onChange({ condition: conditionWith(c.condition, 'partTemperature_degC', t) })}
      />
      <AlsoSeen condition={c.condition} onChange={(condition) => onChange({ condition })} />
    </div>
  );
});

function StateChips({ states, circumstance: c, onChange }: Part & Pick<StatesBarProps, 'states'>) {
  const firstOpen = firstUnconfirmed(states, c)?.id;
  const toggle = (id: string): void =>
    onChange({ states: c.states.includes(id) ? c.states.filter((s) => s !== id) : [...c.states, id] });
  return (
    <>
      {states.map((s) => {
        const set = c.states.includes(s.id);
        return (
          <button
            key={s.id}
            type="button"
            aria-pressed={set}
            title={s.why}
            className={chip(set)}
            onClick={() => toggle(s.id)}
          >
            {set ? <Check size={15} aria-hidden="true" /> : null}
            {s.label}
            {set ? '' : '?'}
            {s.id === firstOpen && <kbd className="font-mono font-normal">y</kbd>}
          </button>
        );
      })}
    </>
  );
}

function ZeroChip({ zero, quantity, onZero }: { zero: string | null } & Pick<StatesBarProps, 'quantity' | 'onZero'>) {
  const zeroed = quantity === 'current' ? 'clamp’s zero' : 'leads zeroed';
  return (
    <button type="button" className={chip(zero !== null)} onClick={onZero}>
      {zero === null ? (
        tr`${zeroed}?`
      ) : (
        <>
          <Check size={15} aria-hidden="true" />
          {zeroed}{' '}
          <b className="font-mono">
            {zero}
            {/[A-ZΩ]/i.test(zero) ? '' : quantity === 'current' ? ' A' : ' Ω'}
          </b>
        </>
      )}
    </button>
  );
}

function LeadChoice({ leads, onChange }: Part & Pick<StatesBarProps, 'leads'>) {
  return (
    <select
      aria-label="Leads measured before"
      className={`${chip(false)} ${NARROW}`}
      value=""
      onChange={(e) => onChange({ leadZero: e.target.value || null })}
    >
      <option value="">leads on the list?</option>
      {leads.map((l) => (
        <option key={l.name} value={l.zero}>
          {l.name}, {l.zero} Ω
        </option>
      ))}
    </select>
  );
}

/** Meters that read what is asked; all of them where none is said to. */
function MeterChoice({
  circumstance: c,
  instruments,
  quantity,
  onChange,
}: Part & Pick<StatesBarProps, 'instruments' | 'quantity'>) {
  const reads = instruments.filter(
    (i) => i.accuracy.length === 0 || i.accuracy.some((a) => a.quantity === quantity) || i.id === c.instrumentId,
  );
  const usable = reads.length ? reads : instruments;
  return (
    <select
      aria-label="Meter"
      className={`${chip(c.instrumentId !== null)} ${NARROW}`}
      value={c.instrumentId ?? ''}
      onChange={(e) => onChange({ instrumentId: e.target.value || null })}
    >
      <option value="">which meter?</option>
      {usable.map((i) => (
        <option key={i.id} value={i.id}>
          {i.name}
        </option>
      ))}
    </select>
  );
}

function Overdue({ meter }: { meter: InstrumentView | undefined }) {
  const today = useToday();
  if (meter?.calibrationDue == null || today === null || meter.calibrationDue >= today) return null;
  return (
    <span className="inline-flex min-h-9 items-center px-1 text-sm font-bold text-ochre">
      {tr`calibration was due ${isoDayShown(meter.calibrationDue)}`}
    </span>
  );
}

type Condition = CircumstanceView['condition'];

/** Absent where it was not noted. */
function conditionWith<K extends keyof Condition>(condition: Condition, field: K, value: Condition[K]): Condition {
  const others = Object.entries(condition).filter(([k]) => k !== field);
  return Object.fromEntries(value === undefined ? others : [...others, [field, value]]);
}

/** What the engine did and the scan tool showed meanwhile: seldom noted, so it opens on demand. */
function AlsoSeen({ condition, onChange }: { condition: Condition; onChange: (c: Condition) => void }) {
  const [isOpen, setOpen] = useState(false);
  if (!isOpen && condition.engineSeen === undefined && condition.commandSeen === undefined)
    return (
      <button
        type="button"
        className={`${chip(true)} px-3`}
        aria-label="Note what was seen of engine and command"
        title="Note what was seen of engine and command"
        onClick={() => setOpen(true)}
      >
        …
      </button>
    );
  return (
    <>
      <Seen
        label="Engine"
        asked="engine?"
        options={ENGINE_SEEN.map((e) => [e, tr`engine ${e}`])}
        value={condition.engineSeen}
        onChange={(engine) => onChange(conditionWith(condition, 'engineSeen', engine))}
      />
      <Seen
        label="Command on the scan tool"
        asked="command?"
        options={COMMAND_SEEN.map((s) => [s, tr`command ${s}`])}
        value={condition.commandSeen}
        onChange={(command) => onChange(conditionWith(condition, 'commandSeen', command))}
      />
    </>
  );
}

/** What was seen beside the readings, noted by choice; it may stay open. */
function Seen<T extends string>(p: {
  label: string;
  asked: string;
  options: readonly (readonly [T, string])[];
  value: T | undefined;
  onChange: (value: T | undefined) => void;
}) {
  return (
    <select
      aria-label={p.label}
      className={`${chip(true)} ${p.value === undefined ? 'text-soft' : ''}`}
      value={p.value ?? ''}
      onChange={(e) => p.onChange(p.options.find(([o]) => o === e.target.value)?.[0])}
    >
      <option value="">{p.asked}</option>
      {p.options.map(([o, words]) => (
        <option key={o} value={o}>
          {words}
        </option>
      ))}
    </select>
  );
}

function Temperature({ value, onChange }: { value: number | undefined; onChange: (t: number | undefined) => void }) {
  return (
    <label className={chip(value !== undefined)}>
      engine at
      <input
        key={value}
        defaultValue={value}
        inputMode="decimal"
        aria-label="Engine temperature in degrees Celsius"
        className="w-10 border-b border-soft bg-transparent text-center font-mono font-bold"
        onBlur={(e) => {
          const text = e.target.value.trim().replace(',', '.');
          const t = text === '' ? undefined : Number(text);
          if (t !== undefined && !(t >= -60 && t <= 400)) e.target.value = value === undefined ? '' : String(value);
          else if (t !== value) onChange(t);
        }}
        onKeyDown={(e) => {
          if (e.key === 'Enter') e.currentTarget.blur();
        }}
      />
      °C
    </label>
  );
}

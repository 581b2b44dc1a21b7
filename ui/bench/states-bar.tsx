'use client';
import { memo } from 'react';
import { Check } from 'lucide-react';
import type { RequiredState } from '../../core/catalogue/types';
import type { CircumstanceView, InstrumentView } from '../../formats/views';

export interface StatesBarProps {
  readonly states: readonly RequiredState[];
  readonly circumstance: CircumstanceView;
  readonly instruments: readonly InstrumentView[];
  readonly zeroWanted: boolean;
  readonly onChange: (part: Partial<CircumstanceView>) => void;
  readonly onZero: () => void;
}

/** On a narrow screen the row scrolls; what is not set comes first. */
const chip = (set: boolean): string =>
  `inline-flex shrink-0 whitespace-nowrap ${set ? '' : '-order-1'} min-h-9 pointer-coarse:min-h-12 items-center gap-1.5 rounded-lg border px-2.5 text-sm ${set ? 'border-line bg-card' : 'border-ochre bg-card font-bold text-ochre'}`;

/** What must be true now. Confirmed once; what is not confirmed stays visible and is printed with the result. */
export const StatesBar = memo(function StatesBar({ states, circumstance: c, instruments, zeroWanted, onChange, onZero }: StatesBarProps) {
  const toggle = (id: string): void => onChange({ states: c.states.includes(id) ? c.states.filter((s) => s !== id) : [...c.states, id] });
  return (
    <div className="no-print flex shrink-0 gap-2 overflow-x-auto py-1 md:flex-wrap" role="group" aria-label="What must be true now">
      {states.map((s) => {
        const set = c.states.includes(s.id);
        return (
          <button key={s.id} type="button" aria-pressed={set} title={s.why} className={chip(set)} onClick={() => toggle(s.id)}>
            {set ? <Check size={15} aria-hidden="true" /> : null}{s.label}{set ? '' : '?'}
          </button>
        );
      })}
      {(zeroWanted || c.leadZero !== null) && (
        <button type="button" className={chip(c.leadZero !== null)} onClick={onZero}>
          {c.leadZero === null ? 'leads zeroed?' : <><Check size={15} aria-hidden="true" />leads zeroed <b className="font-mono">{c.leadZero} Ω</b></>}
        </button>
      )}
      <select aria-label="Meter" className={chip(c.instrumentId !== null)} value={c.instrumentId ?? ''} onChange={(e) => onChange({ instrumentId: e.target.value || null })}>
        <option value="">which meter?</option>
        {instruments.map((i) => <option key={i.id} value={i.id}>{i.name}</option>)}
      </select>
      <Temperature value={c.condition.partTemperature_degC} onChange={(t) => onChange({ condition: without(c.condition, t) })} />
    </div>
  );
});

const without = (condition: CircumstanceView['condition'], t: number | undefined): CircumstanceView['condition'] => {
  const rest = { ...condition };
  delete (rest as { partTemperature_degC?: number }).partTemperature_degC;
  return t === undefined ? rest : { ...rest, partTemperature_degC: t };
};

function Temperature({ value, onChange }: { value: number | undefined; onChange: (t: number | undefined) => void }) {
  return (
    <label className={chip(value !== undefined)}>
      engine at
      <input key={value} defaultValue={value} inputMode="decimal" aria-label="Engine temperature in degrees Celsius" className="w-10 border-b border-soft bg-transparent text-center font-mono font-bold"
        onBlur={(e) => {
          const text = e.target.value.trim().replace(',', '.');
          const t = text === '' ? undefined : Number(text);
          if (t !== undefined && !(t >= -60 && t <= 400)) e.target.value = value === undefined ? '' : String(value);
          else if (t !== value) onChange(t);
        }}
        onKeyDown={(e) => { if (e.key === 'Enter') e.currentTarget.blur(); }} />
      °C
    </label>
  );
}

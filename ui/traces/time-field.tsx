'use client';
import { useState } from 'react';
import type { Dialect, TimeSource, TimeUnit } from '../../formats/trace/dialect';
import { inputLook } from '../kit/field';

const UNITS: readonly (readonly [TimeUnit, string])[] = [
  ['s', 'seconds'],
  ['ms', 'milliseconds'],
  ['us', 'microseconds'],
  ['min', 'minutes'],
  ['h', 'hours'],
];

/** When the samples were taken: a column of the file, or so many a second. */
export function TimeField({ dialect, onChange }: { dialect: Dialect; onChange: (time: TimeSource) => void }) {
  const { time, columns } = dialect;
  const [rate, setRate] = useState(time.kind === 'rate' ? String(time.rate_Hz) : '');
  const source = time.kind === 'rate' || time.kind === 'unknown' ? 'rate' : String(time.column);
  function choose(value: string): void {
    if (value === 'rate')
      onChange(Number(rate) > 0 ? { kind: 'rate', rate_Hz: Number(rate), column: null } : { kind: 'unknown' });
    else if (time.kind !== 'moment' || String(time.column) !== value)
      onChange({ kind: 'number', column: Number(value), unit: 's' });
  }
  return (
    <div className="mt-3 grid gap-3 sm:grid-cols-[16rem_12rem]">
      <label className="text-sm font-semibold">
        Time
        <select className={inputLook} value={source} onChange={(e) => choose(e.target.value)}>
          {columns.map((c, i) => (
            <option key={i} value={i}>
              column “{c.name}”
            </option>
          ))}
          <option value="rate">none: so many samples a second</option>
        </select>
      </label>
      {time.kind === 'number' && (
        <label className="text-sm font-semibold">
          It counts
          <select
            className={inputLook}
            value={time.unit}
            onChange={(e) => onChange({ ...time, unit: e.target.value as TimeUnit })}
          >
            {UNITS.map(([unit, words]) => (
              <option key={unit} value={unit}>
                {words}
              </option>
            ))}
          </select>
        </label>
      )}
      {source === 'rate' && (
        <label className="text-sm font-semibold">
          Samples a second
          <input
            className={`${inputLook} font-mono`}
            inputMode="decimal"
            value={rate}
            aria-invalid={!(Number(rate.replace(',', '.')) > 0)}
            onChange={(e) => {
              setRate(e.target.value);
              const value = Number(e.target.value.replace(',', '.'));
              onChange(value > 0 ? { kind: 'rate', rate_Hz: value, column: null } : { kind: 'unknown' });
            }}
          />
        </label>
      )}
    </div>
  );
}

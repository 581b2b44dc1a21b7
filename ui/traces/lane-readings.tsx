'use client';
import type { TraceView } from '../../application/views';
import { moment } from '../../core/signal/words';
import type { TraceData } from './trace-data';

interface Props {
  readonly trace: TraceView;
  readonly data: TraceData | null;
  readonly cursor_s: number | null;
  readonly large: number | null;
  readonly onLarge: (lane: number | null) => void;
}

/** Each lane's name, and what it carried where the cursor stands. */
export function LaneReadings({ trace, data, cursor_s, large, onLarge }: Props) {
  return (
    <div className="my-2 flex flex-wrap items-center gap-2">
      {trace.head.channels.map((c, i) => {
        const value = data && cursor_s !== null ? data.valueAt(i, cursor_s) : NaN;
        return (
          <button
            key={c.column}
            type="button"
            aria-pressed={large === i}
            onClick={() => onLarge(large === i ? null : i)}
            className={`min-h-12 rounded-lg border-2 px-3 text-left ${large === i ? 'border-estuary' : 'border-line'} bg-card`}
          >
            <span className="block text-sm text-soft">
              {i + 1} {c.name}
            </span>
            <span className="font-mono text-lg leading-tight font-semibold">
              {Number.isFinite(value) ? `${Number(value.toPrecision(4))} ${c.unit}` : `– ${c.unit}`}
            </span>
          </button>
        );
      })}
      {cursor_s !== null && <span className="font-mono text-sm text-soft">at {moment(cursor_s)}</span>}
    </div>
  );
}

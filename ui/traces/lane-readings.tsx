'use client';
import { tr } from '../../core/locale/translate';
import { significant } from '../../core/locale/numbers';
import { stimulusAt, stimulusOf, type Transfer } from '../../core/limits/transfer';
import type { TraceView } from '../../application/views';
import { moment } from '../../core/signal/words';
import type { TraceData } from './trace-data';

/** So far beyond its ends a sensor may still read by its own tolerance. Common practice, no source. */
const BEYOND_V = 0.1;

/** What acted on the sensor, by its transfer function: "412 kPa". */
function meaning(t: Transfer, reading: number): string {
  // Beyond the ends of a straight line no pressure gives such a voltage: its wire or supply does.
  const [low, high] = t.kind === 'ratiometric' ? [t.low.ratio * t.supply_V, t.high.ratio * t.supply_V] : [0, 0];
  const isBeyond = t.kind === 'ratiometric' && (reading < low - BEYOND_V || reading > high + BEYOND_V);
  const at = Number.isFinite(reading) && !isBeyond ? stimulusAt(t, reading) : null;
  const unit = stimulusOf(t).unit;
  return tr`${at === null ? '–' : significant(at, 4)} ${unit === 'degC' ? '°C' : unit}`;
}

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
              {Number.isFinite(value) ? `${significant(value, 4)} ${c.unit}` : `– ${c.unit}`}
            </span>
            {c.judgedBy?.transfer && (
              <span className="ml-2 font-mono text-sm">{meaning(c.judgedBy.transfer, value)}</span>
            )}
          </button>
        );
      })}
      {cursor_s !== null && <span className="font-mono text-sm text-soft">at {moment(cursor_s)}</span>}
    </div>
  );
}

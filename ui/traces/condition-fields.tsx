import { CONDITIONS_OF_CAPTURE, type TraceCapture, WARMTHS } from '../../formats/requests/traces';
import { inputLook } from '../kit/field';
import { CONDITION_WORDS } from './cycle-words';

/** What the engine did, and how warm it was. */
export function ConditionFields(props: {
  condition: TraceCapture['condition'];
  temperature: TraceCapture['temperature'];
  onCondition: (condition: TraceCapture['condition']) => void;
  onTemperature: (temperature: TraceCapture['temperature']) => void;
}) {
  return (
    <div className="mt-3 grid gap-3 sm:grid-cols-2">
      <label className="block text-sm">
        It is looked at over crank angle. Recorded while
        <select
          aria-label="Recorded while"
          className={inputLook}
          value={props.condition}
          onChange={(e) => props.onCondition(e.target.value as TraceCapture['condition'])}
        >
          {CONDITIONS_OF_CAPTURE.map((c) => (
            <option key={c} value={c}>
              {CONDITION_WORDS[c]}
            </option>
          ))}
        </select>
      </label>
      <label className="block text-sm">
        The engine was
        <select
          className={inputLook}
          value={props.temperature ?? ''}
          onChange={(e) => props.onTemperature(WARMTHS.find((w) => w === e.target.value))}
        >
          <option value="">not said</option>
          {WARMTHS.map((w) => (
            <option key={w}>{w}</option>
          ))}
        </select>
      </label>
    </div>
  );
}

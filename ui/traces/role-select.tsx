import { ROLES, type ChannelRole } from '../../core/signal/types';
import { inputLook } from '../kit/field';
import { ROLE_WORDS } from './columns';

/** What a channel of a recorder is connected to. `name`: for whoever does not see the field. */
export function RoleSelect(props: {
  label: string;
  name: string;
  value: ChannelRole;
  onChange: (role: ChannelRole) => void;
}) {
  return (
    <label className="text-sm">
      {props.label}
      <select
        aria-label={props.name}
        className={inputLook}
        value={props.value}
        onChange={(e) => props.onChange(e.target.value as ChannelRole)}
      >
        {ROLES.map((r) => (
          <option key={r} value={r}>
            {ROLE_WORDS[r]}
          </option>
        ))}
      </select>
    </label>
  );
}

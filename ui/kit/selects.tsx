'use client';
import { useTheme } from 'next-themes';
import { useOnClient } from './on-client';
import { PersonMenu } from './person-menu';

const THEMES = [
  ['shed', 'Shed'],
  ['night', 'Night shift'],
  ['sun', 'Sun'],
] as const;
const look = 'min-h-11 rounded-lg border border-line bg-card px-2 text-ink';

export function Selects() {
  const { theme, setTheme } = useTheme();
  const onClient = useOnClient();
  return (
    <div className="no-print flex items-center gap-2">
      <select
        aria-label="Light"
        disabled={!onClient}
        className={look}
        value={onClient ? (theme ?? 'shed') : 'shed'}
        onChange={(e) => setTheme(e.target.value)}
      >
        {THEMES.map(([id, name]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
      <PersonMenu />
    </div>
  );
}

'use client';
import type { CodeView } from '../../application/views';
import type { FreezeFrame } from '../../formats/requests/codes';

/**
 * "engine speed: 812 rpm" or "engine speed = 812 rpm", one a line. A line without a mark between is kept as a
 * value of its own.
 */
export function readFreezeFrame(text: string): FreezeFrame {
  return text
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean)
    .slice(0, 60)
    .map((line) => {
      const [, name = '', value = ''] = /^(.{1,80}?)\s*[:=\t]\s*(.{1,80})/.exec(line) ?? [];
      return name ? { name, value } : { name: 'noted', value: line.slice(0, 80) };
    });
}

/** What the controller kept with a code, the newest reading of it. */
export function FreezeFrames({ codes, code }: { codes: readonly CodeView[]; code: string }) {
  const frame = codes.findLast((c) => c.code === code && c.freezeFrame.length > 0)?.freezeFrame ?? [];
  if (frame.length === 0) return null;
  return (
    <details className="text-sm">
      <summary className="cursor-pointer text-soft">Freeze frame ({frame.length})</summary>
      <ul>
        {frame.map((f, i) => (
          <li key={i}>
            {f.name} <b className="font-mono">{f.value}</b>
          </li>
        ))}
      </ul>
    </details>
  );
}

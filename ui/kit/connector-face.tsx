import { tr, word } from '../../core/locale/translate';
import type { Connector, ConnectorPin } from '../../core/engine/connector';

/** A connector as its face shows it, row by row. Pins that are wanted stand out; unused ones are empty. */
export function ConnectorFace({ connector, wanted }: { connector: Connector; wanted: readonly ConnectorPin[] }) {
  const ends = connector.rows.map((_, i) => connector.rows.slice(0, i + 1).reduce((sum, n) => sum + n, 0));
  const rows = connector.rows.map((n, i) => connector.pins.slice((ends[i] ?? 0) - n, ends[i]));
  const words = tr`${connector.name}, from the ${connector.seenFrom}: ${connector.pins.map(pinWords).join('; ')}`;
  return (
    <div
      role="img"
      aria-label={words}
      className="inline-flex max-w-full flex-col gap-1 overflow-x-auto rounded-2xl border-2 border-post bg-panel p-2"
    >
      {rows.map((row, i) => (
        <div key={i} className="flex justify-center gap-1">
          {row.map((p) => (
            <Cavity key={p.pin} pin={p} isWanted={wanted.includes(p)} />
          ))}
        </div>
      ))}
    </div>
  );
}

function Cavity({ pin, isWanted }: { pin: ConnectorPin; isWanted: boolean }) {
  const look = isWanted
    ? 'border-estuary bg-estuary font-bold text-on-estuary'
    : pin.signal === ''
      ? 'border-dashed border-line text-soft'
      : 'border-ink bg-card';
  return (
    <span
      title={pinWords(pin)}
      className={`grid h-9 min-w-9 place-content-center rounded-md border-2 px-1 font-mono text-sm ${look}`}
    >
      {pin.pin}
    </span>
  );
}

/** "pin 4: injector 2, red/white, to module A3". */
export const pinWords = (p: ConnectorPin): string =>
  tr`pin ${p.pin}: ${p.signal === '' ? 'not used' : [p.signal, p.colour, p.to && tr`to ${p.to}`].filter(Boolean).map(word).join(', ')}`;

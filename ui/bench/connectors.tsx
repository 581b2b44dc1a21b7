'use client';
import { memo } from 'react';
import type { RunView } from '../../application/views';
import { pinsAt } from '../../core/engine/connector';
import type { Position } from '../../core/judge/types';
import { ConnectorFace, pinWords } from '../kit/connector-face';

/** Where pins are what is measured, they are looked for at once. */
const AT_PINS: ReadonlySet<string> = new Set(['pins', 'pairs']);

/** The connectors of this engine: which pin it is for the cylinder that is measured now. */
export const Connectors = memo(function Connectors({ view, active }: { view: RunView; active: Position | null }) {
  const { connectors, definition } = view;
  if (connectors.length === 0) return null;
  return (
    <details
      className="rounded-xl bg-card px-4 py-2"
      open={AT_PINS.has(definition.layout) || definition.area === 'Harness'}
    >
      <summary className="min-h-9 cursor-pointer text-sm font-semibold text-soft">Connectors of this engine</summary>
      <ul className="flex flex-col gap-3 pb-2">
        {connectors.map((c) => {
          const own = pinsAt(c, active);
          return (
            <li key={c.key}>
              <p className="font-semibold">
                {c.name}
                <span className="font-normal text-soft">
                  {c.place && `, ${c.place}`}, from the {c.seenFrom}
                </span>
              </p>
              <ConnectorFace connector={c} wanted={own} />
              {own.length > 0 && (
                <ul>
                  {own.map((p) => (
                    <li key={p.pin}>{pinWords(p)}</li>
                  ))}
                </ul>
              )}
              <p className="text-sm text-soft">{c.source}</p>
            </li>
          );
        })}
      </ul>
    </details>
  );
});

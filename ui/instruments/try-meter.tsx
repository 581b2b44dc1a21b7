'use client';
import { tr } from '../../core/locale/translate';
import { useEffect, useState } from 'react';
import type { InstrumentView } from '../../application/views';
import { entryOf } from '../../core/instrument/entry';
import { misfit } from '../../core/instrument/feed';
import { stepAt } from '../../core/instrument/rules';
import type { MeterValue } from '../../core/instrument/types';
import type { Quantity } from '../../core/quantity/units';
import { Button } from '../kit/button';
import { inputLook } from '../kit/field';
import type { FeedNews } from './feeds/feed';
import { openFeed } from './feeds/open-feed';
import { chooseAdapter, serialProblem } from './feeds/serial-feed';

const ASKED = ['resistance', 'voltage', 'current'] as const satisfies readonly Quantity[];

/** What an instrument shows now, before somebody relies on it. */
export function TryMeter({ instrument }: { instrument: InstrumentView }) {
  const [quantity, setQuantity] = useState<Quantity | null>(null);
  if (!instrument.link) return null;
  async function begin(): Promise<void> {
    if (instrument.link?.kind === 'serial' && serialProblem() === null) await chooseAdapter();
    setQuantity('resistance');
  }
  if (quantity === null)
    return (
      <Button aria-label={tr`Try ${instrument.name}`} onClick={() => void begin()}>
        Try
      </Button>
    );
  return (
    <div className="mt-2 rounded-lg bg-panel p-2">
      <Live key={quantity} instrument={instrument} quantity={quantity} />
      <div className="mt-2 flex gap-2">
        <select
          aria-label={tr`What ${instrument.name} is asked for`}
          className={inputLook}
          value={quantity}
          onChange={(e) => setQuantity(e.target.value as Quantity)}
        >
          {ASKED.map((q) => (
            <option key={q}>{q}</option>
          ))}
        </select>
        <Button onClick={() => setQuantity(null)}>Enough</Button>
      </div>
    </div>
  );
}

function Live({ instrument, quantity }: { instrument: InstrumentView; quantity: Quantity }) {
  const [news, setNews] = useState<FeedNews>({ kind: 'connecting' });
  useEffect(() => openFeed(instrument, quantity, setNews) ?? undefined, [instrument, quantity]);
  if (news.kind === 'value') {
    const why = misfit(news.value, quantity);
    return (
      <>
        <output className="font-mono text-2xl" aria-label={tr`${instrument.name} shows`}>
          {shownBy(instrument, news.value, quantity)}
        </output>
        {why !== null && <p className="font-semibold text-ochre">{why}</p>}
      </>
    );
  }
  return (
    <p role="status" className={news.kind === 'connected' ? '' : 'text-ochre'}>
      {news.kind === 'connecting'
        ? 'Looking for it …'
        : news.kind === 'connected'
          ? (news.name ?? 'It is there.')
          : news.why}
    </p>
  );
}

function shownBy({ accuracy }: InstrumentView, { value, step, quantity }: MeterValue, asked: Quantity): string {
  const of = quantity ?? asked;
  return entryOf(value, step || stepAt(accuracy, of, value ?? 0), of);
}

'use client';
import { useMemo, useState } from 'react';
import { findTest } from '../../core/catalogue/catalogue';
import { calledOf, OUTSIDE, predictAll, singleHypotheses } from '../../core/diagnosis/predict';
import { shownPrediction } from '../../core/diagnosis/shown';
import { positionWords } from '../../core/judge/words';
import type { CircuitView } from '../../formats/views';
import { inputLook } from '../kit/field';

/** Puts a fault in and shows what every meter would read. A thought, not evidence: nothing of it is kept. */
export function WhatIf({ view: { circuit, cylinders, systemVoltage_V } }: { view: CircuitView }) {
  const all = useMemo(() => singleHypotheses(circuit, cylinders), [circuit, cylinders]);
  const [picked, setPicked] = useState(0);
  const fault = all[picked];
  const predictions = useMemo(() => predictAll(circuit, cylinders, systemVoltage_V ?? undefined, fault ? [OUTSIDE, fault] : [OUTSIDE]), [circuit, cylinders, systemVoltage_V, fault]);
  const rows = predictions.instances.map((i) => ({ i, healthy: shownPrediction(predictions, i, null), now: fault ? shownPrediction(predictions, i, fault.key) : '' }));
  const n = predictions.instances.length;
  // Changed by more than good parts differ among each other.
  const changed = rows.filter((_, k) => { const [was, is] = [predictions.mean[k] as number, predictions.mean[n + k] as number]; return fault !== undefined && was !== is && !(Math.abs(was - is) <= (predictions.sd[k] as number) + 0.02 * Math.abs(was)); });
  return (
    <div className="mt-3 rounded-lg border-2 border-dashed border-soft p-3">
      <p className="font-semibold">What if <span className="font-normal text-soft">(a thought, not evidence: nothing of it is kept)</span></p>
      <label className="block">There were this fault<select className={inputLook} value={picked} onChange={(e) => setPicked(Number(e.target.value))}>
        {all.map((h, i) => <option key={i} value={i}>{h.members[0] && calledOf(h.members[0])} {h.members[0]?.words}{h.members[0]?.fault === 'open' ? '' : h.members[0]?.fault === 'series' ? `, ${h.members[0].ohms} Ω more` : `, ${h.members[0]?.ohms ?? 0} Ω`}</option>)}
      </select></label>
      <table className="mt-2 w-full text-left text-sm"><thead className="text-soft"><tr><th>Test</th><th>All well</th><th>With it</th></tr></thead>
        <tbody>{changed.map(({ i, healthy, now }) => <tr key={`${i.test} ${i.position}`} className="border-t border-line"><td className="py-1 pr-2">{findTest(i.test)?.name ?? i.test}, {positionWords(i.position)}</td><td className="pr-2 font-mono">{healthy}</td><td className="font-mono font-semibold text-ochre">{now}</td></tr>)}</tbody></table>
      {changed.length === 0 && <p className="mt-2">No test of this circuit would show it.</p>}
    </div>
  );
}

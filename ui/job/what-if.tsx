'use client';
import { tr } from '../../core/locale/translate';
import { useEffect, useMemo, useState } from 'react';
import { findTest } from '../../core/catalogue/catalogue';
import type { Wiring } from '../../core/circuits/expand';
import type { LibraryCircuit } from '../../core/circuits/types';
import { calledOf, singleHypotheses } from '../../core/diagnosis/hypotheses';
import type { ShownFault } from '../../core/diagnosis/predicted-readings';
import type { Hypothesis } from '../../core/diagnosis/types';
import { positionWords } from '../../core/judge/words';
import { inputLook } from '../kit/field';
import { weigher } from '../kit/weigher';

/** Puts a fault in and shows what every meter would read. A thought, not evidence: nothing of it is kept. */
export function WhatIf({ circuit, wiring }: { circuit: LibraryCircuit; wiring: Wiring }) {
  const all = useMemo(() => singleHypotheses(circuit, wiring), [circuit, wiring]);
  const [picked, setPicked] = useState(0);
  const fault = all[picked] ?? all[0];
  const [rows, setRows] = useState<readonly ShownFault[] | null>(null);
  useEffect(() => {
    let gone = false;
    void weigher()
      .whatIf(circuit, wiring, fault ?? null)
      .then(
        (found) => {
          if (!gone) setRows(found);
        },
        () => undefined,
      );
    return () => {
      gone = true;
    };
  }, [circuit, wiring, fault]);
  const changed = rows?.filter((r) => r.changed) ?? [];
  return (
    <div className="mt-3 rounded-lg border-2 border-dashed border-soft p-3">
      <p className="font-semibold">
        What if <span className="font-normal text-soft">(a thought, not evidence: nothing of it is kept)</span>
      </p>
      <label className="block">
        There were this fault
        <select className={inputLook} value={picked} onChange={(e) => setPicked(Number(e.target.value))}>
          {all.map((h, i) => (
            <option key={i} value={i}>
              {faultWords(h)}
            </option>
          ))}
        </select>
      </label>
      <table className="mt-2 w-full text-left text-sm">
        <thead className="text-soft">
          <tr>
            <th>Test</th>
            <th>All well</th>
            <th>With it</th>
          </tr>
        </thead>
        <tbody>
          {changed.map((r) => (
            <tr key={`${r.test} ${r.position}`} className="border-t border-line">
              <td className="py-1 pr-2">
                {findTest(r.test)?.name ?? r.test}, {positionWords(r.position)}
              </td>
              <td className="pr-2 font-mono">{r.healthy}</td>
              <td className="font-mono font-semibold text-ochre">{r.now}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {rows && changed.length === 0 && <p className="mt-2">No test of this circuit would show it.</p>}
    </div>
  );
}

function faultWords(h: Hypothesis): string {
  const [m] = h.members;
  if (!m) return '';
  // Sizes between those of the data have endless digits, the last of which differ between machines.
  const ohms = Number(m.ohms.toPrecision(2));
  return tr`${calledOf(m)} ${m.words}${m.fault === 'open' ? '' : m.fault === 'series' ? tr`, ${ohms} Ω more` : `, ${ohms} Ω`}`;
}

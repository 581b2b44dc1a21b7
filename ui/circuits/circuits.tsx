'use client';
import { tr } from '../../core/locale/translate';
import { FileDown } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useRouter } from '../kit/router';
import { useMemo, useState } from 'react';
import { v7 } from 'uuid';
import { type Wiring, wiringOf } from '../../core/circuits/expand';
import type { LibraryCircuit } from '../../core/circuits/types';
import type { TestDefinition } from '../../core/catalogue/types';
import { groupBy } from '../../core/foundation/collections';
import type { Engine } from '../../core/engine/layout';
import { printQuantity } from '../../core/quantity/print';
import { Button, buttonLook } from '../kit/button';
import { OtherProblems } from '../kit/form';
import { usePerson, useMay } from '../kit/session';
import { useDetail } from '../kit/use-detail';
import { useSend } from '../kit/use-send';
import { Schematic } from '../job/schematic';
import { EditCircuit } from './edit-circuit';

const WhatIf = dynamic(() => import('../job/what-if').then((m) => m.WhatIf));

export interface CircuitsProps {
  readonly circuits: readonly { readonly circuit: LibraryCircuit; readonly own: boolean }[];
  readonly families: readonly { readonly code: string; readonly engine: Engine }[];
  readonly tests: readonly TestDefinition[];
}

const FOUR: Wiring = { cylinders: 4 };
const NOTHING: ReadonlyMap<string, number> = new Map();

/** The circuits behind the tests: drawn, with their values; a lead copies one and makes it fit an engine. */
export function Circuits({ circuits, families, tests }: CircuitsProps) {
  const router = useRouter();
  const by = usePerson();
  const isLead = useMay('circuits.change');
  const sender = useSend();
  const [detail, show] = useDetail<HTMLElement>();
  const [picked, setPicked] = useState(circuits[0]?.circuit.id ?? '');
  const [family, setFamily] = useState('');
  const [editing, setEditing] = useState<{ circuit: LibraryCircuit; isCopy: boolean } | null>(null);
  const entry = circuits.find((c) => c.circuit.id === picked) ?? circuits[0];
  const engine = families.find((f) => f.code === family)?.engine;
  const wiring = useMemo(() => (engine ? wiringOf(engine) : FOUR), [engine]);
  if (!entry) return null;
  const { circuit, own } = entry;
  const pick = (id: string): void => {
    setPicked(id);
    setEditing(null);
    sender.setProblems([]);
    show();
  };
  async function takeAway(): Promise<void> {
    if (await sender.post('/api/circuits', { id: v7(), by, circuitId: circuit.id, circuit: null })) router.refresh();
  }
  return (
    <main className="mx-auto grid w-full max-w-7xl flex-1 content-start gap-4 p-4 lg:grid-cols-[19rem_minmax(0,1fr)]">
      <CircuitList circuits={circuits} picked={circuit.id} onPick={pick} />
      <article
        ref={detail}
        tabIndex={-1}
        className="min-w-0 scroll-mt-3 rounded-xl bg-card p-5 focus:outline-none"
        aria-label={circuit.name}
      >
        <div className="flex flex-wrap items-start gap-2">
          <h2 className="mr-auto text-2xl font-bold">{circuit.name}</h2>
          <DrawnFor families={families} family={family} onChange={setFamily} />
          {isLead && <Button onClick={() => setEditing({ circuit, isCopy: true })}>Copy and change</Button>}
          {isLead && own && <Button onClick={() => setEditing({ circuit, isCopy: false })}>Change</Button>}
          {isLead && own && (
            <Button disabled={sender.busy} onClick={() => void takeAway()}>
              Take away
            </Button>
          )}
        </div>
        <OtherProblems problems={sender.problems} paths={[]} />
        <p className="text-lg">{circuit.purpose}</p>
        <p className="text-sm text-soft">
          Revision {circuit.revision}
          {circuit.families?.length ? tr`; for ${circuit.families.join(', ')}` : '; for any engine'}.{' '}
          {circuit.probes.length} test points, {circuit.suspects.length} kinds of fault.
          {!isLead && ' A lead technician can copy and change it.'}
        </p>
        {editing ? (
          <EditCircuit
            key={`${editing.circuit.id} ${editing.isCopy}`}
            circuit={editing.circuit}
            isCopy={editing.isCopy}
            wiring={wiring}
            tests={tests}
            families={families.map((f) => f.code)}
            by={by}
            onClose={() => setEditing(null)}
            onDone={(id) => {
              setEditing(null);
              setPicked(id);
              router.refresh();
            }}
          />
        ) : (
          <>
            <div className="mt-2 max-w-4xl">
              <Schematic circuit={circuit} wiring={wiring} shares={NOTHING} probe={null} named />
            </div>
            <Values circuit={circuit} />
            <WhatIf circuit={circuit} wiring={wiring} />
          </>
        )}
      </article>
    </main>
  );
}

/** All circuits by the area of the engine. */
function CircuitList({
  circuits,
  picked,
  onPick,
}: Pick<CircuitsProps, 'circuits'> & { picked: string; onPick: (id: string) => void }) {
  return (
    <div>
      <p className="mb-2 text-sm text-soft" role="status">
        {circuits.length} circuits
      </p>
      {[...groupBy(circuits, (c) => c.circuit.area)].map(([area, those]) => (
        <section key={area} className="mb-3" aria-label={area}>
          <h2 className="text-sm font-semibold text-soft">{area}</h2>
          <ul>
            {those.map((c) => (
              <li key={c.circuit.id}>
                <button
                  type="button"
                  aria-pressed={c.circuit.id === picked}
                  onClick={() => onPick(c.circuit.id)}
                  className={`block min-h-10 w-full rounded-lg border px-3 py-1 text-left ${c.circuit.id === picked ? 'border-estuary bg-card font-semibold' : 'border-transparent hover:border-line'}`}
                >
                  {c.circuit.name}
                  {c.own && <span className="ml-2 text-sm font-normal text-estuary">our own</span>}
                </button>
              </li>
            ))}
          </ul>
        </section>
      ))}
      <a className={buttonLook()} href="/api/circuits" download>
        <FileDown size={18} aria-hidden="true" />
        JSON
      </a>
    </div>
  );
}

/** For which engine the circuit is drawn. */
function DrawnFor({
  families,
  family,
  onChange,
}: Pick<CircuitsProps, 'families'> & { family: string; onChange: (family: string) => void }) {
  return (
    <label className="flex items-center gap-2">
      Drawn for
      <select
        value={family}
        onChange={(e) => onChange(e.target.value)}
        className="min-h-12 rounded-lg border-2 border-line bg-card px-2"
      >
        <option value="">four cylinders</option>
        {families.map((f) => (
          <option key={f.code} value={f.code}>
            {f.code}
          </option>
        ))}
      </select>
    </label>
  );
}

function Values({ circuit }: { circuit: LibraryCircuit }) {
  return (
    <table className="mt-2 w-full max-w-2xl text-left text-sm">
      <caption className="text-left font-semibold">
        Good parts{' '}
        <span className="font-normal text-soft">
          (common practice, no source, where the shelf has nothing for the engine)
        </span>
      </caption>
      <thead className="text-soft">
        <tr>
          <th>What</th>
          <th>Value</th>
          <th className="pr-3">Spread</th>
          <th>Better known from</th>
        </tr>
      </thead>
      <tbody>
        {Object.entries(circuit.values)
          .filter(([, v]) => v.value < 1e9)
          .map(([key, v]) => (
            <tr key={key} className="border-t border-line">
              <td className="py-1 pr-2">{v.what}</td>
              <td className="pr-2 font-mono whitespace-nowrap">
                {printQuantity(v.value, 10 ** (Math.floor(Math.log10(v.value)) - 2), v.unit === 'V' ? 'V' : 'Ω')}
              </td>
              <td className="font-mono">
                {Math.round(100 * v.spread)} %{v.types ? tr`, by type ${Math.round(100 * v.types)} %` : ''}
              </td>
              <td className="text-soft">{v.shelf ? 'the limits of its test' : ''}</td>
            </tr>
          ))}
      </tbody>
    </table>
  );
}

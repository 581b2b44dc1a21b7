'use client';
import { isoDayShown } from '../../core/locale/dates';
import { tr } from '../../core/locale/translate';
import { Plus } from 'lucide-react';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import { v7 } from 'uuid';
import { groupBy } from '../../core/foundation/collections';
import { capital } from '../../core/foundation/text';
import { linkWords } from '../../core/instrument/link';
import type { DepotInstrumentsView, InstrumentsPlan, InstrumentView } from '../../application/views';
import { Button } from '../kit/button';
import { inputLook } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { ListFile } from '../kit/list-file';
import { useToday } from '../kit/on-client';
import { useMay, usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';
import { rangeWordsOf } from './draft';
import { TryMeter } from './try-meter';
import { EditInstrument } from './edit-instrument';

/** What each depot measures with: accuracy per range, calibration, leads with their measured zero. */
export function Instruments({ depots }: { depots: readonly DepotInstrumentsView[] }) {
  const router = useRouter();
  const by = usePerson();
  const [editing, setEditing] = useState<{ depotId: string; instrument: InstrumentView | null } | null>(null);
  return (
    <main className="mx-auto w-full max-w-7xl flex-1 p-4">
      {depots.length === 0 && <p className="py-8 text-soft">No depots yet.</p>}
      {depots.length > 0 && <Lists onDone={() => router.refresh()} />}
      {depots.map((d) => (
        <section key={d.id} className="mb-6" aria-label={d.name}>
          <div className="mb-2 flex flex-wrap items-center gap-3">
            <h2 className="mr-auto text-lg font-bold">{d.name}</h2>
            <Button onClick={() => setEditing({ depotId: d.id, instrument: null })}>
              <Plus size={18} aria-hidden="true" />
              Instrument
            </Button>
          </div>
          <ul className="grid gap-3 md:grid-cols-2 xl:grid-cols-3">
            {d.instruments.map((i) => (
              <li key={i.id}>
                <Card
                  instrument={i}
                  by={by}
                  onEdit={() => setEditing({ depotId: d.id, instrument: i })}
                  onDone={() => router.refresh()}
                />
              </li>
            ))}
            <li>
              <Leads depot={d} by={by} onDone={() => router.refresh()} />
            </li>
          </ul>
        </section>
      ))}
      {editing && (
        <EditInstrument
          {...editing}
          by={by}
          onClose={() => setEditing(null)}
          onDone={() => {
            setEditing(null);
            router.refresh();
          }}
        />
      )}
    </main>
  );
}

/** Instruments of all depots as a file, and from one. */
function Lists({ onDone }: { onDone: () => void }) {
  const mayImport = useMay('instruments.import');
  return (
    <div className="mb-4 flex flex-wrap justify-end gap-3">
      <ListFile<Listed>
        title="A list of instruments"
        description="CSV with a row for each range of the accuracy: depot, name, kind, quantity, up_to, percent_of_reading, counts, resolution. An instrument that is there under its name is changed to what the list says."
        things={['instrument', 'instruments']}
        importUrl="/api/instruments/import"
        exportUrl="/api/instruments/export?format=csv"
        mayImport={mayImport}
        show={(r) => (
          <>
            {r.depot}: <b>{r.name}</b> {r.kind}
          </>
        )}
        onDone={onDone}
      />
    </div>
  );
}
type Listed = InstrumentsPlan['rows'][number];

function Card({
  instrument: i,
  by,
  onEdit,
  onDone,
}: {
  instrument: InstrumentView;
  by: string;
  onEdit: () => void;
  onDone: () => void;
}) {
  const today = useToday();
  const overdue = i.calibrationDue !== null && today !== null && i.calibrationDue < today;
  const { busy, problems, post } = useSend();
  const facts = [
    i.clamp_mVperA && tr`${i.clamp_mVperA} mV per A`,
    i.leadRepeatability_ohm && tr`leads repeat within ${i.leadRepeatability_ohm} Ω`,
  ].filter(Boolean);
  return (
    <article className="flex h-full flex-col rounded-xl border border-line bg-card p-4">
      <h3 className="font-bold">
        {i.name} <span className="font-normal text-soft">{i.kind}</span>
      </h3>
      <p className={`text-sm ${overdue ? 'font-bold text-ochre' : 'text-soft'}`}>
        {i.calibrationDue === null
          ? 'no calibration noted'
          : overdue
            ? tr`calibration was due ${isoDayShown(i.calibrationDue)}`
            : tr`calibration due ${isoDayShown(i.calibrationDue)}`}
      </p>
      {facts.length > 0 && <p className="text-sm">{facts.join(', ')}</p>}
      {i.link && <p className="text-sm">{capital(linkWords(i.link))}</p>}
      {i.accuracy.length === 0 && (
        <p className="mt-1 text-sm text-soft">No accuracy stated: only the typed digits limit what can be said.</p>
      )}
      {[...groupBy(i.accuracy, (a) => a.quantity)].map(([quantity, ranges]) => (
        <div key={quantity} className="mt-2 text-sm">
          <b>{quantity}</b>
          <ul className="font-mono text-[13px]">
            {ranges.map((r) => (
              <li key={r.upTo}>{rangeWordsOf(r)}</li>
            ))}
          </ul>
        </div>
      ))}
      <OtherProblems problems={problems} paths={[]} />
      <TryMeter instrument={i} />
      <div className="mt-auto flex gap-2 pt-3">
        <Button aria-label={tr`Change ${i.name}`} onClick={onEdit}>
          Change
        </Button>
        <Button
          aria-label={tr`Take ${i.name} out of use`}
          disabled={busy}
          onClick={() =>
            void post(`/api/instruments/${i.id}/retire`, { by }).then((done) => {
              if (done) onDone();
            })
          }
        >
          Out of use
        </Button>
      </div>
    </article>
  );
}

function Leads({ depot, by, onDone }: { depot: DepotInstrumentsView; by: string; onDone: () => void }) {
  const [name, setName] = useState('');
  const [zero, setZero] = useState('');
  const { busy, problems, post } = useSend();
  async function measure(lead: string, value: string | null): Promise<void> {
    if (!(await post('/api/test-leads', { id: v7(), depotId: depot.id, name: lead, zero: value, by }))) return;
    setName('');
    setZero('');
    onDone();
  }
  return (
    <article className="flex h-full flex-col rounded-xl border border-line bg-card p-4">
      <h3 className="font-bold">Leads and extensions</h3>
      <ul className="my-1">
        {depot.testLeads.map((l) => (
          <li key={l.name} className="flex items-center gap-2">
            <span className="flex-1">
              {l.name} <b className="font-mono">{l.zero} Ω</b>{' '}
              <span className="text-sm text-soft">{isoDayShown(l.measuredAt.slice(0, 10))}</span>
            </span>
            <button
              type="button"
              className="min-h-10 px-2 text-sm underline"
              aria-label={tr`Remove ${l.name}`}
              onClick={() => void measure(l.name, null)}
            >
              remove
            </button>
          </li>
        ))}
      </ul>
      <form
        className="mt-auto flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (name.trim() && zero.trim()) void measure(name.trim(), zero.trim());
        }}
      >
        <label className="min-w-0 flex-1 text-sm">
          Which leads
          <input className={inputLook} value={name} maxLength={60} onChange={(e) => setName(e.target.value)} />
        </label>
        <label className="w-24 text-sm">
          Together, Ω
          <input
            className={`${inputLook} font-mono`}
            inputMode="decimal"
            value={zero}
            onChange={(e) => setZero(e.target.value)}
          />
        </label>
        <Button type="submit" disabled={busy || !name.trim() || !zero.trim()}>
          Measured
        </Button>
      </form>
      <OtherProblems problems={problems} paths={[]} />
    </article>
  );
}

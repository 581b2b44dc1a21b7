'use client';
import { tr } from '../../core/locale/translate';
import { Link } from '../kit/link';
import { useMemo, useState } from 'react';
import { v7 } from 'uuid';
import type { ConnectorView } from '../../application/views';
import { type Lead, type LeadMap, pinsToRecord } from '../../core/signal/lead-map';
import { Button } from '../kit/button';
import { Cautions } from '../kit/cautions';
import { ConnectorFace } from '../kit/connector-face';
import { errorAt } from '../kit/draft';
import { Field, inputLook, tie } from '../kit/field';
import { useRouter } from '../kit/router';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';
import { RoleSelect } from './role-select';

interface Props {
  readonly jobId: string;
  readonly isClosed: boolean;
  readonly plan: (LeadMap & { readonly by: string }) | null;
  readonly connectors: readonly ConnectorView[];
  /** Ends of the wires of this engine's circuits. */
  readonly wires: readonly PlacesOf[];
  readonly cautions: readonly string[];
}

interface PlacesOf {
  readonly circuit: string;
  readonly ends: readonly Place[];
}
type Place = Omit<Lead, 'lead'>;

const NONE: Place = { signal: '', role: 'sensor', connector: '', pin: '', colour: '' };
const FOUR = [1, 2, 3, 4].map((n): Lead => ({ ...NONE, lead: String(n) }));

/** Which lead of the recorder goes to which pin: filled in before recording, read beside the engine. */
export function LeadPlan({ jobId, isClosed, plan, connectors, wires, cautions }: Props) {
  return (
    <main className="mx-auto flex w-full max-w-5xl flex-1 flex-col gap-3 p-3 sm:p-4">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h2 className="text-xl font-bold">Which lead goes to which pin</h2>
        <Link href={`/jobs/${jobId}/traces`} className="inline-flex min-h-12 items-center underline print:hidden">
          Recordings of the job
        </Link>
      </div>
      <Cautions id="leads" all={cautions} />
      {plan && <Sheet plan={plan} connectors={connectors} />}
      {!isClosed && (
        <LeadForm key={JSON.stringify(plan)} jobId={jobId} plan={plan} connectors={connectors} wires={wires} />
      )}
    </main>
  );
}

/** What is read beside the engine, and printed. */
function Sheet({
  plan,
  connectors,
}: {
  plan: LeadMap & { readonly by: string };
  connectors: readonly ConnectorView[];
}) {
  const used = connectors.filter((c) => plan.leads.some((l) => l.connector === c.name));
  return (
    <section className="rounded-xl bg-card p-4" aria-label="Plan of the leads">
      <p className="text-lg">
        Common ground: <b>{plan.ground}</b>. Connect it first, and take it off last.
      </p>
      <ol className="mt-2 flex flex-col gap-2">
        {plan.leads.map((l) => (
          <li key={l.lead} className="grid grid-cols-[6.5rem_1fr] items-center gap-x-3 border-t border-line py-2">
            <span className="font-mono text-xl font-bold break-words">{l.lead}</span>
            <span>
              <b>{l.signal}</b>
              <span className="block text-lg">
                {l.connector || l.pin ? tr`${l.connector} pin ${l.pin}`.trim() : 'no pin of the table'}
                {l.colour && <span className="text-soft">, wire {l.colour}</span>}
              </span>
            </span>
          </li>
        ))}
      </ol>
      {used.map((c) => (
        <div key={c.key} className="mt-3">
          <p className="text-sm text-soft">
            {c.name}, {c.place}, seen from the {c.seenFrom}
          </p>
          <ConnectorFace
            connector={c}
            wanted={c.pins.filter((p) => plan.leads.some((l) => l.connector === c.name && l.pin === p.pin))}
          />
        </div>
      ))}
      <div className="mt-3 flex flex-wrap items-center gap-3 print:hidden">
        <Button onClick={() => window.print()}>Print</Button>
        <span className="text-sm text-soft">Written by {plan.by}. The columns of the file are proposed from it.</span>
      </div>
    </section>
  );
}

function LeadForm({ jobId, plan, connectors, wires }: Pick<Props, 'jobId' | 'plan' | 'connectors' | 'wires'>) {
  const by = usePerson();
  const router = useRouter();
  const { busy, problems, post } = useSend();
  const [ground, setGround] = useState(plan?.ground ?? '');
  const [leads, setLeads] = useState<readonly Lead[]>(plan?.leads ?? FOUR);
  const places = useMemo(() => placesFor(connectors, wires), [connectors, wires]);
  const change = (i: number, more: Partial<Lead>): void =>
    setLeads(leads.map((l, k) => (k === i ? { ...l, ...more } : l)));
  async function save(): Promise<void> {
    // A lead that carries nothing is not used.
    const used = leads.filter((l) => l.signal.trim() !== '');
    const body = { id: v7(), by, ground: ground.trim(), leads: used.map(trimmed) };
    if (await post(`/api/jobs/${jobId}/leads`, body)) router.refresh();
  }
  const whole = problems.filter((p) => p.path === '' || p.path === '/leads');
  return (
    <form
      className="rounded-xl bg-card p-4 print:hidden"
      aria-label="Leads"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      <h3 className="text-lg font-bold">{plan ? 'Change it' : 'Write it down before recording'}</h3>
      {connectors.length === 0 && (
        <p className="text-soft">
          No connector of this engine is known yet: choose the end of a wire of its circuits, or type what the maker’s
          pin table says. A lead enters the pin tables under{' '}
          <Link href="/service-data" className="underline">
            Service data
          </Link>
          .
        </p>
      )}
      <Field id="ground" label="Common ground" hint="one point for all leads" error={errorAt(problems, '/ground')}>
        <input
          {...tie('ground', errorAt(problems, '/ground'))}
          className={inputLook}
          value={ground}
          autoComplete="off"
          placeholder="battery negative post"
          onChange={(e) => setGround(e.target.value)}
        />
      </Field>
      <ul className="flex flex-col gap-2">
        {leads.map((l, i) => (
          <LeadRow
            key={i}
            number={i + 1}
            lead={l}
            places={places}
            error={problems.find((p) => p.path.startsWith(`/leads/${usedBefore(leads, i)}/`))?.message}
            onChange={(more) => change(i, more)}
            onRemove={leads.length > 1 ? () => setLeads(leads.filter((_, k) => k !== i)) : null}
          />
        ))}
      </ul>
      {whole.map((p) => (
        <p key={p.message} role="alert" className="mt-2 font-semibold text-rust">
          {p.path === '/leads' ? 'Say for one lead at least what it carries.' : p.message}
        </p>
      ))}
      <div className="mt-3 flex flex-wrap gap-3">
        <Button type="submit" tone="strong" disabled={busy}>
          Keep the plan
        </Button>
        <Button onClick={() => setLeads([...leads, { ...NONE, lead: String(leads.length + 1) }])}>Another lead</Button>
      </div>
    </form>
  );
}

interface Group {
  readonly name: string;
  readonly places: readonly Place[];
}

/** What a lead can be put to: pins that the workshop has entered, before the ends of wires. */
const placesFor = (connectors: readonly ConnectorView[], wires: readonly PlacesOf[]): readonly Group[] =>
  [
    ...connectors.map((c) => ({ name: c.name, places: pinsToRecord([c]) })),
    ...wires.map((w) => ({ name: tr`Wires: ${w.circuit}`, places: w.ends })),
  ].filter((g) => g.places.length > 0);

/** The place of a row among those that are sent. */
const usedBefore = (leads: readonly Lead[], i: number): number =>
  leads[i]?.signal.trim() === '' ? -1 : leads.slice(0, i).filter((l) => l.signal.trim() !== '').length;

const trimmed = (l: Lead): Lead => ({
  ...l,
  lead: l.lead.trim(),
  signal: l.signal.trim(),
  colour: l.colour.trim(),
});

function LeadRow(props: {
  number: number;
  lead: Lead;
  places: readonly Group[];
  error: string | undefined;
  onChange: (more: Partial<Lead>) => void;
  onRemove: (() => void) | null;
}) {
  const { number, lead, places, error, onChange } = props;
  const line = (label: string, field: 'lead' | 'signal' | 'colour' | 'pin' | 'connector') => (
    <label className="text-sm">
      {label}
      <input
        aria-label={tr`${label}, row ${number}`}
        aria-invalid={error !== undefined}
        className={inputLook}
        value={lead[field]}
        autoComplete="off"
        onChange={(e) => onChange({ [field]: e.target.value })}
      />
    </label>
  );
  return (
    <li className="rounded-lg border border-line p-2">
      <div className="grid items-end gap-2 sm:grid-cols-[5rem_minmax(10rem,2fr)_minmax(8rem,1.5fr)_7rem_10rem_auto]">
        {line('Lead', 'lead')}
        {places.some((g) => g.places.length > 0) ? (
          <GoesTo number={number} lead={lead} places={places} onChange={onChange} />
        ) : (
          <div className="grid grid-cols-[1fr_5rem] gap-2">
            {line('Connector', 'connector')}
            {line('Pin', 'pin')}
          </div>
        )}
        {line('Carries', 'signal')}
        {line('Wire', 'colour')}
        <RoleSelect
          label="Kind"
          name={tr`Kind, row ${number}`}
          value={lead.role}
          onChange={(role) => onChange({ role })}
        />
        {props.onRemove && (
          <Button aria-label={tr`Take row ${number} away`} onClick={props.onRemove}>
            Away
          </Button>
        )}
      </div>
      {error && (
        <p role="alert" className="mt-1 font-semibold text-rust">
          {error}
        </p>
      )}
    </li>
  );
}

function GoesTo(props: {
  number: number;
  lead: Lead;
  places: readonly Group[];
  onChange: (more: Partial<Lead>) => void;
}) {
  const { number, lead, places, onChange } = props;
  const all = places.flatMap((g) => g.places);
  const at = all.findIndex((p) => p.connector === lead.connector && p.pin === lead.pin);
  return (
    <label className="text-sm">
      Goes to
      <select
        aria-label={tr`Goes to, row ${number}`}
        className={inputLook}
        value={at < 0 ? '' : at}
        onChange={(e) => onChange(all[e.target.value === '' ? -1 : Number(e.target.value)] ?? NONE)}
      >
        <option value="">a place that is typed</option>
        {places.map((group) => (
          <optgroup key={group.name} label={group.name}>
            {group.places.map((p) => (
              <option key={`${p.connector} ${p.pin}`} value={all.indexOf(p)}>
                {p.pin ? tr`${p.connector} pin ${p.pin}: ${p.signal}` : p.connector}
              </option>
            ))}
          </optgroup>
        ))}
      </select>
    </label>
  );
}

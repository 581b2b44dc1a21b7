'use client';
import { isoDayShown } from '../../core/locale/dates';
import { tr } from '../../core/locale/translate';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import { v7 } from 'uuid';
import type { ServiceDataView } from '../../application/repair-view';
import { idFrom } from '../../core/catalogue/beginning';
import { type Connector, pinLines, readPins, readRows } from '../../core/engine/connector';
import { Button } from '../kit/button';
import { ConnectorFace, pinWords } from '../kit/connector-face';
import { FormDialog } from '../kit/dialog';
import type { Draft } from '../kit/draft';
import { DraftField, OtherProblems, Row } from '../kit/form';
import { useMay, usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';

type Line = ServiceDataView['lines'][number];
const connectorIn = (line: Line): Connector => line.body as Connector;

/**
 * The connectors of an engine family, each drawn as its face with its pins, from the workshop’s own service
 * information.
 */
export function Connectors({ view, family, onDone }: { view: ServiceDataView; family: string; onDone: () => void }) {
  const may = useMay('service-data.change');
  const [editing, setEditing] = useState<Line | 'new' | null>(null);
  const lines = view.lines.filter(
    (l) => l.kind === 'connector' && l.family === (family || null) && connectorIn(l).pins.length > 0,
  );
  return (
    <section aria-label="Connectors" className="mb-4 rounded-xl bg-card p-3">
      <div className="mb-2 flex flex-wrap items-center justify-between gap-2">
        <h2 className="font-semibold">Connectors and their pins</h2>
        {may && (
          <Button onClick={() => setEditing('new')}>
            <Plus size={18} aria-hidden="true" />
            Connector
          </Button>
        )}
      </div>
      {lines.length === 0 && (
        <p className="text-soft">
          None yet for {family || 'any engine'}. The bench shows them where wires are measured, with the pins of the
          cylinder that is next.
        </p>
      )}
      <ul className="grid gap-4 md:grid-cols-2">
        {lines.map((l) => {
          const c = connectorIn(l);
          return (
            <li key={l.key}>
              <div className="flex items-center justify-between gap-2">
                <p>
                  <b>{c.name}</b>
                  <span className="text-soft">
                    {c.place && `, ${c.place}`}, from the {c.seenFrom}
                  </span>
                </p>
                {may && (
                  <Button aria-label={tr`Change ${c.name}`} onClick={() => setEditing(l)}>
                    Change
                  </Button>
                )}
              </div>
              <ConnectorFace connector={c} wanted={[]} />
              <ul className="text-sm">
                {c.pins
                  .filter((p) => p.signal !== '')
                  .map((p) => (
                    <li key={p.pin}>{pinWords(p)}</li>
                  ))}
              </ul>
              <p className="text-sm text-soft">
                {l.source}; {l.by}, {isoDayShown(l.at.slice(0, 10))}
              </p>
            </li>
          );
        })}
      </ul>
      {editing !== null && (
        <EditConnector
          line={editing === 'new' ? null : editing}
          family={family}
          taken={new Set(view.lines.flatMap((l) => (l.kind === 'connector' ? [l.key] : [])))}
          onClose={() => setEditing(null)}
          onDone={() => {
            setEditing(null);
            onDone();
          }}
        />
      )}
    </section>
  );
}

const SEEN_FROM = [
  ['wire side', 'the side of the wires'],
  ['mating side', 'the face that mates'],
] as const;

function draftOf(line: Line | null): Draft {
  if (!line) return { name: '', place: '', seenFrom: 'wire side', rows: '', pins: '', source: '' };
  const { name, place, seenFrom, rows, pins } = connectorIn(line);
  return { name, place, seenFrom, rows: rows.join(', '), pins: pinLines(pins), source: line.source };
}

interface EditConnectorProps {
  readonly line: Line | null;
  readonly family: string;
  readonly taken: ReadonlySet<string>;
  readonly onClose: () => void;
  readonly onDone: () => void;
}

/** A connector as it is typed, and how it is kept. */
function useConnector(p: EditConnectorProps) {
  const by = usePerson();
  const [id] = useState(() => v7());
  const [draft, setDraft] = useState<Draft>(() => draftOf(p.line));
  const { busy, problems, setProblems, post } = useSend();
  const fields = {
    draft,
    problems,
    onChange: (field: string, value: string) => setDraft((d) => ({ ...d, [field]: value })),
  };
  const text = (field: string): string => (draft[field] ?? '').trim();
  const read = readPins(text('pins'));
  const rows = readRows(text('rows'));
  const connector: Connector = {
    name: text('name'),
    place: text('place'),
    seenFrom: draft.seenFrom === 'mating side' ? 'mating side' : 'wire side',
    // One row, until it is said otherwise.
    rows: rows.length ? rows : read.pins.length ? [read.pins.length] : [],
    pins: read.pins,
  };
  async function save(body: Connector): Promise<void> {
    if (read.problems.length) {
      setProblems(read.problems.map((x) => ({ ...x, path: `/body${x.path}` })));
      return;
    }
    const key = p.line?.key ?? idFrom(body.name || 'connector', p.taken);
    const sent = await post('/api/service-data', {
      id,
      by,
      family: p.family || null,
      kind: 'connector',
      key,
      body,
      source: text('source'),
    });
    if (sent) p.onDone();
  }
  return { fields, connector, busy, problems, save };
}

function EditConnector(p: EditConnectorProps) {
  const { fields, connector, busy, problems, save } = useConnector(p);
  const fits = connector.rows.reduce((sum, n) => sum + n, 0) === connector.pins.length && connector.pins.length > 0;
  return (
    <FormDialog
      wide
      onClose={p.onClose}
      title={p.line ? connectorIn(p.line).name : 'A connector'}
      description={tr`Of ${p.family || 'any engine'}, as its service information shows it. What was entered before stays in the record.`}
      onSubmit={() => void save(connector)}
    >
      <Row>
        <DraftField {...fields} field="name" path="/body/name" label="Name" />
        <DraftField {...fields} field="place" path="/body/place" label="Where it is" />
        <DraftField {...fields} field="seenFrom" path="/body/seenFrom" label="Drawn from" options={SEEN_FROM} />
      </Row>
      <DraftField
        {...fields}
        field="pins"
        path="/body/pins"
        label="Pins, one per line"
        hint="pin; signal; colour; to; cylinder"
        rows={8}
        mono
      />
      <DraftField {...fields} field="rows" path="/body/rows" label="Pins in each row, from the top" hint="4, 4" mono />
      <DraftField {...fields} field="source" path="/source" label="Where it is from" hint="document and page" />
      {fits && <ConnectorFace connector={connector} wanted={[]} />}
      <OtherProblems problems={problems} paths={['/body/name', '/body/place', '/body/pins', '/body/rows', '/source']} />
      <div className="mt-3 flex flex-wrap gap-2">
        <Button type="submit" tone="strong" disabled={busy}>
          Keep
        </Button>
        {p.line && (
          <Button disabled={busy} onClick={() => void save({ ...connectorIn(p.line as Line), rows: [], pins: [] })}>
            Take it away
          </Button>
        )}
      </div>
    </FormDialog>
  );
}

'use client';
import { tr, word } from '../../core/locale/translate';
import { Plus } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import { describeNumbering } from '../../core/engine/layout';
import type { DepotLine, DepotsPlan, FamilyLine, UnitLine, UnitsPlan, WorkshopView } from '../../application/views';
import { Button } from '../kit/button';
import { inputLook } from '../kit/field';
import { ListFile } from '../kit/list-file';
import { useMay } from '../kit/session';
import { EditDepot, EditFamily, EditUnit } from './edit';
import { Head } from './head';
import { Machine } from './machine';
import { StarterKit } from './starter-kit';
import { Title } from './title';

const AddUnit = dynamic(() => import('../yard/add-unit').then((m) => m.AddUnitDialog));

type Editing =
  | { readonly what: 'depot'; readonly line: DepotLine | null }
  | { readonly what: 'family'; readonly line: FamilyLine | null }
  | { readonly what: 'unit'; readonly line: UnitLine }
  | { readonly what: 'new unit' }
  | null;

/**
 * What belongs to the workshop: its name and logo, its depots, engine families and units. Leads change it.
 */
export function Workshop({ workshop }: { workshop: WorkshopView }) {
  const router = useRouter();
  const [editing, setEditing] = useState<Editing>(null);
  const close = (): void => setEditing(null);
  const done = (): void => {
    close();
    router.refresh();
  };
  const { depots, families } = workshop;
  const inUse = {
    depots: depots.filter((d) => !d.retired),
    families: families.filter((f) => !f.retired),
  };
  return (
    <main className="mx-auto w-full max-w-5xl flex-1 p-4">
      <Head workshop={workshop} />
      <Machine workshop={workshop} />
      <Depots depots={depots} onEdit={(line) => setEditing({ what: 'depot', line })} onDone={done} />
      <Families families={families} onEdit={(line) => setEditing({ what: 'family', line })} />
      <Units
        units={workshop.units}
        onEdit={(line) => setEditing({ what: 'unit', line })}
        onAdd={() => setEditing({ what: 'new unit' })}
        onDone={done}
      />
      <StarterKit onDone={done} />
      {editing?.what === 'depot' && <EditDepot depot={editing.line} onClose={close} onDone={done} />}
      {editing?.what === 'family' && <EditFamily family={editing.line} onClose={close} onDone={done} />}
      {editing?.what === 'unit' && <EditUnit unit={editing.line} {...inUse} onClose={close} onDone={done} />}
      {editing?.what === 'new unit' && <AddUnit yard={inUse} onClose={close} />}
    </main>
  );
}

const list = 'grid gap-2 md:grid-cols-2';
const card = (retired: boolean): string =>
  `flex items-center justify-between gap-3 rounded-xl bg-card p-3 ${retired ? 'border border-dashed border-line text-soft' : ''}`;
const counted = (n: number, singular: string, plural: string): string => `${n} ${n === 1 ? singular : plural}`;

function Depots({
  depots,
  onEdit,
  onDone,
}: {
  depots: readonly DepotLine[];
  onEdit: (d: DepotLine | null) => void;
  onDone: () => void;
}) {
  const mayAdd = useMay('depot.add');
  const mayImport = useMay('depots.import');
  return (
    <section aria-label="Depots">
      <Title text="Depots">
        {mayAdd && (
          <Button onClick={() => onEdit(null)}>
            <Plus size={18} aria-hidden="true" />
            Depot
          </Button>
        )}
        <ListFile<DepotsPlan['rows'][number]>
          title="A list of depots"
          description="CSV with the columns name, time_zone (of the IANA database, such as Etc/UTC), currency (such as EUR) and in_use (yes or no). A depot that is there under its name is changed to what the list says."
          things={['depot', 'depots']}
          importUrl="/api/depots/import"
          exportUrl="/api/depots/export?format=csv"
          mayImport={mayImport}
          show={(r) => (
            <>
              <b>{r.name}</b> {r.timeZone}
              {!r.inUse && ', not used any more'}
            </>
          )}
          onDone={onDone}
        />
      </Title>
      <ul className={list}>
        {depots.map((d) => (
          <li key={d.id} className={card(d.retired)}>
            <div>
              <b>{d.name}</b>
              {d.retired && ', not used any more'}
              <p className="text-sm text-soft">
                {[d.timeZone, d.currency, counted(d.units, 'unit', 'units')].filter(Boolean).map(word).join(', ')}
              </p>
            </div>
            {mayAdd && (
              <Button aria-label={tr`Change ${d.name}`} onClick={() => onEdit(d)}>
                Change
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Families({ families, onEdit }: { families: readonly FamilyLine[]; onEdit: (f: FamilyLine | null) => void }) {
  const mayAdd = useMay('engine-family.add');
  const mayChange = useMay('engine-family.change');
  return (
    <section aria-label="Engine families">
      <Title text="Engine families">
        {mayAdd && (
          <Button onClick={() => onEdit(null)}>
            <Plus size={18} aria-hidden="true" />
            Engine family
          </Button>
        )}
      </Title>
      {families.length === 0 && (
        <p className="text-soft">None yet. A unit needs one: how many cylinders, counted how.</p>
      )}
      <ul className={list}>
        {families.map((f) => (
          <li key={f.id} className={card(f.retired)}>
            <div>
              <b>{f.code}</b>
              {f.retired && ', not used any more'}
              <p className="text-sm text-soft">
                {[
                  tr`${f.engine.cylinders} ${f.engine.layout === 'vee' ? 'in a vee' : 'in line'}`,
                  f.engine.systemVoltage_V === undefined ? '' : `${f.engine.systemVoltage_V} V`,
                  describeNumbering(f.engine),
                  f.engine.firingOrder ? tr`fires ${f.engine.firingOrder.join('-')}` : '',
                  counted(f.units, 'unit', 'units'),
                ]
                  .filter(Boolean)
                  .map(word)
                  .join(', ')}
              </p>
            </div>
            {mayChange && (
              <Button aria-label={tr`Change ${f.code}`} onClick={() => onEdit(f)}>
                Change
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** More lines than these nobody reads: the search narrows them. */
const SHOWN = 60;

function Units(p: {
  units: readonly UnitLine[];
  onEdit: (u: UnitLine) => void;
  onAdd: () => void;
  onDone: () => void;
}) {
  const [search, setSearch] = useState('');
  const mayAdd = useMay('unit.add');
  const mayChange = useMay('unit.change');
  const mayImport = useMay('units.import');
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const found = p.units.filter((u) =>
    words.every((w) => `${u.fleetNumber} ${u.kind} ${u.depot} ${u.family}`.toLowerCase().includes(w)),
  );
  return (
    <section aria-label="Units">
      <Title text="Units">
        {mayAdd && (
          <Button onClick={p.onAdd}>
            <Plus size={18} aria-hidden="true" />
            Unit
          </Button>
        )}
        <ListFile<UnitsPlan['rows'][number]>
          title="A list of units"
          description="CSV with the columns fleet_number, kind, depot, family. A number that is there is changed to what the list says."
          things={['unit', 'units']}
          importUrl="/api/units/import"
          exportUrl="/api/units/export?format=csv"
          mayImport={mayImport}
          show={(r) => (
            <>
              <b>{r.fleetNumber}</b> {r.kind}
            </>
          )}
          onDone={p.onDone}
        />
      </Title>
      <input
        aria-label="Find one of the units"
        placeholder="Fleet number, kind, depot, engine"
        className={`${inputLook} mb-2`}
        value={search}
        onChange={(e) => setSearch(e.target.value)}
      />
      {p.units.length === 0 && <p className="text-soft">None yet.</p>}
      <ul className={list}>
        {found.slice(0, SHOWN).map((u) => (
          <li key={u.id} className={card(u.retired)}>
            <div>
              <b>{u.fleetNumber}</b> {u.kind}
              {u.retired && ', not used any more'}
              <p className="text-sm text-soft">
                {u.depot}, {u.family}, {counted(u.jobs, 'job', 'jobs')}
              </p>
            </div>
            {mayChange && (
              <Button aria-label={tr`Change ${u.fleetNumber}`} onClick={() => p.onEdit(u)}>
                Change
              </Button>
            )}
          </li>
        ))}
      </ul>
      {found.length > SHOWN && (
        <p className="py-2 text-soft">
          {SHOWN} of {found.length}. Type a number or a word to find another.
        </p>
      )}
    </section>
  );
}

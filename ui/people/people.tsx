'use client';
import { tr } from '../../core/locale/translate';
import { Link } from '../kit/link';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import { v7 } from 'uuid';
import { ROLES } from '../../core/foundation/vocabulary';
import type { PeoplePlan, PersonView } from '../../application/views';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import type { Draft } from '../kit/draft';
import { DraftField, OtherProblems, Row } from '../kit/form';
import { ListFile } from '../kit/list-file';
import { usePerson, useSession, useMay } from '../kit/session';
import { useSend } from '../kit/use-send';

interface Depot {
  readonly id: string;
  readonly name: string;
}

const MAY: Readonly<Record<PersonView['role'], string>> = {
  viewer: 'looks at everything',
  technician: 'records, puts drafts on the shelf',
  lead: 'approves limits, changes people, signs off safety overrides',
};

/** Who works here and what they may do. Leads change it. */
export function People({ persons, depots }: { persons: readonly PersonView[]; depots: readonly Depot[] }) {
  const router = useRouter();
  const isLead = useMay('person.add');
  const mayImport = useMay('people.import');
  const [editing, setEditing] = useState<PersonView | 'new' | null>(null);
  const leads = persons.filter((p) => p.role === 'lead' && !p.retired).map((p) => p.name);
  return (
    <main className="mx-auto w-full max-w-5xl flex-1 p-4">
      <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
        <p className="text-soft">
          {isLead ? 'A role says what a person may do, a depot where.' : tr`Leads change people: ${leads.join(', ')}.`}{' '}
          Depots, engine families and units:{' '}
          <Link className="underline" href="/workshop">
            Workshop
          </Link>
          .
        </p>
        <div className="flex flex-wrap gap-2">
          {isLead && <Button onClick={() => setEditing('new')}>Add a person</Button>}
          <ListFile<PeoplePlan['rows'][number]>
            title="A list of people"
            description="CSV with the columns name, role (viewer, technician or lead), depot (or “all depots”), signs_in (yes or no) and pin, which only those need who are new. The PINs stand in the file for anybody to read: delete it when the list is taken."
            things={['person', 'people']}
            importUrl="/api/people/import"
            exportUrl="/api/people/export?format=csv"
            mayImport={mayImport}
            show={(r) => (
              <>
                <b>{r.name}</b> {r.role}, {r.depot ?? 'all depots'}
                {!r.signsIn && ', not signing in any more'}
              </>
            )}
            onDone={() => router.refresh()}
          />
        </div>
      </div>
      <ul className="grid gap-3 md:grid-cols-2">
        {persons.map((p) => (
          <li
            key={p.id}
            className={`flex items-center justify-between gap-3 rounded-xl bg-card p-4 ${p.retired ? 'border border-dashed border-line' : ''}`}
          >
            <div>
              <b className="text-lg">{p.name}</b>
              <p>
                {p.role}, {p.depot ?? 'all depots'}
                {p.retired && ', not signing in any more'}
                {p.sessions > 0 && tr`, signed in on ${p.sessions} ${p.sessions === 1 ? 'device' : 'devices'}`}
              </p>
              <p className="text-sm text-soft">{MAY[p.role]}</p>
            </div>
            {isLead && (
              <Button aria-label={tr`Change ${p.name}`} onClick={() => setEditing(p)}>
                Change
              </Button>
            )}
          </li>
        ))}
      </ul>
      {editing && (
        <EditPerson person={editing === 'new' ? null : editing} depots={depots} onClose={() => setEditing(null)} />
      )}
    </main>
  );
}

interface EditPersonProps {
  readonly person: PersonView | null;
  readonly depots: readonly Depot[];
  readonly onClose: () => void;
}

/** A person as they are being changed, and how that is kept. */
function useEditPerson({ person, onClose }: Omit<EditPersonProps, 'depots'>, own: string | null) {
  const router = useRouter();
  const by = usePerson();
  const [id] = useState(() => v7());
  const [draft, setDraft] = useState<Draft>({
    name: person?.name ?? '',
    role: person?.role ?? 'technician',
    depot: person ? (person.depotId ?? '') : (own ?? ''),
    pin: '',
    retired: person?.retired ? 'yes' : 'no',
  });
  const { busy, problems, post } = useSend();
  const shared = {
    draft,
    problems,
    onChange: (field: string, value: string) => setDraft({ ...draft, [field]: value }),
  };

  async function endSessions(personId: string): Promise<void> {
    if (!(await post(`/api/people/${personId}`, { by, signOut: true }))) return;
    onClose();
    router.refresh();
  }
  async function save(): Promise<void> {
    const depotId = draft.depot === '' ? null : draft.depot;
    const done =
      person === null
        ? await post('/api/people', { id, name: draft.name?.trim(), role: draft.role, depotId, pin: draft.pin })
        : await post(`/api/people/${person.id}`, {
            by,
            ...(draft.role === person.role ? {} : { role: draft.role }),
            ...(depotId === person.depotId ? {} : { depotId }),
            ...(draft.pin ? { pin: draft.pin } : {}),
            retired: draft.retired === 'yes',
          });
    if (!done) return;
    onClose();
    router.refresh();
  }
  return { shared, busy, problems, endSessions, save };
}

function EditPerson({ person, depots, onClose }: EditPersonProps) {
  const { depotId: own } = useSession();
  const { shared, busy, problems, endSessions, save } = useEditPerson({ person, onClose }, own);
  return (
    <FormDialog
      onClose={onClose}
      title={person ? tr`Change ${person.name}` : 'Add a person'}
      onSubmit={() => void save()}
    >
      <DraftField
        {...shared}
        field="name"
        path="/name"
        label="Name"
        disabled={person !== null}
        {...(person ? { hint: 'stays: the record keeps it' } : {})}
      />
      <Row>
        <DraftField {...shared} field="role" path="/role" label="Role" options={ROLES.map((r) => [r, r] as const)} />
        <DraftField
          {...shared}
          field="depot"
          path="/depotId"
          label="Depot"
          options={[
            ...(own === null ? [['', 'all depots'] as const] : []),
            ...depots.filter((d) => own === null || d.id === own).map((d) => [d.id, d.name] as const),
          ]}
        />
        {person && (
          <DraftField
            {...shared}
            field="retired"
            path="/retired"
            label="Signs in"
            options={[
              ['no', 'yes'],
              ['yes', 'not any more'],
            ]}
          />
        )}
      </Row>
      <DraftField
        {...shared}
        field="pin"
        path="/pin"
        label={person ? 'New PIN or password' : 'PIN or password'}
        hint={person ? 'empty: stays. A new one ends a lockout' : 'six characters at least'}
      />
      <OtherProblems problems={problems} paths={['/name', '/role', '/depotId', '/retired', '/pin']} />
      <div className="flex flex-wrap gap-3">
        <Button type="submit" tone="strong" disabled={busy}>
          {person ? 'Save' : 'Add'}
        </Button>
        {person !== null && person.sessions > 0 && (
          <Button disabled={busy} onClick={() => void endSessions(person.id)}>
            Sign out on {person.sessions === 1 ? 'that device' : tr`all ${person.sessions} devices`}
          </Button>
        )}
      </div>
    </FormDialog>
  );
}

'use client';
import { tr } from '../../core/locale/translate';
import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../kit/button';
import type { Draft } from '../kit/draft';
import { DraftField, OtherProblems } from '../kit/form';
import { Logo } from '../kit/logo';
import { useOnClient } from '../kit/on-client';
import { useSend } from '../kit/use-send';
import { PLAIN } from '../../core/locale/locale';
import { letPinOpenDevice } from '../offline/vault';
import { LocaleFields, localeOf } from '../locale/locale-fields';
import { CURRENCIES, TIME_ZONES } from './choices';

const DEPOT_FIELDS = ['name', 'timeZone', 'currency', 'address'] as const;

/** The zone is the browser's own, which the server does not know. */
const emptyDepot = (onClient: boolean): Draft => ({
  name: '',
  timeZone: onClient ? Intl.DateTimeFormat().resolvedOptions().timeZone : 'UTC',
  currency: 'EUR',
  address: '',
});

/** What the first visit asks for, as it is typed, and how it is sent. */
function useSetUp(onClient: boolean) {
  const [draft, setDraft] = useState<Draft>({ ...PLAIN });
  const [depots, setDepots] = useState<readonly Draft[] | null>(null);
  const { busy, problems, setProblems, post } = useSend();
  const all = depots ?? [emptyDepot(onClient)];
  const set = (field: string, value: string): void => setDraft((d) => ({ ...d, [field]: value }));
  const change = (i: number, field: string, value: string): void =>
    setDepots(all.map((d, k) => (k === i ? { ...d, [field]: value } : d)));

  async function submit(): Promise<void> {
    if ((draft.password ?? '') !== (draft.again ?? '')) {
      setProblems([{ path: '/again', message: 'The two are not the same.' }]);
      return;
    }
    const done = await post('/api/set-up', {
      code: draft.code ?? '',
      workshop: draft.workshop ?? '',
      locale: localeOf(draft),
      lead: { name: (draft.name ?? '').trim().replace(/\s+/g, ' '), password: draft.password ?? '' },
      depots: all.map((d) => ({
        name: d.name ?? '',
        timeZone: d.timeZone ?? '',
        currency: d.currency ?? '',
        address: d.address ?? '',
      })),
    });
    if (!done) return;
    // Whoever has set it up is signed in, and can go on without the server as after any other sign-in.
    await letPinOpenDevice(draft.password ?? '');
    // A whole page load: every part of the screen learns who is there.
    // oxlint-disable-next-line next-js/no-location-assign-relative-destination
    window.location.assign('/');
  }
  return { draft, set, all, setDepots, change, busy, problems, submit };
}

/** The first visit of a workshop's own installation: its name, its first lead, its depots. */
export function SetUp() {
  const onClient = useOnClient();
  const { draft, set, all, setDepots, change, busy, problems, submit } = useSetUp(onClient);
  const own = { draft, problems, disabled: !onClient, onChange: set };
  return (
    <main className="mx-auto w-full max-w-3xl p-6">
      <h1 className="mb-1 flex items-center gap-2 text-2xl font-bold">
        <Logo />
        Set Mudflat up for your workshop
      </h1>
      <p className="mb-6 text-soft">
        Once, about two minutes. Everything but the code can be changed later on the screens Workshop and People.
      </p>
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          void submit();
        }}
      >
        <Block title="The code">
          <DraftField {...own} field="code" path="/code" label="Code" hint="as ./mudflat serve has printed it" mono />
        </Block>
        <Block title="The workshop">
          <DraftField {...own} field="workshop" path="/workshop" label="Its name" hint="stands on every letter" />
        </Block>
        <Block title="Numbers, units and language">
          <p className="mb-3 text-sm text-soft">
            As the workshop is used to it; whoever wants it otherwise chooses so for themselves, in the menu of their
            name.
          </p>
          <LocaleFields {...own} base="/locale" />
        </Block>
        <FirstLead {...own} />
        {all.map((d, i) => (
          <Block key={i} title={all.length > 1 ? tr`Depot ${i + 1}` : 'Its depot'}>
            <DepotFields
              draft={d}
              problems={problems}
              at={`/depots/${i}`}
              id={`depot-${i}`}
              disabled={!onClient}
              onChange={(field, value) => change(i, field, value)}
            />
            {all.length > 1 && (
              <Button onClick={() => setDepots(all.filter((_, k) => k !== i))}>
                <X size={18} aria-hidden="true" />
                Leave depot {i + 1} out
              </Button>
            )}
          </Block>
        ))}
        <OtherProblems
          problems={problems}
          paths={[
            '/code',
            '/workshop',
            '/locale',
            '/lead/name',
            '/lead/password',
            '/again',
            ...all.flatMap((_, i) => DEPOT_FIELDS.map((f) => `/depots/${i}/${f}`)),
          ]}
        />
        <div className="flex flex-wrap gap-3">
          <Button onClick={() => setDepots([...all, emptyDepot(onClient)])}>
            <Plus size={18} aria-hidden="true" />
            Another depot
          </Button>
          <Button type="submit" tone="strong" disabled={busy || !onClient}>
            Set up and sign in
          </Button>
        </div>
      </form>
    </main>
  );
}

function FirstLead(own: {
  draft: Draft;
  problems: Parameters<typeof DraftField>[0]['problems'];
  disabled: boolean;
  onChange: (field: string, value: string) => void;
}) {
  return (
    <Block title="The first lead">
      <p className="mb-3 text-sm text-soft">
        Leads add people, approve limits and change what belongs to the workshop. This one works for all depots.
      </p>
      <div className="grid gap-x-4 md:grid-cols-3">
        <DraftField {...own} field="name" path="/lead/name" label="Name" />
        <DraftField {...own} field="password" path="/lead/password" label="Password" hint="ten signs at least" secret />
        <DraftField {...own} field="again" path="/again" label="Once more" secret />
      </div>
    </Block>
  );
}

function Block({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section className="mb-4 rounded-xl bg-card p-4" aria-label={title}>
      <h2 className="mb-2 font-semibold">{title}</h2>
      {children}
    </section>
  );
}

function DepotFields(p: {
  draft: Draft;
  problems: Parameters<typeof DraftField>[0]['problems'];
  at: string;
  id: string;
  disabled: boolean;
  onChange: (field: string, value: string) => void;
}) {
  const { at, id, ...fields } = p;
  return (
    <div className="grid gap-x-4 md:grid-cols-2">
      <DraftField {...fields} id={`${id}-name`} field="name" path={`${at}/name`} label="Name" hint="a yard, a town" />
      <DraftField
        {...fields}
        id={`${id}-zone`}
        field="timeZone"
        path={`${at}/timeZone`}
        label="Time zone"
        options={TIME_ZONES}
      />
      <DraftField
        {...fields}
        id={`${id}-currency`}
        field="currency"
        path={`${at}/currency`}
        label="Reckons in"
        options={CURRENCIES}
      />
      <DraftField
        {...fields}
        id={`${id}-address`}
        field="address"
        path={`${at}/address`}
        label="Address"
        hint="for letters"
        rows={2}
      />
    </div>
  );
}

'use client';
import { tr } from '../../core/locale/translate';
import { type ReactNode, useState } from 'react';
import { v7 } from 'uuid';
import type { Problem } from '../../core/foundation/result';
import type { DepotLine, FamilyLine, UnitLine } from '../../application/views';
import { ENGINE_FIELDS, engineDraft, engineOf } from '../fleet/engine-draft';
import { EngineFields } from '../fleet/engine-fields';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import type { Draft } from '../kit/draft';
import { DraftField, type FormFieldsProps, OtherProblems } from '../kit/form';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';
import { CURRENCIES, TIME_ZONES } from './choices';
import { UnitFields } from '../fleet/unit-fields';

interface EditProps {
  readonly onClose: () => void;
  readonly onDone: () => void;
}

const USED = [
  ['no', 'in use'],
  ['yes', 'not any more'],
] as const;

/** The dialog of one thing: its fields, what is wrong elsewhere, one button. */
function EditDialog(p: {
  title: string;
  start: Draft;
  paths: readonly string[];
  save: (draft: Draft, say: (problems: readonly Problem[]) => void) => Promise<boolean>;
  busy: boolean;
  problems: readonly Problem[];
  say: (problems: readonly Problem[]) => void;
  children: (fields: FormFieldsProps) => ReactNode;
  onClose: () => void;
  onDone: () => void;
}) {
  const [draft, setDraft] = useState<Draft>(p.start);
  return (
    <FormDialog
      onClose={p.onClose}
      title={p.title}
      onSubmit={() => {
        void p.save(draft, p.say).then((done) => {
          if (done) p.onDone();
        });
      }}
    >
      {p.children({
        draft,
        problems: p.problems,
        onChange: (field, value) => setDraft((d) => ({ ...d, [field]: value })),
      })}
      <OtherProblems problems={p.problems} paths={p.paths} />
      <Button type="submit" tone="strong" disabled={p.busy}>
        Save
      </Button>
    </FormDialog>
  );
}

export function EditDepot({ depot, onClose, onDone }: EditProps & { depot: DepotLine | null }) {
  const by = usePerson();
  const [id] = useState(() => depot?.id ?? v7());
  const { busy, problems, setProblems, post } = useSend();
  return (
    <EditDialog
      {...{ busy, problems, onClose, onDone }}
      say={setProblems}
      title={depot ? tr`Change ${depot.name}` : 'New depot'}
      start={{
        name: depot?.name ?? '',
        timeZone: depot?.timeZone ?? Intl.DateTimeFormat().resolvedOptions().timeZone,
        currency: depot?.currency ?? 'EUR',
        retired: depot?.retired ? 'yes' : 'no',
      }}
      paths={['/name', '/timeZone', '/currency', '/retired']}
      save={async ({ name = '', timeZone = '', currency = '', retired }) =>
        (await post(
          depot ? `/api/depots/${id}` : '/api/depots',
          depot ? { by, name, timeZone, currency, retired: retired === 'yes' } : { id, by, name, timeZone, currency },
        )) !== null
      }
    >
      {(fields) => (
        <>
          <DraftField {...fields} field="name" path="/name" label="Name" />
          <DraftField {...fields} field="timeZone" path="/timeZone" label="Time zone" options={TIME_ZONES} />
          <DraftField {...fields} field="currency" path="/currency" label="Reckons in" options={CURRENCIES} />
          {depot && <DraftField {...fields} field="retired" path="/retired" label="It is" options={USED} />}
        </>
      )}
    </EditDialog>
  );
}

export function EditFamily({ family, onClose, onDone }: EditProps & { family: FamilyLine | null }) {
  const by = usePerson();
  const [id] = useState(() => family?.id ?? v7());
  const { busy, problems, setProblems, post } = useSend();
  return (
    <EditDialog
      {...{ busy, problems, onClose, onDone }}
      say={setProblems}
      title={family ? tr`Change ${family.code}` : 'New engine family'}
      start={{
        ...engineDraft(family?.engine ?? null),
        code: family?.code ?? '',
        retired: family?.retired ? 'yes' : 'no',
      }}
      paths={['/code', '/retired', ...ENGINE_FIELDS.map((f) => `/engine/${f}`)]}
      save={async (draft, say) => {
        const engine = engineOf(draft, '/engine', family?.engine ?? null);
        if (!engine.ok) {
          say(engine.error);
          return false;
        }
        const { code = '', retired } = draft;
        const body = { by, code, engine: engine.value, retired: retired === 'yes' };
        return (
          (await post(
            family ? `/api/engine-families/${id}` : '/api/engine-families',
            family ? body : { id, code, engine: engine.value },
          )) !== null
        );
      }}
    >
      {(fields) => (
        <>
          <DraftField {...fields} field="code" path="/code" label="Code" hint="as the shop calls it" />
          <EngineFields {...fields} at="/engine" />
          {family && <DraftField {...fields} field="retired" path="/retired" label="It is" options={USED} />}
        </>
      )}
    </EditDialog>
  );
}

export function EditUnit({
  unit,
  depots,
  families,
  onClose,
  onDone,
}: EditProps & { unit: UnitLine; depots: readonly DepotLine[]; families: readonly FamilyLine[] }) {
  const by = usePerson();
  const { busy, problems, setProblems, post } = useSend();
  const withOwn = (all: readonly (readonly [string, string])[], own: readonly [string, string]) =>
    all.some(([id]) => id === own[0]) ? all : [...all, own];
  return (
    <EditDialog
      {...{ busy, problems, onClose, onDone }}
      say={setProblems}
      title={tr`Change ${unit.fleetNumber}`}
      start={{
        fleetNumber: unit.fleetNumber,
        kind: unit.kind,
        depotId: unit.depotId,
        engineFamilyId: unit.familyId,
        retired: unit.retired ? 'yes' : 'no',
      }}
      paths={['/fleetNumber', '/kind', '/depotId', '/engineFamilyId', '/retired']}
      save={async ({ retired, ...changed }) =>
        (await post(`/api/units/${unit.id}`, {
          by,
          ...changesOf(changed, {
            fleetNumber: unit.fleetNumber,
            kind: unit.kind,
            depotId: unit.depotId,
            engineFamilyId: unit.familyId,
          }),
          retired: retired === 'yes',
        })) !== null
      }
    >
      {(fields) => (
        <>
          <UnitFields
            fields={fields}
            depots={withOwn(
              depots.map((d) => [d.id, d.name] as const),
              [unit.depotId, unit.depot],
            )}
            families={withOwn(
              families.map((f) => [f.id, f.code] as const),
              [unit.familyId, unit.family],
            )}
          />
          <DraftField {...fields} field="retired" path="/retired" label="It is" options={USED} />
        </>
      )}
    </EditDialog>
  );
}

const changesOf = (now: Draft, before: Draft): Draft =>
  Object.fromEntries(Object.entries(now).filter(([field, value]) => before[field] !== value));

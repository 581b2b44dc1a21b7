'use client';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import { v7 } from 'uuid';
import type { YardView } from '../../application/views';
import { ENGINE_FIELDS, engineDraft, engineOf } from '../fleet/engine-draft';
import { EngineFields } from '../fleet/engine-fields';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/dialog';
import type { Draft } from '../kit/draft';
import { DraftField, OtherProblems } from '../kit/form';
import { usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';
import { UnitFields } from '../fleet/unit-fields';

const NEW = 'new';
const ENGINE = '/newFamily/engine';
const PATHS = [
  '/fleetNumber',
  '/kind',
  '/depotId',
  '/engineFamilyId',
  '/newFamily/code',
  ...ENGINE_FIELDS.map((f) => `${ENGINE}/${f}`),
];

interface Props {
  readonly yard: Pick<YardView, 'depots' | 'families'>;
  readonly onClose: () => void;
}

/** A unit as it is typed, and how it is added. */
function useAddUnit({ yard, onClose }: Props) {
  const router = useRouter();
  const by = usePerson();
  const [ids] = useState(() => ({ unit: v7(), family: v7() }));
  const [draft, setDraft] = useState<Draft>(() => ({
    ...engineDraft(null),
    depotId: yard.depots[0]?.id ?? '',
    engineFamilyId: yard.families[0]?.id ?? NEW,
  }));
  const { busy, problems, setProblems, post } = useSend();
  const fields = {
    draft,
    problems,
    onChange: (field: string, value: string) => setDraft((d) => ({ ...d, [field]: value })),
  };
  const isNew = draft.engineFamilyId === NEW;

  async function submit(): Promise<void> {
    const missing = [
      ...needed('fleetNumber', '/fleetNumber', 'A unit needs its fleet number.'),
      ...needed('kind', '/kind', 'Say what it is: tipper, gritter, pump.'),
      ...(isNew ? needed('code', '/newFamily/code', 'A family needs a code.') : []),
    ];
    const engine = isNew ? engineOf(draft, ENGINE) : null;
    const wrong = [...missing, ...(engine?.ok === false ? engine.error : [])];
    if (wrong.length) {
      setProblems(wrong);
      return;
    }
    const sent = await post('/api/units', {
      id: ids.unit,
      by,
      depotId: draft.depotId,
      engineFamilyId: isNew ? ids.family : draft.engineFamilyId,
      fleetNumber: draft.fleetNumber,
      kind: draft.kind,
      ...(engine?.ok ? { newFamily: { code: draft.code, engine: engine.value } } : {}),
    });
    if (!sent) return;
    router.refresh();
    onClose();
  }
  const needed = (field: string, path: string, message: string) => (draft[field]?.trim() ? [] : [{ path, message }]);
  return { fields, isNew, busy, problems, submit };
}

/** A unit for the yard; its engine family can be entered with it: both are taken, or neither. */
export function AddUnitDialog({ yard, onClose }: Props) {
  const { fields, isNew, busy, problems, submit } = useAddUnit({ yard, onClose });
  return (
    <FormDialog onClose={onClose} title="New unit" onSubmit={() => void submit()}>
      <div className="grid grid-cols-2 gap-x-4">
        <UnitFields
          fields={fields}
          depots={yard.depots.map((d) => [d.id, d.name])}
          families={[...yard.families.map((f) => [f.id, f.code] as const), [NEW, 'a new one …']]}
        />
      </div>
      {isNew && (
        <fieldset className="mb-4 rounded-lg border border-line p-3">
          <legend className="px-1 font-semibold">New engine family</legend>
          <DraftField {...fields} field="code" path="/newFamily/code" label="Code" hint="as the shop calls it" />
          <EngineFields {...fields} at={ENGINE} />
        </fieldset>
      )}
      <OtherProblems problems={problems.filter((p) => !p.path.startsWith(`${ENGINE}/firingOrder/`))} paths={PATHS} />
      <Button type="submit" tone="strong" disabled={busy}>
        Add unit
      </Button>
    </FormDialog>
  );
}

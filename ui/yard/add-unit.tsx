'use client';
import { useRouter } from 'next/navigation';
import { type ReactNode, useState } from 'react';
import { type RegisterOptions, useForm, type UseFormRegister, useWatch } from 'react-hook-form';
import { v7 } from 'uuid';
import type { Engine } from '../../core/engine/layout';
import type { YardView } from '../../application/views';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { Field, inputLook, tie } from '../kit/field';
import { showRefusal } from '../kit/form-errors';
import { send } from '../kit/send';

interface Values {
  fleetNumber: string;
  kind: string;
  depotId: string;
  engineFamilyId: string;
  code: string;
  layout: 'inline' | 'vee';
  cylinders: string;
  scheme: 'sequential' | 'odd-even';
  from: 'front' | 'flywheel';
  firstBank: 'left' | 'right';
  firingOrder: string;
  systemVoltage_V: string;
}
const NEW = 'new';
const FIELDS = [
  'fleetNumber',
  'kind',
  'depotId',
  'engineFamilyId',
  'code',
  'cylinders',
  'firingOrder',
  'systemVoltage_V',
] as const;

function engineOf(v: Values): Engine {
  const order = v.firingOrder
    .split(/[^\d]+/)
    .filter(Boolean)
    .map(Number);
  return {
    layout: v.layout,
    cylinders: Number(v.cylinders),
    systemVoltage_V: Number(v.systemVoltage_V),
    numbering: { scheme: v.scheme, from: v.from, firstBank: v.firstBank },
    ...(order.length ? { firingOrder: order } : {}),
  };
}

const needed = (what: string) => ({ validate: (v: string) => v.trim() !== '' || what });

/** A text field of the form, with its rule and what is wrong with it. */
type TextField = (
  id: 'fleetNumber' | 'kind' | 'code' | 'cylinders' | 'firingOrder' | 'systemVoltage_V',
  label: string,
  rule?: RegisterOptions<Values>,
  hint?: string,
) => ReactNode;

const START: Values = {
  fleetNumber: '',
  kind: '',
  depotId: '',
  engineFamilyId: NEW,
  code: '',
  layout: 'inline',
  cylinders: '4',
  scheme: 'sequential',
  from: 'front',
  firstBank: 'left',
  firingOrder: '',
  systemVoltage_V: '12',
};

/** A unit for the yard; its engine family can be entered with it. */
export function AddUnitDialog({ yard, onClose }: { yard: YardView; onClose: () => void }) {
  const router = useRouter();
  const [ids] = useState(() => ({ unit: v7(), family: v7() }));
  const form = useForm<Values>({
    defaultValues: {
      ...START,
      depotId: yard.depots[0]?.id ?? '',
      engineFamilyId: yard.families[0]?.id ?? NEW,
    },
  });
  const {
    register,
    handleSubmit,
    setError,
    control,
    formState: { errors, isSubmitting },
  } = form;
  const isNew = useWatch({ control, name: 'engineFamilyId' }) === NEW;

  async function submit(v: Values): Promise<void> {
    if (isNew) {
      const family = await send('/api/engine-families', { id: ids.family, code: v.code, engine: engineOf(v) });
      if (!family.ok) {
        showRefusal(family.error, setError, FIELDS);
        return;
      }
    }
    const sent = await send('/api/units', {
      id: ids.unit,
      depotId: v.depotId,
      engineFamilyId: isNew ? ids.family : v.engineFamilyId,
      fleetNumber: v.fleetNumber,
      kind: v.kind,
    });
    if (!sent.ok) {
      showRefusal(sent.error, setError, FIELDS);
      return;
    }
    router.refresh();
    onClose();
  }

  const text: TextField = (id, label, rule = {}, hint = '') => (
    <Field id={id} label={label} hint={hint} error={errors[id]?.message}>
      <input className={inputLook} {...tie(id, errors[id]?.message)} {...register(id, rule)} />
    </Field>
  );
  return (
    <Dialog
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
      title="New unit"
    >
      <form noValidate onSubmit={(e) => void handleSubmit(submit)(e)}>
        <div className="grid grid-cols-2 gap-x-4">
          {text('fleetNumber', 'Fleet number', needed('A unit needs its fleet number.'))}
          {text('kind', 'Kind', needed('Say what it is: tipper, gritter, pump.'))}
          <Field id="depotId" label="Depot" error={errors.depotId?.message}>
            <select className={inputLook} {...tie('depotId', errors.depotId?.message)} {...register('depotId')}>
              {yard.depots.map((d) => (
                <option key={d.id} value={d.id}>
                  {d.name}
                </option>
              ))}
            </select>
          </Field>
          <Field id="engineFamilyId" label="Engine family" error={errors.engineFamilyId?.message}>
            <select
              className={inputLook}
              {...tie('engineFamilyId', errors.engineFamilyId?.message)}
              {...register('engineFamilyId')}
            >
              {yard.families.map((f) => (
                <option key={f.id} value={f.id}>
                  {f.code}
                </option>
              ))}
              <option value={NEW}>a new one …</option>
            </select>
          </Field>
        </div>
        {isNew && <NewFamily register={register} text={text} />}
        {errors.root && (
          <p role="alert" className="mb-3 font-semibold text-rust">
            {errors.root.message}
          </p>
        )}
        <Button type="submit" tone="strong" disabled={isSubmitting}>
          Add unit
        </Button>
      </form>
    </Dialog>
  );
}

/** The engine of a family that is not known yet: its cylinders, and how the maker counts them. */
function NewFamily({ register, text }: { register: UseFormRegister<Values>; text: TextField }) {
  return (
    <fieldset className="mb-4 grid grid-cols-2 gap-x-4 rounded-lg border border-line p-3">
      <legend className="px-1 font-semibold">New engine family</legend>
      {text('code', 'Code', needed('A family needs a code.'))}
      {text('cylinders', 'Cylinders', { validate: (v: string) => /^\d+$/.test(v.trim()) || 'A whole number.' })}
      <Field id="layout" label="Layout">
        <select id="layout" className={inputLook} {...register('layout')}>
          <option value="inline">in line</option>
          <option value="vee">vee</option>
        </select>
      </Field>
      {text('systemVoltage_V', 'System, V', { validate: (v: string) => Number(v) > 0 || 'A voltage above 0.' })}
      <Field id="scheme" label="Numbering">
        <select id="scheme" className={inputLook} {...register('scheme')}>
          <option value="sequential">one bank, then the other</option>
          <option value="odd-even">odd and even by bank</option>
        </select>
      </Field>
      <Field id="from" label="Counted from">
        <select id="from" className={inputLook} {...register('from')}>
          <option value="front">the front</option>
          <option value="flywheel">the flywheel end</option>
        </select>
      </Field>
      <Field id="firstBank" label="Cylinder 1 on">
        <select id="firstBank" className={inputLook} {...register('firstBank')}>
          <option value="left">the left bank</option>
          <option value="right">the right bank</option>
        </select>
      </Field>
      {text('firingOrder', 'Firing order', {}, '1-3-4-2')}
    </fieldset>
  );
}

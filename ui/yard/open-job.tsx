'use client';
import { tr } from '../../core/locale/translate';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import { v7 } from 'uuid';
import { CONDITIONS, type DriveCondition } from '../../core/evidence/types';
import type { FleetUnitView } from '../../application/views';
import { Button } from '../kit/button';
import { Chips } from '../kit/chips';
import { FormDialog } from '../kit/dialog';
import { Field, inputLook, tie } from '../kit/field';
import { showRefusal } from '../kit/form-errors';
import { readNumber } from '../kit/read-number';
import { usePerson } from '../kit/session';
import { send } from '../kit/send';

interface Values {
  complaint: string;
  hours: string;
  odometer_km: string;
}

/** A job as it is typed, and how it is opened. */
function useOpenJob(unit: FleetUnitView) {
  const router = useRouter();
  const by = usePerson();
  const [id] = useState(() => v7());
  const [conditions, setConditions] = useState<readonly DriveCondition[]>([]);
  const {
    register,
    handleSubmit,
    setError,
    formState: { errors, isSubmitting },
  } = useForm<Values>({ defaultValues: { complaint: '', hours: '', odometer_km: '' } });

  async function submit({ complaint, hours, odometer_km }: Values): Promise<void> {
    const numbers = { hours: readNumber(hours), odometer_km: readNumber(odometer_km) };
    const given = Object.fromEntries(Object.entries(numbers).filter(([, v]) => v !== undefined));
    const sent = await send('/api/jobs', {
      id,
      unitId: unit.id,
      complaint,
      by,
      ...given,
      ...(conditions.length ? { conditions } : {}),
    });
    if (sent.ok) router.push(`/jobs/${id}`);
    else showRefusal(sent.error, setError, ['complaint', 'hours', 'odometer_km']);
  }

  return { register, submit: handleSubmit(submit), errors, isSubmitting, conditions, setConditions };
}

const NUMBER = {
  validate: (v: string) => v.trim() === '' || (readNumber(v) ?? -1) >= 0 || 'A number of 0 or more, or nothing.',
};

export function OpenJobDialog({ unit, onClose }: { unit: FleetUnitView; onClose: () => void }) {
  const { register, submit, errors, isSubmitting, conditions, setConditions } = useOpenJob(unit);
  return (
    <FormDialog onClose={onClose} title={tr`New job for ${unit.fleetNumber}`} onSubmit={() => void submit()}>
      <Field id="complaint" label="Complaint" hint="who says what happens, and when" error={errors.complaint?.message}>
        <textarea
          rows={3}
          className={`${inputLook} py-2`}
          {...tie('complaint', errors.complaint?.message)}
          {...register('complaint', {
            validate: (v) => v.trim() !== '' || 'Say what is wrong, in plain words.',
            maxLength: { value: 2000, message: 'At most 2000 characters.' },
          })}
        />
      </Field>
      <div className="grid grid-cols-2 gap-4">
        <Field id="hours" label="Hours" error={errors.hours?.message}>
          <input
            inputMode="decimal"
            className={inputLook}
            {...tie('hours', errors.hours?.message)}
            {...register('hours', NUMBER)}
          />
        </Field>
        <Field id="odometer_km" label="Odometer, km" error={errors.odometer_km?.message}>
          <input
            inputMode="decimal"
            className={inputLook}
            {...tie('odometer_km', errors.odometer_km?.message)}
            {...register('odometer_km', NUMBER)}
          />
        </Field>
      </div>
      <p className="font-semibold">It shows itself</p>
      <div className="mb-4">
        <Chips<DriveCondition> label="It shows itself" all={CONDITIONS} chosen={conditions} onChange={setConditions} />
      </div>
      {errors.root && (
        <p role="alert" className="mb-3 font-semibold text-rust">
          {errors.root.message}
        </p>
      )}
      <Button type="submit" tone="strong" disabled={isSubmitting}>
        Open job
      </Button>
    </FormDialog>
  );
}

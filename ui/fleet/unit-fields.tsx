import type { ComponentProps } from 'react';
import { DraftField } from '../kit/form';

type Options = readonly (readonly [id: string, name: string])[];

/** What a unit is: the same fields where one is added and where it is changed. */
export function UnitFields({
  fields,
  depots,
  families,
}: {
  fields: Pick<ComponentProps<typeof DraftField>, 'draft' | 'problems' | 'onChange'>;
  depots: Options;
  families: Options;
}) {
  return (
    <>
      <DraftField {...fields} field="fleetNumber" path="/fleetNumber" label="Fleet number" />
      <DraftField {...fields} field="kind" path="/kind" label="Kind" />
      <DraftField {...fields} field="depotId" path="/depotId" label="Depot" options={depots} />
      <DraftField {...fields} field="engineFamilyId" path="/engineFamilyId" label="Engine family" options={families} />
    </>
  );
}

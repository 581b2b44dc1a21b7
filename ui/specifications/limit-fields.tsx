import type { SpecificationsView } from '../../application/specifications-view';
import type { Draft } from '../kit/draft';
import { DraftField, Row } from '../kit/form';

/** What every part of the form is given: what is typed, what is wrong with it, and where a change goes. */
export interface LimitFields {
  draft: Draft;
  problems: readonly { path: string; message: string }[];
  onChange: (field: string, value: string) => void;
}

/** The path of the limits in the request; problems name fields by it. */
export const LIMITS = '/entry/limits';
export const NUMBERS = [
  ['lower', 'Lower limit', 'inclusive'],
  ['upper', 'Upper limit', 'inclusive'],
  ['steadyWithin', 'Steady within', 'a wander up to this'],
  ['watchLower', 'Not liked below', ''],
  ['watchUpper', 'Not liked above', ''],
  ['recheckMargin', 'Recheck margin', 'fraction beyond'],
  ['shortBelow', 'Short below', ''],
  ['openAbove', 'Open above', ''],
  ['referenceTemperature_degC', 'Reference, °C', 'default 20'],
] as const;

/** The test, and the part, family or depot that the limits are for. */
export function WhatFor({ fields, view }: { fields: LimitFields; view: SpecificationsView }) {
  const { draft } = fields;
  return (
    <Row>
      <DraftField
        {...fields}
        field="test"
        path="/entry/test"
        label="Test"
        options={view.tests.map((t) => [t.id, t.name])}
      />
      <DraftField
        {...fields}
        field="scope"
        path="/entry/scope"
        label="For"
        options={[
          ['part', 'Exactly this part'],
          ['family', 'Engine family'],
          ['depot', 'Depot'],
          ['general', 'Any engine'],
        ]}
      />
      {draft.scope === 'family' && (
        <DraftField
          {...fields}
          field="of"
          path="/entry/of"
          label="Family"
          options={[['', 'choose'], ...view.families.map((f) => [f, f] as const)]}
        />
      )}
      {draft.scope === 'depot' && (
        <DraftField
          {...fields}
          field="of"
          path="/entry/of"
          label="Depot"
          options={[['', 'choose'], ...view.depots.map((d) => [d.name, d.name] as const)]}
        />
      )}
      {draft.scope === 'part' && <DraftField {...fields} field="of" path="/entry/of" label="Part code" />}
    </Row>
  );
}

/** The limits themselves. */
export function Numbers(fields: LimitFields) {
  return (
    <Row>
      <DraftField {...fields} field="unit" path={`${LIMITS}/unit`} label="Unit" />
      {NUMBERS.map(([f, label, hint]) => (
        <DraftField key={f} {...fields} field={f} path={`${LIMITS}/${f}`} label={label} hint={hint} mono />
      ))}
      <DraftField
        {...fields}
        field="maxRatio"
        path={`${LIMITS}/neighbours/maxRatio`}
        label="Neighbours, at most"
        hint="times apart"
        mono
      />
      <DraftField
        {...fields}
        field="maxDifference"
        path={`${LIMITS}/neighbours/maxDifference`}
        label="or"
        hint="units apart"
        mono
      />
      <DraftField
        {...fields}
        field="material"
        path={`${LIMITS}/material`}
        label="Conductor"
        options={[
          ['', 'no correction'],
          ['copper', 'copper'],
          ['aluminium', 'aluminium'],
          ['platinum', 'platinum'],
        ]}
      />
    </Row>
  );
}

/** The conditions under which the limits hold, and the school that they belong to. */
export function OnlyWhen(fields: LimitFields) {
  const { draft } = fields;
  return (
    <details
      className="mb-4"
      open={Boolean(
        draft['when.systemVoltage_V'] ||
        draft['when.connection'] ||
        draft['when.key'] ||
        draft['when.engine'] ||
        draft['when.fromTemperature_degC'] ||
        draft['when.toTemperature_degC'] ||
        draft.school,
      )}
    >
      <summary className="min-h-8 cursor-pointer font-semibold">Only when, and house rule</summary>
      <Row>
        <DraftField
          {...fields}
          field="when.systemVoltage_V"
          path="/entry/when/systemVoltage_V"
          label="System voltage"
          hint="V"
          mono
        />
        <DraftField
          {...fields}
          field="when.connection"
          path="/entry/when/connection"
          label="Connection"
          hint="at-part, through-harness …"
        />
        <DraftField {...fields} field="when.key" path="/entry/when/key" label="Key" />
        <DraftField {...fields} field="when.engine" path="/entry/when/engine" label="Engine" />
        <DraftField
          {...fields}
          field="when.fromTemperature_degC"
          path="/entry/when/fromTemperature_degC"
          label="From, °C"
          mono
        />
        <DraftField
          {...fields}
          field="when.toTemperature_degC"
          path="/entry/when/toTemperature_degC"
          label="To, °C"
          mono
        />
        <DraftField {...fields} field="school" path="/entry/school" label="House rule" hint="strict, tolerant …" />
      </Row>
    </details>
  );
}

/** The document that the limits come from, and how far they are approved. */
export function WhereFrom(fields: LimitFields) {
  return (
    <Row>
      <DraftField {...fields} field="source" path="/entry/source" label="Source" hint="as the bench names it" />
      <DraftField {...fields} field="document" path="/entry/document" label="Document" />
      <DraftField {...fields} field="page" path="/entry/page" label="Page" />
      <DraftField {...fields} field="documentRevision" path="/entry/documentRevision" label="Its revision" />
      <DraftField {...fields} field="documentDate" path="/entry/documentDate" label="Its date" hint="2026-11-23" />
      <DraftField
        {...fields}
        field="status"
        path="/entry/status"
        label="Status"
        options={[
          ['draft', 'draft'],
          ['approved', 'approved'],
          ['rule-of-thumb', 'rule of thumb'],
        ]}
      />
    </Row>
  );
}

'use client';
import { noteOf, rowsOf } from '../../application/posts/rows';
import { checkEngine } from '../../core/engine/layout';
import { DraftField, type FormFieldsProps } from '../kit/form';
import { engineOf } from './engine-draft';

/**
 * The cylinders of an engine and how its maker counts them, with a drawing that follows. `at`: path of the
 * engine.
 */
export function EngineFields({ at, disabled, ...fields }: FormFieldsProps & { at: string; disabled?: boolean }) {
  const isVee = fields.draft.layout === 'vee';
  const own = { ...fields, ...(disabled === undefined ? {} : { disabled }) };
  // What is wrong within the firing order stands at its field.
  const problems = fields.problems.map((p) =>
    p.path.startsWith(`${at}/firingOrder/`) ? { ...p, path: `${at}/firingOrder` } : p,
  );
  return (
    <>
      <div className="grid grid-cols-2 gap-x-4 md:grid-cols-3">
        <DraftField
          {...own}
          field="layout"
          path={`${at}/layout`}
          label="Layout"
          options={[
            ['inline', 'in line'],
            ['vee', 'vee'],
          ]}
        />
        <DraftField {...own} field="cylinders" path={`${at}/cylinders`} label="Cylinders" />
        <DraftField {...own} field="systemVoltage_V" path={`${at}/systemVoltage_V`} label="System, V" />
        <DraftField
          {...own}
          field="from"
          path={`${at}/numbering/from`}
          label="Counted from"
          options={[
            ['front', 'the front'],
            ['flywheel', 'the flywheel end'],
          ]}
        />
        {isVee && (
          <>
            <DraftField
              {...own}
              field="scheme"
              path={`${at}/numbering/scheme`}
              label="Numbering"
              options={[
                ['sequential', 'one bank, then the other'],
                ['odd-even', 'odd and even by bank'],
              ]}
            />
            <DraftField
              {...own}
              field="firstBank"
              path={`${at}/numbering/firstBank`}
              label="Cylinder 1 on"
              options={[
                ['left', 'the left bank'],
                ['right', 'the right bank'],
              ]}
            />
          </>
        )}
        <DraftField
          {...own}
          problems={problems}
          field="firingOrder"
          path={`${at}/firingOrder`}
          label="Firing order"
          hint="1-3-4-2"
        />
      </div>
      <Drawing draft={fields.draft} />
    </>
  );
}

/** The cylinders as they will stand on the bench, front of the engine to the left. */
function Drawing({ draft }: Pick<FormFieldsProps, 'draft'>) {
  const engine = engineOf(draft, '');
  if (!engine.ok || checkEngine(engine.value).some((p) => p.path === '/cylinders')) return null;
  const rows = rowsOf(engine.value);
  const order = checkEngine(engine.value).length === 0 ? engine.value.firingOrder : undefined;
  return (
    <figure className="mb-4 rounded-lg bg-panel p-3" aria-label="As it will stand on the bench">
      {rows.map((row, i) => (
        <div key={row.title} className="mb-2 flex flex-wrap items-center gap-2">
          <span className="w-24 text-sm text-soft">{row.title}</span>
          {row.positions.map((p) => (
            <span
              key={p}
              className="inline-flex size-11 flex-col items-center justify-center rounded-full border-2 border-ink font-mono leading-none font-bold"
            >
              {p}
              {order && <span className="text-[10px] font-normal text-soft">{order.indexOf(Number(p)) + 1}.</span>}
            </span>
          ))}
          <span className="text-xs text-soft">{noteOf(engine.value, i, rows.length)}</span>
        </div>
      ))}
    </figure>
  );
}

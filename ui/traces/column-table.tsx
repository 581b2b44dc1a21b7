'use client';
import { tr } from '../../core/locale/translate';
import type { RecordingLimits } from '../../application/views';
import { inputLook } from '../kit/field';
import { RoleSelect } from './role-select';
import { type ColumnDraft } from './columns';

interface Props {
  readonly drafts: readonly ColumnDraft[];
  readonly wrong: ReadonlyMap<string, string>;
  /** What the shelf can judge a channel by. */
  readonly limits: readonly RecordingLimits[];
  readonly onChange: (drafts: readonly ColumnDraft[]) => void;
}

/** What each column was connected to. */
export function ColumnTable({ drafts, wrong, limits, onChange }: Props) {
  const change = (i: number, more: Partial<ColumnDraft>): void =>
    onChange(drafts.map((d, k) => (k === i ? { ...d, ...more } : d)));
  return (
    <ul className="mt-3 flex flex-col gap-2" aria-label="Columns">
      {drafts.map((d, i) => (
        <li key={d.column} className="rounded-lg border border-line p-2">
          <Column draft={d} drafts={drafts} limits={limits} onChange={(more) => change(i, more)} />
          {wrong.get(d.column) && (
            <p role="alert" className="mt-1 font-semibold text-rust">
              {wrong.get(d.column)}
            </p>
          )}
        </li>
      ))}
    </ul>
  );
}

interface ColumnProps {
  readonly draft: ColumnDraft;
  readonly drafts: readonly ColumnDraft[];
  readonly onChange: (more: Partial<ColumnDraft>) => void;
}

function Column({ draft: d, drafts, limits, onChange }: ColumnProps & Pick<Props, 'limits'>) {
  return (
    <div className="grid items-end gap-2 sm:grid-cols-[minmax(8rem,1fr)_minmax(8rem,1fr)_11rem_5rem_6rem_minmax(8rem,1fr)]">
      <label className="flex min-h-12 items-center gap-2 font-mono text-sm">
        <input
          type="checkbox"
          className="size-6"
          checked={d.isTaken}
          onChange={(e) => onChange({ isTaken: e.target.checked })}
        />
        <span className="truncate">{d.column}</span>
      </label>
      {d.isTaken && <TakenColumn draft={d} drafts={drafts} limits={limits} onChange={onChange} />}
    </div>
  );
}

/** What a person says of a column that is kept. */
function TakenColumn({ draft: d, drafts, limits, onChange }: ColumnProps & Pick<Props, 'limits'>) {
  return (
    <>
      <Line label="Called" of={d.column} value={d.name} onChange={(name) => onChange({ name })} />
      <RoleSelect
        label="Connected to"
        name={tr`Connected to, ${d.column}`}
        value={d.role}
        onChange={(role) => onChange({ role })}
      />
      <Line label="Unit" of={d.column} value={d.unit} onChange={(unit) => onChange({ unit })} />
      <Line label="Times" of={d.column} value={d.factor} onChange={(factor) => onChange({ factor })} isMono />
      <PinOrLead draft={d} drafts={drafts} onChange={onChange} />
      {d.role === 'injector-current' && (
        <Line
          label="Cylinder, or empty"
          of={d.column}
          value={d.cylinder}
          onChange={(cylinder) => onChange({ cylinder })}
          isMono
        />
      )}
      {d.role !== 'scan-tool' && (
        <JudgedBySelect
          of={d.column}
          unit={d.unit.trim()}
          limits={limits}
          value={d.limits}
          onChange={(test) => onChange({ limits: test })}
        />
      )}
    </>
  );
}

/** The pin that a value of the scan tool reports, or where the lead of the recorder was. */
function PinOrLead({ draft: d, drafts, onChange }: ColumnProps) {
  return d.role === 'scan-tool' ? (
    <label className="text-sm">
      Reports the pin
      <select
        aria-label={tr`Reports the pin, ${d.column}`}
        className={inputLook}
        value={d.of}
        onChange={(e) => onChange({ of: e.target.value })}
      >
        <option value="">none that was recorded</option>
        {drafts
          .filter((o) => o !== d && o.isTaken && o.role !== 'scan-tool')
          .map((o) => (
            <option key={o.column} value={o.column}>
              {o.name}
            </option>
          ))}
      </select>
    </label>
  ) : (
    <Line label="Lead and pin" of={d.column} value={d.lead} onChange={(lead) => onChange({ lead })} />
  );
}

/** Which limits of the shelf stand behind the lane, of those in its unit. */
function JudgedBySelect(props: {
  of: string;
  unit: string;
  limits: readonly RecordingLimits[];
  value: string;
  onChange: (test: string) => void;
}) {
  const fitting = props.limits.filter((l) => l.unit === props.unit || l.id === props.value);
  if (!fitting.length) return null;
  return (
    <label className="text-sm sm:col-span-full">
      Judged over its whole length by
      <select
        aria-label={tr`Judged by, ${props.of}`}
        className={inputLook}
        value={props.value}
        onChange={(e) => props.onChange(e.target.value)}
      >
        <option value="">no limits: it is only searched</option>
        {fitting.map(({ id, unit, judgedBy: j }) => (
          <option key={id} value={id}>
            {tr`${j.test}: ${limitWords(j, unit)}${j.transfer ? ', with its transfer function' : ''}`}
          </option>
        ))}
      </select>
    </label>
  );
}

const limitWords = ({ lower, upper }: { lower?: number; upper?: number }, unit: string): string =>
  lower !== undefined && upper !== undefined
    ? tr`${lower} to ${upper} ${unit}`
    : lower !== undefined
      ? tr`${lower} ${unit} or more`
      : upper !== undefined
        ? tr`${upper} ${unit} or less`
        : 'no limits';

function Line(props: {
  label: string;
  of: string;
  value: string;
  onChange: (value: string) => void;
  isMono?: boolean;
}) {
  return (
    <label className="text-sm">
      {props.label}
      <input
        aria-label={`${props.label}, ${props.of}`}
        className={`${inputLook} ${props.isMono ? 'font-mono' : ''}`}
        value={props.value}
        autoComplete="off"
        onChange={(e) => props.onChange(e.target.value)}
      />
    </label>
  );
}

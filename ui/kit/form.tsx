'use client';
import type { ReactNode } from 'react';
import type { Problem } from '../../core/foundation/result';
import { type Draft, errorAt } from './draft';
import { Field, inputLook, tie } from './field';

export interface FormFieldsProps {
  readonly draft: Draft;
  readonly problems: readonly Problem[];
  readonly onChange: (field: string, value: string) => void;
}

interface OneProps extends FormFieldsProps {
  readonly field: string;
  readonly path: string;
  readonly label: string;
  readonly hint?: string;
  readonly options?: readonly (readonly [value: string, label: string])[];
  readonly rows?: number;
  readonly disabled?: boolean;
  readonly mono?: boolean;
  /** A password. */
  readonly secret?: boolean;
  /** Where the same field stands several times on a page. */
  readonly id?: string;
}

/** A field of a draft: a line, several lines, or a choice. Its error stands beneath it. */
export function DraftField({
  draft,
  problems,
  onChange,
  field,
  path,
  label,
  hint,
  options,
  rows,
  disabled,
  mono,
  secret,
  id = `f-${field}`,
}: OneProps) {
  const error = errorAt(problems, path);
  const shared = {
    ...tie(id, error),
    disabled,
    value: draft[field] ?? '',
    className: `${inputLook} ${mono ? 'font-mono text-sm' : ''} disabled:opacity-60`,
  };
  return (
    <Field id={id} label={label} {...(hint === undefined ? {} : { hint })} error={error}>
      {options ? (
        <select {...shared} onChange={(e) => onChange(field, e.target.value)}>
          {options.map(([value, text]) => (
            <option key={value} value={value}>
              {text}
            </option>
          ))}
        </select>
      ) : rows ? (
        <textarea {...shared} rows={rows} spellCheck={false} onChange={(e) => onChange(field, e.target.value)} />
      ) : (
        <input
          {...shared}
          {...(secret ? { type: 'password', autoComplete: 'new-password' } : { autoComplete: 'off' })}
          onChange={(e) => onChange(field, e.target.value)}
        />
      )}
    </Field>
  );
}

/** Problems that belong to no field that is shown. */
export function OtherProblems({ problems, paths }: { problems: readonly Problem[]; paths: readonly string[] }) {
  const others = problems.filter((p) => !paths.some((path) => p.path === path || p.path.startsWith(`${path}/`)));
  if (others.length === 0) return null;
  return (
    <ul role="alert" className="mb-3 font-semibold text-rust">
      {others.map((p) => (
        <li key={p.path + p.message}>
          {p.message}
          {p.path && <span className="ml-2 font-mono text-sm font-normal">{p.path}</span>}
        </li>
      ))}
    </ul>
  );
}

export const Row = ({ children }: { children: ReactNode }) => (
  <div className="grid gap-x-3 sm:grid-cols-2 md:grid-cols-3">{children}</div>
);
